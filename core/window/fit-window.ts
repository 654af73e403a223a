import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { OUTCOMES, type Outcome } from '../coupon/outcomes.js';
import { speedExponent } from '../heat/speed-exponent.js';
import { CoreError } from '../support/core-error.js';
import { seededRandom, standardNormal } from '../support/random.js';
import { requirePositive } from '../support/require.js';
import { orderedLogit, sigmoid, type OrdinalPriors } from './ordered-logit.js';

/** Version of the model; a recipe freezes it. Raise it whenever the same outcomes would give other numbers. */
export const WINDOW_MODEL_VERSION = 1;

/** A point of the window, in core units. Power is what reaches the part. */
export interface WindowPoint {
  readonly powerW: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  readonly passes: number;
}

/** A scrubbed cell. */
export interface WindowCell extends WindowPoint {
  readonly outcome: Outcome;
}

/** What the priors take from the bench: spot and metal. */
export interface WindowEquipment {
  readonly radiusMm: number;
  readonly conductivity: number;
  readonly diffusivity: number;
}

/** A fitted process window. Slopes belong to ln P, ln v, ln h, ln N, each less its centre. */
export interface WindowFit {
  readonly modelVersion: number;
  readonly seed: number;
  readonly centre: readonly number[];
  readonly cuts: readonly [number, number];
  readonly slopes: readonly number[];
  readonly covariance: readonly (readonly number[])[];
  /** Laplace draws of (c₁, c₂, β…), one after another. */
  readonly draws: Float64Array;
  readonly drawCount: number;
  readonly cells: readonly WindowCell[];
}

export const WINDOW_DRAWS = 200;
const PARAMETERS = 6;

/** Steepness of the boundary in ln dose when the spray is even to 6-20 %: logistic scale of that spread, 9 to 30. */
const STEEPNESS = { mean: 14, sd: 8 };
/** How far each slope may leave its ratio to the others, as a share of the steepness. */
const RATIO_FREEDOM = 0.25;
/** Bonding goes half by heat index, half by dose before the cells have spoken. */
const HEAT_SHARE = 0.5;

/**
 * Fits the process window to scrubbed cells: an ordered logit in ln power, ln speed, ln interval and ln passes, with weak priors
 * whose ratios come from the heat index and the dose on this metal, and Laplace draws for the uncertainty.
 * @param cells one or more; any mixture of outcomes, separated ones too @param seed makes the draws repeatable
 * @throws fit.no-data without cells; value.not-positive
 */
export function fitWindow(options: {
  cells: readonly WindowCell[];
  equipment: WindowEquipment;
  seed: number;
}): WindowFit {
  const { cells, equipment, seed } = options;
  if (cells.length === 0)
    throw new CoreError('fit.no-data', 'No scrubbed outcome yet: scrub the coupon and enter its cells.');
  const points = cells.map((cell) => logPoint(cell));
  const centre = points[0]!.map((_, k) => points.reduce((sum, z) => sum + z[k]!, 0) / points.length);
  const fit = orderedLogit({
    rows: cells.map((cell, i) => ({
      z: points[i]!.map((value, k) => value - centre[k]!),
      category: OUTCOMES.indexOf(cell.outcome),
    })),
    categories: 3,
    priors: windowPriors(centre, equipment),
  });
  const theta = [...fit.cuts, ...fit.slopes];
  return {
    modelVersion: WINDOW_MODEL_VERSION,
    seed,
    centre,
    cuts: [fit.cuts[0]!, fit.cuts[1]!],
    slopes: fit.slopes,
    covariance: fit.covariance,
    draws: laplaceDraws(theta, fit.covariance, seed),
    drawCount: WINDOW_DRAWS,
    cells,
  };
}

/** ln P, ln v, ln h, ln N of a point. @throws value.not-positive */
export function logPoint(point: WindowPoint): number[] {
  return [
    Math.log(requirePositive('power', point.powerW)),
    Math.log(requirePositive('speed', point.speedMmPerS)),
    Math.log(requirePositive('interval', point.intervalMm)),
    Math.log(requirePositive('passes', point.passes)),
  ];
}

/** Chance that a point holds under the draw with this index (−1: the fitted values). */
export function holdProbability(fit: WindowFit, z: readonly number[], draw = -1): number {
  const { eta, low, high } = linear(fit, z, draw);
  return between(low - eta, high - eta);
}

/** Chances of too little, holds and too much at a point, at the fitted values. */
export function outcomeProbabilities(fit: WindowFit, point: WindowPoint): Record<Outcome, number> {
  const { eta, low, high } = linear(fit, logPoint(point), -1);
  const under = sigmoid(low - eta);
  const over = sigmoid(eta - high);
  return { under, holds: Math.max(0, 1 - under - over), over };
}

/** Linear predictor and cut points of a draw. */
export function linear(fit: WindowFit, z: readonly number[], draw: number): { eta: number; low: number; high: number } {
  const { draws, centre } = fit;
  const at = draw * PARAMETERS;
  let eta = 0;
  for (let k = 0; k < centre.length; k += 1) {
    eta += (draw < 0 ? fit.slopes[k]! : draws[at + 2 + k]!) * (z[k]! - centre[k]!);
  }
  return draw < 0 ? { eta, low: fit.cuts[0], high: fit.cuts[1] } : { eta, low: draws[at]!, high: draws[at + 1]! };
}

/** σ(high) − σ(low) without losing digits; 0 for a draw whose cuts crossed. */
export function between(low: number, high: number): number {
  return high <= low ? 0 : sigmoid(high) * sigmoid(-low) * -Math.expm1(low - high);
}

function windowPriors(centre: readonly number[], equipment: WindowEquipment): OrdinalPriors {
  const q = speedExponent({
    powerW: 1,
    speedMmPerS: Math.exp(centre[1]!),
    radiusMm: equipment.radiusMm,
    conductivity: equipment.conductivity,
    diffusivity: equipment.diffusivity,
  });
  const doseShare = 1 - HEAT_SHARE;
  const ratios = [1, -(HEAT_SHARE * q + doseShare), -doseShare, doseShare];
  const freedom = (RATIO_FREEDOM * STEEPNESS.mean) ** 2;
  return {
    slopes: {
      mean: ratios.map((ratio) => ratio * STEEPNESS.mean),
      covariance: ratios.map((a, i) => ratios.map((b, j) => STEEPNESS.sd ** 2 * a * b + (i === j ? freedom : 0))),
    },
    signs: [1, -1, -1, 1],
    signScale: 0.5,
    cuts: { mean: 0, sd: 2 * STEEPNESS.mean },
    gapScale: STEEPNESS.mean / 2,
  };
}

function laplaceDraws(
  theta: readonly number[],
  covariance: readonly (readonly number[])[],
  seed: number,
): Float64Array {
  const root = new CholeskyDecomposition(new Matrix(covariance.map((row) => [...row]))).lowerTriangularMatrix;
  const random = seededRandom(seed);
  const draws = new Float64Array(WINDOW_DRAWS * PARAMETERS);
  for (let d = 0; d < WINDOW_DRAWS; d += 1) {
    const normals = theta.map(() => standardNormal(random));
    theta.forEach((value, i) => {
      let sum = value;
      for (let k = 0; k <= i; k += 1) sum += root.get(i, k) * normals[k]!;
      draws[d * PARAMETERS + i] = sum;
    });
  }
  return draws;
}
