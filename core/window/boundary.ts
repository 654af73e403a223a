import { sigmoid } from './ordered-logit.js';

/** Slopes of a boundary's line over ln speed: one before the first hinge, one after each. */
export const SEGMENTS = 4;
/** Outside these a slope is not believed: at 0 power alone decides, at 1 the dose. */
const SLOPES = { low: -0.15, high: 1.25, softness: 0.08 };

/**
 * Cells as one boundary sees them. Row i says whether the mark is beyond the boundary (bonded, or overdone); `x` holds its place but
 * for power, row by row: 1, ln speed less its middle, what lies beyond each hinge, then the other columns.
 */
export interface BoundaryCells {
  readonly columns: number;
  readonly lnPower: Float64Array;
  readonly x: Float64Array;
  readonly beyond: Uint8Array;
  /** How much each counts: repeats, age, drift. */
  readonly weight: Float64Array;
  /** Misread besides the share that is fitted, by another cause: cells judged by eye. */
  readonly misread: Float64Array;
}

export interface Normal {
  readonly mean: number;
  readonly sd: number;
}

/** Weak knowledge of a boundary; null leaves the likelihood alone, with nothing misread. */
export interface BoundaryPrior {
  readonly lnSteepness: Normal;
  /** One for each column: ln power at which it is the even bet, slopes, and so on. */
  readonly columns: readonly Normal[];
  /** logit of the share misread */
  readonly misread: Normal;
}

/**
 * One boundary of the window: the chance that a cell is read beyond it is ε + (1 − 2ε)·σ(η), η = k·(ln P − x·γ). Parameters stand as
 * (ln k, γ…, logit ε).
 */
export interface BoundaryTask {
  readonly cells: BoundaryCells;
  readonly prior: BoundaryPrior | null;
}

export interface BoundaryState {
  /** log of likelihood times prior, but for a constant */
  readonly value: number;
  readonly gradient: Float64Array;
  /** Expected information of the likelihood and the prior's own precision, row by row. */
  readonly information: Float64Array;
}

export const parametersOf = ({ cells }: BoundaryTask): number => cells.columns + 2;

/** The log posterior alone: what the draws are weighed by. */
export function logPosterior(theta: ArrayLike<number>, { cells, prior }: BoundaryTask): number {
  const { columns, lnPower, x, beyond, weight, misread } = cells;
  const k = Math.exp(theta[0]!);
  const own = prior ? sigmoid(theta[columns + 1]!) : 0;
  let sum = 0;
  for (let i = 0, at = 0; i < lnPower.length; i += 1) {
    let need = 0;
    for (let j = 0; j < columns; j += 1, at += 1) need += x[at]! * theta[j + 1]!;
    const eta = k * (lnPower[i]! - need);
    const share = own + misread[i]! - 2 * own * misread[i]!;
    const side = 1 / (1 + Math.exp(beyond[i] ? -eta : eta));
    sum += weight[i]! * Math.log(share + (1 - 2 * share) * side);
  }
  return sum + (prior ? logPrior(theta, prior) : 0);
}

function logPrior(theta: ArrayLike<number>, { lnSteepness, columns, misread }: BoundaryPrior): number {
  let sum = normal(theta[0]!, lnSteepness) + normal(theta[columns.length + 1]!, misread);
  for (let j = 0; j < columns.length; j += 1) sum += normal(theta[j + 1]!, columns[j]!);
  for (let s = 0, slope = 0; s < SEGMENTS && s + 1 < columns.length; s += 1) {
    slope += theta[s + 2]!;
    sum -= 0.5 * strayed(slope) ** 2;
  }
  return sum;
}

const normal = (value: number, { mean, sd }: Normal) => -0.5 * ((value - mean) / sd) ** 2;

/** How far a slope lies outside what is believed, in units of the softness. */
function strayed(slope: number): number {
  const { low, high, softness } = SLOPES;
  return slope < low ? (slope - low) / softness : slope > high ? (slope - high) / softness : 0;
}

/** The log posterior with its gradient and Fisher's expected information. */
export function boundaryState(theta: ArrayLike<number>, task: BoundaryTask): BoundaryState {
  const { cells, prior } = task;
  const { columns, lnPower, x, beyond, weight, misread } = cells;
  const size = parametersOf(task);
  const gradient = new Float64Array(size);
  const information = new Float64Array(size * size);
  const k = Math.exp(theta[0]!);
  const own = prior ? sigmoid(theta[columns + 1]!) : 0;
  const by = new Float64Array(size);
  let value = 0;
  for (let i = 0; i < lnPower.length; i += 1) {
    let need = 0;
    for (let j = 0; j < columns; j += 1) need += x[i * columns + j]! * theta[j + 1]!;
    const eta = k * (lnPower[i]! - need);
    const share = own + misread[i]! - 2 * own * misread[i]!;
    const s = sigmoid(eta);
    const p = Math.min(1 - 1e-12, Math.max(1e-12, share + (1 - 2 * share) * s));
    const rise = (1 - 2 * share) * s * (1 - s);
    by[0] = rise * eta;
    for (let j = 0; j < columns; j += 1) by[j + 1] = -rise * k * x[i * columns + j]!;
    by[columns + 1] = (1 - 2 * s) * (1 - 2 * misread[i]!) * own * (1 - own);
    value += weight[i]! * Math.log(beyond[i] ? p : 1 - p);
    const pull = (weight[i]! * (beyond[i]! - p)) / (p * (1 - p));
    const worth = weight[i]! / (p * (1 - p));
    for (let a = 0; a < size; a += 1) {
      gradient[a]! += pull * by[a]!;
      for (let b = 0; b <= a; b += 1) information[a * size + b]! += worth * by[a]! * by[b]!;
    }
  }
  if (prior) {
    value += logPrior(theta, prior);
    addPrior(theta, prior, gradient, information);
  }
  for (let a = 0; a < size; a += 1) for (let b = 0; b < a; b += 1) information[b * size + a] = information[a * size + b]!;
  return { value, gradient, information };
}

function addPrior(
  theta: ArrayLike<number>,
  { lnSteepness, columns, misread }: BoundaryPrior,
  gradient: Float64Array,
  information: Float64Array,
): void {
  const size = gradient.length;
  [lnSteepness, ...columns, misread].forEach(({ mean, sd }, a) => {
    gradient[a]! -= (theta[a]! - mean) / sd ** 2;
    information[a * size + a]! += 1 / sd ** 2;
  });
  for (let s = 0, slope = 0; s < SEGMENTS && s + 1 < columns.length; s += 1) {
    slope += theta[s + 2]!;
    const away = strayed(slope);
    if (away === 0) continue;
    for (let a = 2; a <= s + 2; a += 1) {
      gradient[a]! -= away / SLOPES.softness;
      for (let b = 2; b <= a; b += 1) information[a * size + b]! += 1 / SLOPES.softness ** 2;
    }
  }
}
