/**
 * The middle of some values; of an even number the mean of the two in the middle.
 * @param whenNone what is answered for no values at all
 * @example median([3, 1, 2, 10]) // 2.5
 */
export function median(values: ArrayLike<number>, whenNone = Number.NaN): number {
  if (values.length === 0) return whenNone;
  const sorted = Float64Array.from(values).sort();
  const half = sorted.length >> 1;
  return sorted.length % 2 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/**
 * Standard deviation of values about nought, told by the middle one of their sizes so that outliers do not count: 1.4826 times the
 * median absolute deviation (Hampel, J. Am. Stat. Assoc. 69, 383, 1974).
 * @example robustSpread([-1, 1, 1, 40]) // 1.4826
 */
export function robustSpread(deviations: ArrayLike<number>): number {
  return 1.4826 * median(Array.from(deviations, Math.abs), 0);
}
