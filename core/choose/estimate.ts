import { makeFigure, type Figure, type FigureInput } from '../evidence/figure.js';
import { CoreError } from '../support/core-error.js';
import { requireFinite, requireNotNegative } from '../support/require.js';
import { mean as meanOf, sampleVariance, studentT90 } from '../statistics/index.js';
import { CRITERION_INFO, type Criterion } from './criteria.js';

/** What is known of one criterion of one option, in the criterion's unit. */
export interface CriterionEstimate {
  readonly criterion: Criterion;
  /** The number with its interval and grade; null while nobody knows it. */
  readonly figure: Figure | null;
  /** Where it lies nine times in ten; for a missing number all it could be. */
  readonly low: number;
  readonly high: number;
  /** Standard deviation of the number itself; 0 when it is certain. */
  readonly sd: number;
  /** What would fill it, when it is missing. */
  readonly wanted?: string | undefined;
}

/**
 * The mean of repeated readings with a two-sided 90 % interval of the mean (Student's t), rounding of a stepped scale included.
 * A single reading borrows the spread usual among such readings.
 * @param samples one or more @param usualSd spread of single readings, in the criterion's unit
 * @throws value.not-finite, value.negative, choose.no-options without samples
 */
export function estimateFromSamples(
  criterion: Criterion,
  samples: readonly number[],
  usualSd: number,
  inputs: readonly FigureInput[],
): CriterionEstimate {
  if (samples.length === 0) throw new CoreError('choose.no-options', 'There is no reading to take a mean of.');
  samples.forEach((value) => requireFinite(criterion, value));
  requireNotNegative('usual spread', usualSd);
  const { step, unit } = CRITERION_INFO[criterion];
  const n = samples.length;
  const average = meanOf(samples);
  const mean = CRITERION_INFO[criterion].scale.kind === 'ratio' ? Math.max(average, LEAST) : average;
  const own = n > 1 ? sampleVariance(samples) : usualSd ** 2;
  const sd = Math.sqrt((own + step ** 2 / 12) / n);
  const reach = studentT90(Math.max(n - 1, 3)) * sd;
  const { low, high } = intervalRound(criterion, mean, reach);
  const figure = makeFigure({
    formula: 'estimateFromSamples',
    value: mean,
    unit,
    interval: { low, high, level: 0.9 },
    inputs,
  });
  return { criterion, figure, low, high, sd };
}

/** An estimate from a figure that carries its own interval (or is certain without one). */
export function estimateFromFigure(criterion: Criterion, figure: Figure): CriterionEstimate {
  const low = figure.interval?.low ?? figure.value;
  const high = figure.interval?.high ?? figure.value;
  return { criterion, figure, low, high, sd: (high - low) / (2 * 1.645) };
}

/** Nobody knows it yet: all it could be, and what would fill it. @throws value.out-of-range when the range is upside down */
export function missingEstimate(
  criterion: Criterion,
  wanted: string,
  range?: readonly [number, number],
): CriterionEstimate {
  const whole = range ?? CRITERION_INFO[criterion].whole;
  if (!whole || whole[1] < whole[0])
    throw new CoreError(
      'value.out-of-range',
      `A missing ${CRITERION_INFO[criterion].label} needs the range it may lie in.`,
    );
  return { criterion, figure: null, low: whole[0], high: whole[1], sd: 0, wanted };
}

/** Minutes nobody times below: three seconds. What is compared by ratio needs a number above 0. */
const LEAST = 0.05;

/** The interval of a mean, held within its scale; what is compared by ratio stays above a fifth of its mean. */
export function intervalRound(criterion: Criterion, mean: number, reach: number): { low: number; high: number } {
  const { whole, scale } = CRITERION_INFO[criterion];
  const [least, most] =
    criterion === 'contrast'
      ? [-5, 5]
      : scale.kind === 'ratio'
        ? [mean / 5, Infinity]
        : (whole ?? [-Infinity, Infinity]);
  return { low: Math.max(least, mean - reach), high: Math.min(most, mean + reach) };
}
