import type { Outcome, Random } from '@unto/core';

/** A setting that a hidden coat is fired with. */
export interface TruthSetting {
  readonly powerW: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  /** Only where the family has pulses, or focus is moved. */
  readonly frequencyKHz?: number;
  readonly focusOffsetMm?: number;
}

/** Where on a coupon a cell lies, each from −1 to 1. */
export interface TruthPlace {
  readonly across: number;
  readonly down: number;
}

/** Chances of the three outcomes; they add up to 1. */
export type Chances = Readonly<Record<Outcome, number>>;

/** One hidden coat: what a cell truly becomes, and how often it is misread. No screen reads it. */
export interface WindowTruth {
  readonly chances: (setting: TruthSetting, place?: TruthPlace) => Chances;
  /** Share of cells that are read as something else. */
  readonly misread: number;
}

export const MIDDLE: TruthPlace = { across: 0, down: 0 };

/** Standard logistic distribution. */
export const logistic = (x: number): number => 1 / (1 + Math.exp(-x));

/** Uniform between two ends. */
export const within = (random: Random, low: number, high: number): number => low + (high - low) * random();

/**
 * Chances of two boundaries that come one after the other: over or not, and of what is not over, bonded or not.
 * @param bonded chance that it bonds @param over chance that it is overdone
 */
export function twoBoundaries(bonded: number, over: number): Chances {
  return { over, holds: (1 - over) * bonded, under: (1 - over) * (1 - bonded) };
}

/** What a cell becomes and what it is read as. */
export function fireTruth(truth: WindowTruth, setting: TruthSetting, place: TruthPlace, random: Random): Outcome {
  const { under, holds } = truth.chances(setting, place);
  const drawn = random();
  const became: Outcome = drawn < under ? 'under' : drawn < under + holds ? 'holds' : 'over';
  if (random() >= truth.misread) return became;
  // Faint is mistaken for good and good for faint or overdone; one end never for the other.
  if (became !== 'holds') return 'holds';
  return random() < 0.5 ? 'under' : 'over';
}
