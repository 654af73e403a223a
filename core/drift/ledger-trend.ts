import { mostLost } from '../judge/sampling.js';
import { mannKendall } from '../statistics/mann-kendall.js';
import { mean, sampleVariance } from '../statistics/moments.js';
import { studentT90 } from '../statistics/student-t.js';
import { calendarWhiles, type CalendarWhile } from '../time/calendar-whiles.js';

/** A run as a trend takes it. */
export interface TrendRun {
  /** When it was logged, ms since 1970. */
  readonly at: number;
  readonly pieces: number;
  /** Measured minutes; null where they were only planned. */
  readonly minutes: number | null;
  /** Step 1 to 5 and good pieces as judged; null where nobody has. */
  readonly contrast: number | null;
  readonly good: number | null;
}

export const TREND_MEASURES = ['contrast', 'good', 'minutes'] as const;
/** What is followed over time: contrast in steps, share of good pieces, minutes of a piece. */
export type TrendMeasure = (typeof TREND_MEASURES)[number];

/** A mean over the runs of a while, and where it lies nine times in ten. */
export interface TrendValue {
  readonly value: number;
  /** Null where one run tells nothing of how runs differ. */
  readonly low: number | null;
  readonly high: number | null;
  /** Runs that tell of it. */
  readonly runs: number;
}

/** A calendar while, from its first moment to the first after it, ms since 1970. */
export interface TrendPoint extends Readonly<Record<TrendMeasure, TrendValue | null>> {
  readonly from: number;
  readonly to: number;
  readonly runs: number;
  readonly pieces: number;
}

/** Which way a measure goes over all runs, and how likely that is by chance. */
export interface TrendWay {
  readonly measure: TrendMeasure;
  readonly tau: number;
  readonly chance: number;
  readonly runs: number;
}

export interface LedgerTrend {
  readonly by: CalendarWhile;
  readonly points: readonly TrendPoint[];
  readonly ways: readonly TrendWay[];
}

/** Points that a chart carries, and runs below which no way is told. */
const MOST_POINTS = 26;
const FEWEST = 6;

/**
 * Runs followed over time: means by calendar whiles (UTC) as short as a chart carries, each with a nine-in-ten interval, and which way each
 * measure goes by the test of Mann and Kendall over single runs. Runs weigh alike, whatever their pieces: pieces of one run share its
 * fortune. Where a while's runs all came out alike, the interval of the good ones is that of their pieces.
 */
export function ledgerTrend(runs: readonly TrendRun[]): LedgerTrend {
  const inOrder = [...runs].sort((a, b) => a.at - b.at);
  const { by, whiles } = calendarWhiles(inOrder, ({ at }) => at, MOST_POINTS);
  const points = whiles.map(({ from, to, own }): TrendPoint => {
    const values = Object.fromEntries(TREND_MEASURES.map((measure) => [measure, valueOf(own, measure)]));
    const pieces = own.reduce((sum, run) => sum + run.pieces, 0);
    return { from, to, runs: own.length, pieces, ...values } as TrendPoint;
  });
  return { by, points, ways: TREND_MEASURES.flatMap((measure) => wayOf(inOrder, measure)) };
}

function measured(run: TrendRun, measure: TrendMeasure): number | null {
  if (measure === 'contrast') return run.contrast;
  if (measure === 'good') return run.good === null || run.pieces === 0 ? null : run.good / run.pieces;
  return run.minutes === null || run.pieces === 0 ? null : run.minutes / run.pieces;
}

function told(runs: readonly TrendRun[], measure: TrendMeasure) {
  return runs.flatMap((run) => {
    const value = measured(run, measure);
    return value === null ? [] : [{ run, value }];
  });
}

function valueOf(runs: readonly TrendRun[], measure: TrendMeasure): TrendValue | null {
  const own = told(runs, measure);
  if (!own.length) return null;
  const values = own.map(({ value }) => value);
  const { low, high } = reachOf(values, measure);
  const whole = { value: mean(values), low, high, runs: own.length };
  return measure === 'good'
    ? {
        ...whole,
        ...withPieces(
          own.map(({ run }) => run),
          whole,
        ),
      }
    : whole;
}

function reachOf(values: readonly number[], measure: TrendMeasure): Pick<TrendValue, 'low' | 'high'> {
  if (values.length < 2) return { low: null, high: null };
  const { least, most, rounded } = RANGES[measure];
  const variance = Math.max(sampleVariance(values), rounded ** 2 / 12);
  const reach = studentT90(values.length - 1) * Math.sqrt(variance / values.length);
  return { low: Math.max(least, mean(values) - reach), high: Math.min(most, mean(values) + reach) };
}

interface Range {
  readonly least: number;
  readonly most: number;
  /** What a reading is rounded to: values that are all alike differ by that at least (its variance over 12). */
  readonly rounded: number;
}

const RANGES: Readonly<Record<TrendMeasure, Range>> = {
  contrast: { least: 1, most: 5, rounded: 1 },
  good: { least: 0, most: 1, rounded: 0 },
  minutes: { least: 0, most: Infinity, rounded: 0 },
};

/** The wider of two intervals: how runs differ, and what so many pieces can tell (each end exact at 95 of 100). */
function withPieces(runs: readonly TrendRun[], { low, high }: Pick<TrendValue, 'low' | 'high'>) {
  const scrubbed = runs.reduce((sum, { pieces }) => sum + pieces, 0);
  const good = runs.reduce((sum, run) => sum + run.good!, 0);
  return {
    low: Math.min(low ?? 1, 1 - mostLost({ scrubbed, lost: scrubbed - good }, null, 0.95)),
    high: Math.max(high ?? 0, mostLost({ scrubbed, lost: good }, null, 0.95)),
  };
}

function wayOf(runs: readonly TrendRun[], measure: TrendMeasure): TrendWay[] {
  const own = told(runs, measure);
  if (own.length < FEWEST) return [];
  const { tau, chance } = mannKendall(own.map(({ value }) => value));
  return [{ measure, tau, chance, runs: own.length }];
}
