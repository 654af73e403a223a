import { mean } from '../statistics/moments.js';
import { cusum, steadyOf, westernElectric, type CusumPoint, type DriftRule, type Steady } from './control-chart.js';

/** A judged run of a recipe, as its charts take it. */
export interface DriftRun {
  /** Contrast as judged, on whatever scale all runs share; null where it was not judged. */
  readonly contrast: number | null;
  /** Share of the mark that stood the hardest test, 0 to 1; null where none was made. */
  readonly kept: number | null;
  readonly pieces: number;
  readonly good: number;
}

export const DRIFT_MEASURES = ['contrast', 'kept', 'hold rate'] as const;
export type DriftMeasure = (typeof DRIFT_MEASURES)[number];

/** One run on a chart. */
export interface DriftPoint {
  /** Which run of those that were given. */
  readonly run: number;
  readonly value: number;
  /** How far it lies off the least centre that the first runs allow, in σ. */
  readonly z: number;
  readonly sums: CusumPoint;
  readonly rules: readonly DriftRule[];
}

/** A control chart of one measure, and where it first went down. */
export interface DriftChart extends Steady {
  readonly measure: DriftMeasure;
  /** Runs at the beginning that centre and spread come from. */
  readonly baseline: number;
  readonly points: readonly DriftPoint[];
  /**
   * The first run after which it is out, by what, and whether it is sure: two of the last three runs are out. Null while it holds steady.
   * One run alone is out by chance once in some hundred.
   */
  readonly alarm: { readonly run: number; readonly by: string; readonly sure: boolean } | null;
}

/** So few runs say nothing of what is usual. */
export const LEAST_BASELINE = 6;
const MOST_BASELINE = 12;
/** What a judge by eye does not tell apart: half a contrast step, a seventh of what was kept. */
const LEAST_SPREAD: Record<DriftMeasure, number> = { contrast: 0.5, kept: 0.15, 'hold rate': 0 };

/**
 * Control charts of the judged runs of a recipe, oldest first: Western Electric rules and a CUSUM, downwards only, against the first runs.
 * A measure that fewer than seven runs were judged by has no chart.
 * @param from first run that may raise an alarm: those before were dealt with
 * @throws value.not-finite
 */
export function driftCharts(runs: readonly DriftRun[], from = 0): DriftChart[] {
  return DRIFT_MEASURES.flatMap((measure) => {
    const judged = runs.map((_, run) => run).filter((run) => valueOf(measure, runs[run]!) !== null);
    if (judged.length <= LEAST_BASELINE) return [];
    const baseline = Math.min(MOST_BASELINE, Math.max(LEAST_BASELINE, Math.floor(judged.length / 2)));
    const { steady, z } = standardised(
      measure,
      judged.map((run) => runs[run]!),
      baseline,
    );
    return [
      chartOf(measure, steady, {
        judged,
        z,
        values: judged.map((run) => valueOf(measure, runs[run]!)!),
        baseline,
        from,
      }),
    ];
  });
}

function valueOf(measure: DriftMeasure, { contrast, kept, pieces, good }: DriftRun): number | null {
  if (measure === 'contrast') return contrast;
  return measure === 'kept' ? kept : pieces > 0 ? good / pieces : null;
}

/**
 * Standard errors by which the centre is taken lower than the first runs say: a dozen of them say it no better, and a chart that takes it
 * for known calls out some three times as often as its limits promise.
 */
const UNSURE = 2;

/** Values in σ off the least centre that the first runs allow. */
function standardised(
  measure: DriftMeasure,
  runs: readonly DriftRun[],
  baseline: number,
): { steady: Steady; z: number[] } {
  if (measure !== 'hold rate') {
    const values = runs.map((run) => valueOf(measure, run)!);
    const steady = steadyOf(values.slice(0, baseline), LEAST_SPREAD[measure]);
    const least = steady.centre - (UNSURE * steady.spread) / Math.sqrt(baseline);
    return { steady, z: values.map((value) => (value - least) / steady.spread) };
  }
  const before = runs.slice(0, baseline);
  const sum = (of: 'pieces' | 'good') => before.reduce((total, run) => total + run[of], 0);
  const rate = (sum('good') + 0.5) / (sum('pieces') + 1);
  const typical = mean(runs.map(({ pieces }) => pieces));
  const steady = { centre: rate, spread: Math.sqrt((rate * (1 - rate)) / typical) };
  const least = Math.max(0, rate - UNSURE * Math.sqrt((rate * (1 - rate)) / sum('pieces')));
  return { steady, z: runs.map(({ good, pieces }) => countOff(good, pieces, least)) };
}

/**
 * How far a count lies off its share, in σ: by the angle whose square of sine is the share, which is all but normal for few pieces too.
 * Source: Anscombe, Biometrika 35, 1948.
 */
function countOff(good: number, pieces: number, rate: number): number {
  const angle = (share: number) => Math.asin(Math.sqrt(share));
  return (
    (angle((good + 0.375) / (pieces + 0.75)) - angle((rate * pieces + 0.375) / (pieces + 0.75))) *
    Math.sqrt(4 * pieces + 2)
  );
}

function chartOf(
  measure: DriftMeasure,
  steady: Steady,
  of: { judged: readonly number[]; z: readonly number[]; values: readonly number[]; baseline: number; from: number },
): DriftChart {
  const start = Math.max(
    of.baseline,
    of.judged.findIndex((run) => run >= of.from),
  );
  const later = of.z.slice(start);
  const rules = westernElectric(later, -1);
  const sums = cusum(later);
  const quiet: CusumPoint = { high: 0, low: 0, out: null };
  const points = of.judged.map((run, i) => ({
    ...{ run, value: of.values[i]!, z: of.z[i]! },
    ...{ sums: sums[i - start] ?? quiet, rules: rules[i - start] ?? [] },
  }));
  const isOut = ({ rules: broken, sums: { out } }: DriftPoint) => broken.length > 0 || out === 'low';
  const first = points.find(isOut);
  const sure = points.slice(-3).filter(isOut).length >= 2;
  const by = first && (first.rules[0] ?? 'the sum of what fell short passed its limit');
  return { measure, ...steady, baseline: of.baseline, points, alarm: first ? { run: first.run, by: by!, sure } : null };
}
