import { between, linear, placeIn, type WindowFit } from './fit-window.js';
import type { WindowRest } from './window-terms.js';

/** P(holds) over power and speed, all else at one place; rows are powers, row by row. */
export interface WindowMap {
  readonly powersW: readonly number[];
  readonly speedsMmPerS: readonly number[];
  /** Mean chance of holding over the draws. */
  readonly holds: Float64Array;
  /** For each speed the power (W) at which too little, and too much, become the even bet. */
  readonly lowerW: readonly number[];
  readonly upperW: readonly number[];
}

/** Map of the window for drawing. @throws value.not-positive, value.not-finite where a varied term is not said */
export function windowMap(
  fit: WindowFit,
  over: {
    powersW: readonly number[];
    speedsMmPerS: readonly number[];
    rest: WindowRest;
  },
): WindowMap {
  const { powersW, speedsMmPerS, rest } = over;
  const holds = new Float64Array(powersW.length * speedsMmPerS.length);
  powersW.forEach((powerW, i) => {
    speedsMmPerS.forEach((speedMmPerS, j) => {
      const z = placeIn(fit, { ...rest, powerW, speedMmPerS });
      let sum = 0;
      for (let d = 0; d < fit.drawCount; d += 1) {
        const { eta, low, high } = linear(fit, z, d);
        sum += between(low - eta, high - eta);
      }
      holds[i * speedsMmPerS.length + j] = sum / fit.drawCount;
    });
  });
  const boundary = (cut: number) =>
    speedsMmPerS.map((speedMmPerS) => {
      const { eta } = linear(fit, placeIn(fit, { ...rest, powerW: 1, speedMmPerS }), -1);
      return Math.exp((cut - eta) / fit.slopes[0]!);
    });
  return { powersW, speedsMmPerS, holds, lowerW: boundary(fit.cuts[0]), upperW: boundary(fit.cuts[1]) };
}
