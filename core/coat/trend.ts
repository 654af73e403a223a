import { CoreError } from '../support/core-error.js';
import { requireFinite } from '../support/require.js';
import { nextValue, studentT90 } from '../statistics/index.js';
import type { FilmBand } from './judge-film.js';

/** A straight line y = intercept + slope·x by least squares, with standard errors. */
export interface StraightLine {
  readonly intercept: number;
  readonly slope: number;
  readonly slopeError: number;
  readonly interceptError: number;
  /** Residual standard deviation on n − 2. */
  readonly residual: number;
}

/**
 * Least-squares straight line through at least three points that do not share one x.
 * Source: textbook; checked on NIST StRD Norris.
 * @throws trend.too-few, trend.one-moment
 */
export function straightLine(points: readonly { readonly x: number; readonly y: number }[]): StraightLine {
  const n = points.length;
  if (n < 3) throw new CoreError('trend.too-few', 'A trend needs three readings at least.');
  points.forEach(({ x, y }) => (requireFinite('x', x), requireFinite('y', y)));
  const mean = (of: (point: { x: number; y: number }) => number) => points.reduce((sum, p) => sum + of(p), 0) / n;
  const mx = mean(({ x }) => x);
  const my = mean(({ y }) => y);
  const sxx = points.reduce((sum, { x }) => sum + (x - mx) ** 2, 0);
  if (sxx === 0) throw new CoreError('trend.one-moment', 'All readings are of one moment: there is no trend in them.');
  const slope = points.reduce((sum, { x, y }) => sum + (x - mx) * (y - my), 0) / sxx;
  const intercept = my - slope * mx;
  const rss = points.reduce((sum, { x, y }) => sum + (y - intercept - slope * x) ** 2, 0);
  const residual = Math.sqrt(rss / (n - 2));
  return {
    intercept,
    slope,
    residual,
    slopeError: residual / Math.sqrt(sxx),
    interceptError: residual * Math.sqrt(1 / n + (mx * mx) / sxx),
  };
}

/** A film weighed on a day (days since any fixed moment). */
export interface FilmSample {
  readonly day: number;
  readonly filmUm: number;
}

/** How somebody's coats of a compound have run. */
export interface FilmTrend {
  readonly count: number;
  readonly meanUm: number;
  /** Range in which the next coat falls nine times in ten; null with a single one. */
  readonly next: { readonly lowUm: number; readonly highUm: number } | null;
  /** Coats that lay in the band. */
  readonly inBand: number;
  /** µm a month with its 90 % interval; null with fewer than four coats, or all on one day. */
  readonly drift: { readonly perMonthUm: number; readonly low: number; readonly high: number } | null;
  readonly verdict: 'steady' | 'rising' | 'falling';
}

const DAYS_A_MONTH = 30;

/**
 * Mean, next-coat range and drift of somebody's coats of one compound. It rises or falls when the 90 % interval of the slope
 * leaves nought out; otherwise it is called steady.
 * @throws trend.too-few without a coat
 */
export function filmTrend(samples: readonly FilmSample[], band: FilmBand): FilmTrend {
  const count = samples.length;
  if (count === 0) throw new CoreError('trend.too-few', 'No coat was weighed yet.');
  const meanUm = samples.reduce((sum, { filmUm }) => sum + filmUm, 0) / count;
  const drift = driftOf(samples);
  return {
    count,
    meanUm,
    next: count > 1 ? nextRange(samples) : null,
    inBand: samples.filter(({ filmUm }) => filmUm >= band.lowUm && filmUm <= band.highUm).length,
    drift,
    verdict: !drift || (drift.low <= 0 && drift.high >= 0) ? 'steady' : drift.perMonthUm > 0 ? 'rising' : 'falling',
  };
}

function nextRange(samples: readonly FilmSample[]): { lowUm: number; highUm: number } {
  const { mean, reach } = nextValue(samples.map(({ filmUm }) => filmUm));
  return { lowUm: Math.max(0, mean - reach), highUm: mean + reach };
}

function driftOf(samples: readonly FilmSample[]): FilmTrend['drift'] {
  if (samples.length < 4 || samples.every(({ day }) => day === samples[0]!.day)) return null;
  const line = straightLine(samples.map(({ day, filmUm }) => ({ x: day, y: filmUm })));
  const perMonthUm = line.slope * DAYS_A_MONTH;
  const reach = studentT90(samples.length - 2) * line.slopeError * DAYS_A_MONTH;
  return { perMonthUm, low: perMonthUm - reach, high: perMonthUm + reach };
}
