/** 95th percentile of Student's t for 1, 2, … degrees of freedom (two-sided 90 %); standard tables. */
const T_90 = [6.314, 2.92, 2.353, 2.132, 2.015, 1.943, 1.895, 1.86, 1.833, 1.812];

/**
 * Half width of a two-sided 90 % interval in standard deviations, for so many degrees of freedom; near the normal 1.645 above ten.
 * @param degrees 1 or more
 */
export function studentT90(degrees: number): number {
  return T_90[degrees - 1] ?? 1.645 + 1.7 / (degrees + 1);
}
