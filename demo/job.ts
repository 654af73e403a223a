import type { Aim } from '@unto/contract';
import type { CouponAxis } from '@unto/core';
import type { TruthKey } from '@unto/simulators/ground-truth';

/** How far a demo job has come. */
export type DemoStage = 'choosing' | 'coupon rinsed' | 'coating' | 'marking' | 'done';

/** A job of the demo workshop from which ticket, coupons and runs are made. */
export interface DemoJob {
  readonly key: string;
  readonly title: string;
  readonly pieces: number;
  readonly mark: readonly [widthMm: number, heightMm: number];
  readonly substrate: string;
  readonly head: string;
  readonly lens: string;
  readonly compound: string | null;
  readonly container: string | null;
  readonly reason: string;
  readonly aim: Aim;
  readonly foodUse?: boolean;
  /** Days before the demo is loaded. */
  readonly opened: number;
  readonly wanted: number | null;
  readonly stage: DemoStage;
  readonly truth: TruthKey | null;
  readonly axes?: { readonly x: CouponAxis; readonly y: CouponAxis; readonly block?: CouponAxis };
  readonly intervalMm?: number;
  readonly runs?: number;
  readonly piecesPerRun?: number;
  /** What a pulsed head was set to. */
  readonly frequencyKHz?: number;
  readonly pulseNs?: number;
  /** Pieces coated and dried that wait to be marked. */
  readonly coatedAhead?: number;
  readonly air?: 'on' | 'off';
  /** Another job whose recipe it takes into use, instead of one of its own. */
  readonly uses?: string;
  /** Steps of contrast that its marks are paler by than its coat’s usual look. */
  readonly paler?: number;
  readonly faults?: { readonly every: number; readonly fault: string };
  readonly note?: string;
  /** Coupons made for it, the first with the ticket, later ones to look again; 1 without saying. */
  readonly coupons?: number;
  /** Mean dry mass and transfer of the coat, for its weighings: µm and share. */
  readonly film?: { readonly meanUm: number; readonly transfer: number };
}

export const power = (from: number, to: number, count: number): CouponAxis => ({
  parameter: 'power',
  spacing: 'linear',
  from,
  to,
  count,
});
export const speed = (from: number, to: number, count: number): CouponAxis => ({
  parameter: 'speed',
  spacing: 'log',
  from,
  to,
  count,
});
export const DARK: Aim = { tone: 'dark on light', strength: 'strong', work: 'line work' };
export const FILL: Aim = { tone: 'dark on light', strength: 'clear', work: 'fill' };
export const LIGHT: Aim = { tone: 'light on dark', strength: 'clear', work: 'fill' };
export const CO2 = { head: 'co2', lens: 'lens-50' };
