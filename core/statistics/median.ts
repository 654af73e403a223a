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
