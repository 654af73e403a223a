import { CoreError } from '../support/core-error.js';
import { mean } from '../statistics/moments.js';
import { requireFinite, requirePositive } from '../support/require.js';

/** Mean moving range of two over σ of a normal (d₂ for n = 2, 2/√π). */
const RANGE_PER_SIGMA = 2 / Math.sqrt(Math.PI);

/** Middle and spread of a steady process, by its values one after another. */
export interface Steady {
  readonly centre: number;
  /** σ by the mean moving range of two, which a slow drift widens less than it would a standard deviation. */
  readonly spread: number;
}

/**
 * Centre and spread of individual values, by the mean moving range.
 * @param values two or more, in time order @param least spread that is taken at the least: what the scale itself cannot tell apart
 * @throws fit.no-data for fewer than two; value.not-finite
 * Source: NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2 (individuals control charts).
 */
export function steadyOf(values: readonly number[], least = 0): Steady {
  if (values.length < 2) throw new CoreError('fit.no-data', 'Two values or more tell how steady something is.');
  values.forEach((value) => requireFinite('value', value));
  const ranges = values.slice(1).map((value, i) => Math.abs(value - values[i]!));
  return { centre: mean(values), spread: Math.max(least, mean(ranges) / RANGE_PER_SIGMA) };
}

export const DRIFT_RULES = [
  'beyond 3 σ',
  'two of three beyond 2 σ',
  'four of five beyond 1 σ',
  'eight on one side',
] as const;
export type DriftRule = (typeof DRIFT_RULES)[number];

const RUN_RULES: readonly {
  readonly rule: DriftRule;
  readonly beyond: number;
  readonly needs: number;
  readonly of: number;
}[] = [
  { rule: 'beyond 3 σ', beyond: 3, needs: 1, of: 1 },
  { rule: 'two of three beyond 2 σ', beyond: 2, needs: 2, of: 3 },
  { rule: 'four of five beyond 1 σ', beyond: 1, needs: 4, of: 5 },
  { rule: 'eight on one side', beyond: 0, needs: 8, of: 8 },
];

/**
 * The Western Electric rules that each value completes, on one side of the centre: the value itself lies beyond, and so do enough of those
 * just before it.
 * @param z standardised values, in time order
 * @param side −1 for below only, 1 for above only
 * @throws value.not-finite
 * Source: Western Electric, Statistical Quality Control Handbook, 1956; NIST/SEMATECH e-Handbook 6.3.2.
 */
export function westernElectric(z: readonly number[], side: -1 | 1): DriftRule[][] {
  const toSide = z.map((value) => side * requireFinite('standardised value', value));
  return toSide.map((value, i) =>
    RUN_RULES.filter(({ beyond, needs, of }) => {
      if (value <= beyond) return false;
      return toSide.slice(Math.max(0, i - of + 1), i + 1).filter((one) => one > beyond).length >= needs;
    }).map(({ rule }) => rule),
  );
}

/** What a tabular CUSUM is set up with, in σ: half the shift it looks for, and where it calls out. */
export interface CusumTerms {
  readonly slack: number;
  readonly limit: number;
}
/** A shift of one σ, called out after about eight values, and by chance once in some 370 (Montgomery, h = 4.77 for k = 0.5). */
export const USUAL_CUSUM: CusumTerms = { slack: 0.5, limit: 4.77 };

/** Sums above and below the centre after each value, and where either passed its limit. */
export interface CusumPoint {
  readonly high: number;
  readonly low: number;
  readonly out: 'high' | 'low' | null;
}

/**
 * A tabular CUSUM: what is over (or under) the centre by more than the slack adds up, never below nought.
 * @param z standardised values (or values less their target, with slack and limit in the same unit)
 * @throws value.not-finite, value.not-positive
 * Source: NIST/SEMATECH e-Handbook 6.3.2.3.
 */
export function cusum(z: readonly number[], { slack, limit }: CusumTerms = USUAL_CUSUM): CusumPoint[] {
  requirePositive('slack', slack);
  requirePositive('limit', limit);
  let [high, low] = [0, 0];
  return z.map((value) => {
    requireFinite('standardised value', value);
    high = Math.max(0, high + value - slack);
    low = Math.max(0, low - value - slack);
    return { high, low, out: low > limit ? 'low' : high > limit ? 'high' : null };
  });
}
