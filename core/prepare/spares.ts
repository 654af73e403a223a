import { yieldPosterior } from '../cost/yield-posterior.js';
import { makeFigure, decisive, supporting, type Figure } from '../evidence/figure.js';
import { CoreError } from '../support/core-error.js';
import { requireNotNegative, requirePositive, requireWithin } from '../support/require.js';

/** What the spares of a job are reckoned from. */
export interface SparesJob {
  readonly pieces: number;
  /** Pieces the shop made like this before, and how many came out good. */
  readonly made: number;
  readonly good: number;
  /** Chance that the spares do, 0.5 to 0.999. */
  readonly confidence: number;
}

/** Whose pieces came out good: of this substrate and compound, or of whatever the shop makes. */
export const YIELD_OF = ['this pairing', 'this shop'] as const;
export type YieldOf = (typeof YIELD_OF)[number];

/** Weight of a shop's usual yield before anything was made. */
const NOTHING_MADE = { a: 9, b: 1 };

/**
 * The fewest spare pieces with which at least `pieces` good ones come out, as surely as asked: beta-binomial, the yield being
 * Beta(½ + good, ½ + bad) (Jeffreys). Nothing made before counts as nine good of ten (common practice, no source).
 * @throws value.not-positive, value.negative, value.out-of-range
 * @example sparesFor({ pieces: 10, made: 100000, good: 90000, confidence: 0.9 }) // 3
 */
export function sparesFor(job: SparesJob): number {
  const pieces = requirePositive('pieces', job.pieces);
  requireWithin('confidence', job.confidence, 0.5, 0.999);
  const { a, b } = yieldPosterior(job.good, job.made) ?? NOTHING_MADE;
  let [low, high] = [-1, 1];
  while (chanceEnough(pieces, high, a, b) < job.confidence) {
    [low, high] = [high, 2 * high];
    if (high > 50 * pieces + 1000)
      throw new CoreError('value.out-of-range', 'So few came out good before that no number of spares would do.');
  }
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (chanceEnough(pieces, middle, a, b) >= job.confidence) high = middle;
    else low = middle;
  }
  return high;
}

/** sparesFor as a Figure with what it rests on; pieces burnt as coupons come on top. @throws what sparesFor throws */
export function sparesFigure(job: SparesJob & { readonly coupons: number; readonly of: YieldOf }): Figure {
  const spares = sparesFor(job);
  const known = job.made > 0;
  const ofThis = job.of === 'this pairing' ? 'measured' : 'carried';
  const grade = known ? ofThis : 'usual';
  const value = spares + requireNotNegative('coupons', job.coupons);
  return makeFigure({
    formula: 'sparesFor',
    value,
    unit: value === 1 ? 'piece' : 'pieces',
    inputs: [
      decisive(`came out good, ${known ? job.of : 'nothing made yet'}`, grade, {
        value: known ? `${job.good} of ${job.made}` : '9 of 10',
      }),
      decisive('pieces wanted', 'measured', { value: job.pieces, unit: 'pieces' }),
      supporting('to be as sure as', 'measured', { value: Math.round(100 * job.confidence), unit: '%' }),
      supporting('pieces for the coupon', 'usual', { value: job.coupons, unit: 'pieces' }),
    ],
  });
}

/** Chance of at most `spares` bad among pieces + spares. */
function chanceEnough(pieces: number, spares: number, a: number, b: number): number {
  const n = pieces + spares;
  let sum = 0;
  for (let bad = 0; bad <= spares; bad += 1) {
    const choose = logGamma(n + 1) - logGamma(bad + 1) - logGamma(n - bad + 1);
    sum += Math.exp(choose + logBeta(n - bad + a, bad + b) - logBeta(a, b));
  }
  return sum;
}

function logBeta(a: number, b: number): number {
  return logGamma(a) + logGamma(b) - logGamma(a + b);
}

/** ln Γ(x) for x > 0: Stirling's series from 8 on, the recurrence below (error under 1e-10). Abramowitz & Stegun 6.1.41. */
function logGamma(x: number): number {
  if (x < 8) return logGamma(x + 1) - Math.log(x);
  const inverse = 1 / x;
  const square = inverse * inverse;
  const series = inverse * (1 / 12 - square * (1 / 360 - square * (1 / 1260 - square / 1680)));
  return (x - 0.5) * Math.log(x) - x + 0.5 * Math.log(2 * Math.PI) + series;
}
