import { requireFinite, requirePositive } from '../support/require.js';

/** What a window may vary besides power, speed, interval and passes. */
export const WINDOW_TERMS = ['hatches', 'angleDeg', 'focusOffsetMm', 'frequencyKHz', 'pulseNs'] as const;
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
}

/** All of a point besides power and speed. */
export type WindowRest = Omit<WindowPoint, 'powerW' | 'speedMmPerS'>;

/** Weak knowledge of a term: its best lies somewhere inside, so it enters straight and squared. Scales: one step of each. */
interface TermShape {
  readonly read: (value: number) => number;
  readonly squared: boolean;
  /** sd of the straight and of the squared slope, in logits a step. */
  readonly sd: number;
}

const log = (value: number) => Math.log(requirePositive('value', value));
const SHAPES: Record<WindowTerm, TermShape> = {
  hatches: { read: (value) => value, squared: false, sd: 4 },
  angleDeg: { read: (value) => requireFinite('hatch angle', value) / 45, squared: true, sd: 3 },
  focusOffsetMm: { read: (value) => requireFinite('focus', value), squared: true, sd: 7 },
  frequencyKHz: { read: log, squared: true, sd: 7 },
  pulseNs: { read: log, squared: true, sd: 7 },
};

/** Terms that some cells vary, in the order of WINDOW_TERMS. */
export function variedTerms(cells: readonly WindowPoint[]): WindowTerm[] {
  return WINDOW_TERMS.filter((term) => new Set(cells.map((cell) => cell[term] ?? null)).size > 1);
}

/**
 * A point's place: ln P, ln v, ln h, ln N (passes, crossed ones twice), then each varied term.
 * @throws value.not-positive, value.not-finite where a varied term is not said
 */
export function windowPlace(point: WindowPoint, terms: readonly WindowTerm[] = []): number[] {
  return [
    Math.log(requirePositive('power', point.powerW)),
    Math.log(requirePositive('speed', point.speedMmPerS)),
    Math.log(requirePositive('interval', point.intervalMm)),
    Math.log(requirePositive('passes', point.passes * (point.hatches ?? 1))),
    ...terms.map((term) => SHAPES[term].read(point[term] ?? Number.NaN)),
  ];
}

/** Parts of a place that hold for every window: power, speed, interval, passes. */
export const PLACE_BASE = 4;

/** Places of the terms that enter squared too. */
export function squaredPlaces(terms: readonly WindowTerm[]): number[] {
  return terms.flatMap((term, k) => (SHAPES[term].squared ? [PLACE_BASE + k] : []));
}

/** sd of the priors of the terms' slopes: straight ones first, then squared ones. All are about nought. */
export function termSpreads(terms: readonly WindowTerm[]): number[] {
  const squared = terms.filter((term) => SHAPES[term].squared);
  return [...terms, ...squared].map((term) => SHAPES[term].sd);
}
