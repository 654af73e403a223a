import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { OUTCOMES, type Outcome } from '../coupon/outcomes.js';
import { speedExponent } from '../heat/speed-exponent.js';
import { CoreError } from '../support/core-error.js';
import { seededRandom, standardNormal } from '../support/random.js';
import { orderedLogit, sigmoid, type OrdinalFit, type OrdinalPriors, type OrdinalRow } from './ordered-logit.js';
import {
  PLACE_BASE,
  squaredPlaces,
  termSpreads,
  variedTerms,
  windowPlace,
  type WindowPoint,
  type WindowTerm,
} from './window-terms.js';

/** Version of the model; a recipe freezes it. Raise it whenever the same outcomes would give other numbers. */
export const WINDOW_MODEL_VERSION = 2;

/** A scrubbed cell. */
export interface WindowCell extends WindowPoint {
  readonly outcome: Outcome;
  /** Judged by eye, not read from a picture: more often misread. */
  readonly byEye?: boolean | undefined;
}

/** What the priors take from the bench: spot and metal. */
export interface WindowEquipment {
  readonly radiusMm: number;
  readonly conductivity: number;
  readonly diffusivity: number;
}

/**
 * A fitted process window. Slopes belong to ln P, ln v, ln h, ln N and each varied term, all less their centre, then to the squares
 * of those terms.
 */
export interface WindowFit {
  readonly modelVersion: number;
  readonly seed: number;
  /** Terms that the cells vary besides power, speed, interval and passes. */
  readonly terms: readonly WindowTerm[];
  /** Places of `centre` that enter squared too. */
  readonly squares: readonly number[];
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
/** Share of cells judged by eye that are read as something else. Common practice, no source. */
export const MISREAD_BY_EYE = 0.08;
/** Rounds of weighing what may be misread against the fit. */
const MISREAD_ROUNDS = 8;

/** Steepness of the boundary in ln dose when the spray is even to 6-20 %: logistic scale of that spread, 9 to 30. */
const STEEPNESS = { mean: 14, sd: 8 };
/** How far each slope may leave its ratio to the others, as a share of the steepness. */
const RATIO_FREEDOM = 0.25;
/** Bonding goes half by heat index, half by dose before the cells have spoken. */
const HEAT_SHARE = 0.5;

/**
 * Fits the process window to scrubbed cells: an ordered logit in ln power, ln speed, ln interval and ln passes and in whatever else
 * the cells vary, with weak priors whose ratios come from the heat index and the dose on this metal, and Laplace draws for the
 * uncertainty. Cells judged by eye count by how far the others bear them out.
 * @param cells one or more; any mixture of outcomes, separated ones too @param seed makes the draws repeatable
 * @throws fit.no-data without cells; value.not-positive, value.not-finite
 */
export function fitWindow(options: {
  cells: readonly WindowCell[];
  equipment: WindowEquipment;
  seed: number;
}): WindowFit {
  const { cells, equipment, seed } = options;
  if (cells.length === 0)
    throw new CoreError('fit.no-data', 'No scrubbed outcome yet: scrub the coupon and enter its cells.');
  const terms = variedTerms(cells);
  const squares = squaredPlaces(terms);
  const places = cells.map((cell) => windowPlace(cell, terms));
  const centre = places[0]!.map((_, k) => places.reduce((sum, z) => sum + z[k]!, 0) / places.length);
  const rows = cells.map((cell, i) => ({
    z: covariates(places[i]!, centre, squares),
    category: OUTCOMES.indexOf(cell.outcome),
  }));
  const fit = fitMisread(rows, cells, windowPriors(centre, terms, equipment));
  const theta = [...fit.cuts, ...fit.slopes];
  return {
    modelVersion: WINDOW_MODEL_VERSION,
    seed,
    terms,
    squares,
    centre,
    cuts: [fit.cuts[0]!, fit.cuts[1]!],
    slopes: fit.slopes,
    covariance: fit.covariance,
    draws: laplaceDraws(theta, fit.covariance, seed),
    drawCount: WINDOW_DRAWS,
    cells,
  };
}

/**
 * The fit when cells by eye may be misread: each counts by the chance that it was read right, worked out from the fit and fitted
 * again (Dempster, Laird & Rubin 1977). Without such cells it is the plain fit.
 */
function fitMisread(rows: readonly OrdinalRow[], cells: readonly WindowCell[], priors: OrdinalPriors): OrdinalFit {
  let fit = orderedLogit({ rows, categories: OUTCOMES.length, priors });
  if (!cells.some(({ byEye }) => byEye)) return fit;
  for (let round = 0; round < MISREAD_ROUNDS; round += 1) {
    const weighed = rows.map((row, i) => {
      if (!cells[i]!.byEye) return row;
      const eta = row.z.reduce((sum, value, k) => sum + value * fit.slopes[k]!, 0);
      const right = (1 - MISREAD_BY_EYE) * shares(eta, fit.cuts[0]!, fit.cuts[1]!)[row.category]!;
      return { ...row, weight: Math.max(1e-6, right / (right + MISREAD_BY_EYE / OUTCOMES.length)) };
    });
    fit = orderedLogit({ rows: weighed, categories: OUTCOMES.length, priors });
  }
  return fit;
}

/** What the slopes multiply: each part of a place less its centre, then the squares. */
function covariates(place: readonly number[], centre: readonly number[], squares: readonly number[]): number[] {
  const away = place.map((value, k) => value - centre[k]!);
  return [...away, ...squares.map((k) => away[k]! ** 2)];
}

/** A point's place in a fitted window. @throws value.not-positive, value.not-finite */
export function placeIn(fit: Pick<WindowFit, 'terms'>, point: WindowPoint): number[] {
  return windowPlace(point, fit.terms);
}

/** Chance that a point holds under the draw with this index (−1: the fitted values). */
export function holdProbability(fit: WindowFit, z: readonly number[], draw = -1): number {
  const { eta, low, high } = linear(fit, z, draw);
  return between(low - eta, high - eta);
}

/** Chances of too little, holds and too much at a point, at the fitted values. @throws value.not-positive, value.not-finite */
export function outcomeProbabilities(fit: WindowFit, point: WindowPoint): Record<Outcome, number> {
  const { eta, low, high } = linear(fit, placeIn(fit, point), -1);
  const [under, holds, over] = shares(eta, low, high);
  return { under, holds, over };
}

function shares(eta: number, low: number, high: number): [under: number, holds: number, over: number] {
  const under = sigmoid(low - eta);
  const over = sigmoid(eta - high);
  return [under, Math.max(0, 1 - under - over), over];
}

/** Numbers of one draw: two cuts and the slopes. */
export function drawStride({ slopes }: Pick<WindowFit, 'slopes'>): number {
  return 2 + slopes.length;
}

/** Linear predictor of a draw, without an object for it: this is the innermost loop of the search. */
export function etaOfDraw(fit: WindowFit, z: readonly number[], draw: number): number {
  const { draws, centre, squares, slopes } = fit;
  const at = draw * drawStride(fit) + 2;
  let eta = 0;
  for (let k = 0; k < centre.length; k += 1) eta += (draw < 0 ? slopes[k]! : draws[at + k]!) * (z[k]! - centre[k]!);
  for (let s = 0; s < squares.length; s += 1) {
    const away = z[squares[s]!]! - centre[squares[s]!]!;
    const k = centre.length + s;
    eta += (draw < 0 ? slopes[k]! : draws[at + k]!) * away * away;
  }
  return eta;
}

/** Linear predictor and cut points of a draw (−1: the fitted values). */
export function linear(fit: WindowFit, z: readonly number[], draw: number): { eta: number; low: number; high: number } {
  const eta = etaOfDraw(fit, z, draw);
  if (draw < 0) return { eta, low: fit.cuts[0], high: fit.cuts[1] };
  const at = draw * drawStride(fit);
  return { eta, low: fit.draws[at]!, high: fit.draws[at + 1]! };
}

/** σ(high) − σ(low) without losing digits; 0 for a draw whose cuts crossed. */
export function between(low: number, high: number): number {
  return high <= low ? 0 : sigmoid(high) * sigmoid(-low) * -Math.expm1(low - high);
}

function windowPriors(
  centre: readonly number[],
  terms: readonly WindowTerm[],
  equipment: WindowEquipment,
): OrdinalPriors {
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
  const spreads = termSpreads(terms);
  const size = PLACE_BASE + spreads.length;
  const covariance = Array.from({ length: size }, (_, i) =>
    Array.from({ length: size }, (_unused, j) => {
      if (i < PLACE_BASE && j < PLACE_BASE)
        return STEEPNESS.sd ** 2 * ratios[i]! * ratios[j]! + (i === j ? freedom : 0);
      return i === j ? spreads[i - PLACE_BASE]! ** 2 : 0;
    }),
  );
  return {
    slopes: { mean: [...ratios.map((ratio) => ratio * STEEPNESS.mean), ...spreads.map(() => 0)], covariance },
    signs: [1, -1, -1, 1, ...spreads.map(() => 0)],
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
  const draws = new Float64Array(WINDOW_DRAWS * theta.length);
  for (let d = 0; d < WINDOW_DRAWS; d += 1) {
    const normals = theta.map(() => standardNormal(random));
    theta.forEach((value, i) => {
      let sum = value;
      for (let k = 0; k <= i; k += 1) sum += root.get(i, k) * normals[k]!;
      draws[d * theta.length + i] = sum;
    });
  }
  return draws;
}
