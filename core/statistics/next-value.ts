import { mean, sampleVariance } from './moments.js';
import { studentT90 } from './student-t.js';

/**
 * Where the next value of a normal sample lies nine times in ten: x̄ ± t·s·√(1 + 1/n), in the unit of the values.
 * Source: prediction interval of a single future observation, as in Hahn & Meeker, Statistical Intervals, 1991; from memory.
 * @param values two or more
 * @example nextValue([9, 10, 11]).reach // 3.37
 */
export function nextValue(values: readonly number[]): { mean: number; reach: number } {
  const n = values.length;
  return { mean: mean(values), reach: studentT90(n - 1) * Math.sqrt(sampleVariance(values) * (1 + 1 / n)) };
}
