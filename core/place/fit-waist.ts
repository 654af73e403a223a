import { inverse, Matrix } from 'ml-matrix';
import { CoreError } from '../support/core-error.js';
import { requireFinite, requirePositive } from '../support/require.js';
import { studentT90 } from '../statistics/index.js';

/** One dot of a hunt: height of the head over the part and width of the dot, mm. */
export interface DotReading {
  readonly heightMm: number;
  readonly widthMm: number;
}

/** The beam's waist as found by the dots. Lengths in mm. */
export interface WaistFit {
  readonly heightMm: number;
  /** Nine times in ten the best height lies within this of it; null with three dots, which leave nothing to judge by. */
  readonly heightReachMm: number | null;
  readonly spotMm: number;
  readonly rayleighMm: number;
  /** ± mm within which the dot grows by no more than `growth`. */
  readonly depthMm: number;
  readonly growth: number;
  /** Whether the best height lies between the lowest and the highest dot. */
  readonly bracketed: boolean;
}

/**
 * Fits d²(z) = a + bz + cz² to dot widths and reads waist, height and Rayleigh range off it: z₀ = −b/2c, d₀² = a − b²/4c,
 * z_R = d₀/√c. Widths are weighted for an error that does not grow with them (var d² ≈ 4d²σ²).
 * Source: ISO 11146-1, beam caustic by hyperbolic fit.
 * @param readings three or more at three or more heights @param growth limit of the depth of focus, 0.05 = 5 %
 * @throws place.too-few-points; place.no-waist when the dots do not widen on both sides; value.not-positive
 * @example three dots 0.2, 0.1, 0.2 mm wide at −1, 0, +1 mm: height 0, spot 0.1, Rayleigh range 0.577
 */
export function fitWaist(readings: readonly DotReading[], growth = 0.05): WaistFit {
  requirePositive('growth', growth);
  readings.forEach(({ heightMm, widthMm }) => [
    requireFinite('height', heightMm),
    requirePositive('dot width', widthMm),
  ]);
  if (new Set(readings.map(({ heightMm }) => heightMm)).size < 3)
    throw new CoreError('place.too-few-points', 'A waist needs dots at three different heights at least.');
  const middle = readings.reduce((sum, { heightMm }) => sum + heightMm, 0) / readings.length;
  const z = readings.map(({ heightMm }) => heightMm - middle);
  const square = readings.map(({ widthMm }) => widthMm ** 2);
  const weight = square.map((value) => 1 / value);
  const design = new Matrix(
    z.map((value, i) => [1, value, value * value].map((entry) => entry * Math.sqrt(weight[i]!))),
  );
  const target = Matrix.columnVector(square.map((value, i) => value * Math.sqrt(weight[i]!)));
  const information = design.transpose().mmul(design);
  const covariance = inverse(information);
  const [a, b, c] = covariance.mmul(design.transpose().mmul(target)).to1DArray() as [number, number, number];
  const floor = c > 0 ? a - (b * b) / (4 * c) : -1;
  if (floor <= 0)
    throw new CoreError(
      'place.no-waist',
      'The dots do not narrow and widen again: hunt farther to both sides of the narrowest.',
    );
  const spotMm = Math.sqrt(floor);
  const rayleighMm = spotMm / Math.sqrt(c);
  const offset = -b / (2 * c);
  const heights = readings.map(({ heightMm }) => heightMm);
  return {
    heightMm: middle + offset,
    heightReachMm: reach(),
    spotMm,
    rayleighMm,
    depthMm: rayleighMm * Math.sqrt((1 + growth) ** 2 - 1),
    growth,
    bracketed: middle + offset >= Math.min(...heights) && middle + offset <= Math.max(...heights),
  };

  /** Delta method on z₀ = −b/2c with the residual variance of the fit. */
  function reach(): number | null {
    const spare = readings.length - 3;
    if (spare < 1) return null;
    const residual =
      z.reduce((sum, value, i) => sum + weight[i]! * (square[i]! - a - b * value - c * value * value) ** 2, 0) / spare;
    const [db, dc] = [-1 / (2 * c), b / (2 * c * c)];
    const variance =
      residual * (db * db * covariance.get(1, 1) + 2 * db * dc * covariance.get(1, 2) + dc * dc * covariance.get(2, 2));
    return studentT90(spare) * Math.sqrt(Math.max(0, variance));
  }
}
