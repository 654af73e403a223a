import type { Outcome } from '../coupon/outcomes.js';
import { requireFinite, requirePositive } from '../support/require.js';

/** What a window may vary besides power, speed, interval and passes. */
export const WINDOW_TERMS = ['hatches', 'angleDeg', 'focusOffsetMm', 'frequencyKHz', 'pulseNs', 'coats'] as const;
export type WindowTerm = (typeof WINDOW_TERMS)[number];

/**
 * A point of the window, in core units. Power is what reaches the part. A term that is left out is one that nothing varied: the
 * point then stands at the window's own value.
 */
export interface WindowPoint {
  readonly powerW: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  readonly passes: number;
  readonly hatches?: number | undefined;
  readonly angleDeg?: number | undefined;
  readonly focusOffsetMm?: number | undefined;
  readonly frequencyKHz?: number | null | undefined;
  readonly pulseNs?: number | null | undefined;
  readonly coats?: number | null | undefined;
}

/** All of a point besides power and speed. */
export type WindowRest = Omit<WindowPoint, 'powerW' | 'speedMmPerS'>;

/** Share of its contrast that a cell kept, and the limit from which it holds. */
export interface Kept {
  readonly share: number;
  readonly limit: number;
}

/** What coupons may differ in besides their settings, and that has an effect of its own where several were seen. */
export const SEEN_FACTORS = ['lot', 'by'] as const;
export type SeenFactor = (typeof SEEN_FACTORS)[number];

const REST_PARTS = ['intervalMm', 'passes', ...WINDOW_TERMS] as const satisfies readonly (keyof WindowRest)[];

/** All of a point besides power and speed, and nothing else of whatever holds it. */
export const restOfPoint = (point: WindowRest): WindowRest =>
  Object.fromEntries(REST_PARTS.map((part) => [part, point[part]])) as unknown as WindowRest;

/** A scrubbed cell. */
export interface WindowCell extends WindowPoint {
  readonly outcome: Outcome;
  /** Judged by eye, not read from a picture: more often misread. */
  readonly byEye?: boolean | undefined;
  /** Somebody looked at it once more, since it disagrees with the cells around: hardly misread any more. */
  readonly lookedAgain?: boolean | undefined;
  /** Share of its contrast that was left after the scrub, and the limit from which it holds; only where pictures told. */
  readonly kept?: Kept | null | undefined;
  /** What it was made with and by, as far as that is known: a lot of the compound, a person. */
  readonly seen?: Readonly<Partial<Record<SeenFactor, string>>> | undefined;
  /** How much it counts, more than 0; 1 where nothing is said. */
  readonly weight?: number | undefined;
}

/**
 * Weak knowledge of a term: its best lies somewhere inside, so it enters straight and squared. `spread` is in ln power a step: how
 * much more power one step off may ask for.
 */
interface TermShape {
  readonly read: (value: number) => number;
  readonly squared: boolean;
  readonly spread: number;
}

const log = (value: number) => Math.log(requirePositive('value', value));
export const TERM_SHAPES: Record<WindowTerm, TermShape> = {
  hatches: { read: (value) => value, squared: false, spread: 0.3 },
  angleDeg: { read: (value) => requireFinite('hatch angle', value) / 45, squared: true, spread: 0.2 },
  focusOffsetMm: { read: (value) => requireFinite('focus', value), squared: true, spread: 0.4 },
  frequencyKHz: { read: log, squared: true, spread: 0.4 },
  pulseNs: { read: log, squared: true, spread: 0.4 },
  coats: { read: log, squared: true, spread: 0.3 },
};

/** Terms that some cells vary, in the order of WINDOW_TERMS. */
export function variedTerms(cells: readonly WindowPoint[]): WindowTerm[] {
  return WINDOW_TERMS.filter((term) => new Set(cells.map((cell) => cell[term] ?? null)).size > 1);
}
