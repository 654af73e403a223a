import type { Known } from '../statistics/partial-pooling.js';
import type { BoundaryPrior } from './boundary.js';
import type { Draws } from './boundary-posterior.js';
import type { WindowForm } from './window-form.js';
import type { WindowCell } from './window-terms.js';

export const BOUNDARIES = ['bond', 'over'] as const;
export type BoundaryName = (typeof BOUNDARIES)[number];
/** What windows teach one another of a boundary: the power it asks for, how that goes with speed, how sharp it is. */
export const LESSONS = ['level', 'slope', 'steepness'] as const;
export type LessonName = (typeof LESSONS)[number];

/** What earlier windows say of a part of this one. */
export interface Lesson {
  readonly boundary: BoundaryName;
  readonly of: LessonName;
  /** What is to be expected here: ln W, ln W a ln speed, or ln of the steepness. */
  readonly expected: Known;
  /** Expected spread between windows. */
  readonly between: number;
  readonly windows: number;
  /** How far this window’s own cells lie from it, in standard errors; null while they say nothing. */
  readonly apart: number | null;
  /** Taken into the fit; not where the cells here contradict it. */
  readonly used: boolean;
  /** Share of what is known of it after the fit that came from elsewhere, 0 to 1. */
  readonly weight: number;
}

/** What the priors take from the bench: spot and metal. */
export interface WindowEquipment {
  readonly radiusMm: number;
  readonly conductivity: number;
  readonly diffusivity: number;
}

/** A fitted process window: draws of its two boundaries, bonded and overdone, in pairs. */
export interface WindowFit {
  readonly modelVersion: number;
  readonly seed: number;
  readonly form: WindowForm;
  /** What was known of each boundary before any cell spoke. */
  readonly priors: { readonly bond: BoundaryPrior; readonly over: BoundaryPrior };
  /** What earlier windows taught of this one, and how much of it is theirs. */
  readonly lessons: readonly Lesson[];
  readonly bond: Draws;
  readonly over: Draws;
  /** Steepness of both, draw by draw: the same at every point. */
  readonly bondK: Float64Array;
  readonly overK: Float64Array;
  readonly drawCount: number;
  readonly cells: readonly WindowCell[];
}
