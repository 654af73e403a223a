/** Arithmetic mean; NaN of none. */
export function mean(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

/** Variance of a sample about its own mean, n − 1 below the line; NaN of fewer than two. */
export function sampleVariance(values: readonly number[]): number {
  const middle = mean(values);
  return values.reduce((sum, value) => sum + (value - middle) ** 2, 0) / (values.length - 1);
}
