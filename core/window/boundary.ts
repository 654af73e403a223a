import type { Known } from '../statistics/partial-pooling.js';
import { sigmoid } from './ordered-logit.js';

/** Slopes of a boundary's line over ln speed: one before the first hinge, one after each. */
export const SEGMENTS = 4;
/** Outside these a slope is not believed: at 0 power alone decides, at 1 the dose. */
const SLOPES = { low: -0.15, high: 1.25, softness: 0.08 };

/**
 * Cells as one boundary sees them. `x` holds a cell's place but for power, row by row: 1, ln speed less its middle, what lies beyond
 * each hinge, then the other columns.
 */
export interface BoundaryCells {
  readonly columns: number;
  readonly lnPower: Float64Array;
  readonly x: Float64Array;
  /**
   * Between which steps a cell lies: beyond step `from` and not beyond step `to`, counted from −1 (no step) up. The boundary itself is
   * step `steps.below`: a cell that is only known to be beyond it lies from there to no step.
   */
  readonly from: Int8Array;
  readonly to: Int8Array;
  /** How much each counts: repeats, age, drift. */
  readonly weight: Float64Array;
  /** Misread besides the share that is fitted, by another cause: cells judged by eye. */
  readonly misread: Float64Array;
  /** How much of the fitted share misread is each cell's: 1, less where somebody looked again. */
  readonly doubt: Float64Array;
  /** Steps of a number that was read, below the boundary and above it; their distance is fitted. None where nothing but sides is known. */
  readonly steps: { readonly below: number; readonly above: number };
}

/** No step: a cell is beyond nothing, or not beyond anything. */
export const NO_STEP = -1;

/** Weak knowledge of a boundary; null leaves the likelihood alone, with nothing misread. */
export interface BoundaryPrior {
  readonly lnSteepness: Known;
  /** One for each column: ln power at which it is the even bet, slopes, and so on. */
  readonly columns: readonly Known[];
  /** logit of twice the share misread: it is never more than half */
  readonly misread: Known;
  /** ln of the distance of neighbouring steps, in logits */
  readonly lnStep: Known;
  /** What other windows taught of sums of the columns, beside what is known of each. */
  readonly taught?: readonly Taught[];
}

/** That a sum of the columns, each times its part of `row`, lies about `mean`, with a precision (one over a variance). */
export interface Taught {
  readonly row: readonly number[];
  readonly mean: number;
  readonly precision: number;
}

/**
 * One boundary of the window: the chance that a cell is read beyond it is ε + (1 − 2ε)·σ(η), η = k·(ln P − x·γ). Where a number was
 * read, its steps lie on the same η at distances of their own, so that no gauge of the number is assumed but that it rises.
 * Parameters stand as (ln k, γ…, logit 2ε, ln distances: below, from the boundary down; above, from it up).
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

export const parametersOf = ({ cells: { columns, steps } }: BoundaryTask): number =>
  columns + 2 + steps.below + steps.above;

/** η at which each step is the even bet: 0 at the boundary itself. */
function stepsOf(theta: ArrayLike<number>, { columns, steps: { below, above } }: BoundaryCells): Float64Array {
  const at = new Float64Array(below + 1 + above);
  const first = columns + 2;
  for (let s = 0; s < below; s += 1) at[below - 1 - s] = at[below - s]! - Math.exp(theta[first + s]!);
  for (let s = 0; s < above; s += 1) at[below + 1 + s] = at[below + s]! + Math.exp(theta[first + below + s]!);
  return at;
}

/** Share of the misread that falls to a cell as it was read: sides have half of all, parts of them less. */
const misreadTo = ({ steps: { below, above } }: BoundaryCells, from: number, to: number): number =>
  from === NO_STEP && to === below ? 1 : from === below && to === NO_STEP ? 1 : 2 / (below + above + 2);

/** The log posterior alone: what the draws are weighed by. */
export function logPosterior(theta: ArrayLike<number>, { cells, prior }: BoundaryTask): number {
  const { columns, lnPower, x, from, to, weight, misread, doubt } = cells;
  const { below } = cells.steps;
  const k = Math.exp(theta[0]!);
  const own = prior ? sigmoid(theta[columns + 1]!) / 2 : 0;
  const steps = stepsOf(theta, cells);
  const inParts = 2 / (steps.length + 1);
  let sum = 0;
  let product = 1;
  for (let i = 0, at = 0; i < lnPower.length; i += 1) {
    let need = 0;
    for (let j = 1; j <= columns; j += 1, at += 1) need += x[at]! * theta[j]!;
    const eta = k * (lnPower[i]! - need);
    const mine = own * doubt[i]!;
    const share = mine + misread[i]! - 2 * mine * misread[i]!;
    const a = from[i]!;
    const b = to[i]!;
    let inside;
    let misreads = inParts;
    if (b === NO_STEP) {
      inside = 1 / (1 + Math.exp(steps[a]! - eta));
      if (a === below) misreads = 1;
    } else {
      inside = 1 / (1 + Math.exp(eta - steps[b]!));
      if (a !== NO_STEP) inside = Math.max(1e-12, inside - 1 / (1 + Math.exp(eta - steps[a]!)));
      else if (b === below) misreads = 1;
    }
    const chance = Math.max(1e-100, share * misreads + (1 - 2 * share) * inside);
    if (weight[i] !== 1) sum += weight[i]! * Math.log(chance);
    // One logarithm for many chances, before their product grows too small to hold.
    else if ((product *= chance) < 1e-200) {
      sum += Math.log(product);
      product = 1;
    }
  }
  return sum + Math.log(product) + (prior ? logPrior(theta, prior) : 0);
}

function logPrior(theta: ArrayLike<number>, prior: BoundaryPrior): number {
  const { lnSteepness, columns, misread, lnStep, taught = [] } = prior;
  let sum = normal(theta[0]!, lnSteepness) + normal(theta[columns.length + 1]!, misread);
  for (let j = 0; j < columns.length; j += 1) sum += normal(theta[j + 1]!, columns[j]!);
  for (let s = columns.length + 2; s < theta.length; s += 1) sum += normal(theta[s]!, lnStep);
  for (let s = 0, slope = 0; s < SEGMENTS && s + 1 < columns.length; s += 1) {
    slope += theta[s + 2]!;
    sum -= 0.5 * strayed(slope) ** 2;
  }
  for (const { row, mean, precision } of taught) sum -= 0.5 * precision * (sumBy(row, theta) - mean) ** 2;
  return sum;
}

/** A sum of the columns, each times its part. */
function sumBy(row: readonly number[], theta: ArrayLike<number>): number {
  let sum = 0;
  for (let j = 0; j < row.length; j += 1) sum += row[j]! * theta[j + 1]!;
  return sum;
}

const normal = (value: number, { mean, sd }: Known) => -0.5 * ((value - mean) / sd) ** 2;

/** How far a slope lies outside what is believed, in units of the softness. */
function strayed(slope: number): number {
  const { low, high, softness } = SLOPES;
  return slope < low ? (slope - low) / softness : slope > high ? (slope - high) / softness : 0;
}

/** The log posterior with its gradient and Fisher's expected information. */
export function boundaryState(theta: ArrayLike<number>, task: BoundaryTask): BoundaryState {
  const { cells, prior } = task;
  const size = parametersOf(task);
  const gradient = new Float64Array(size);
  const information = new Float64Array(size * size);
  const steps = stepsOf(theta, cells);
  const by = new Float64Array(size);
  let value = 0;
  for (let i = 0; i < cells.lnPower.length; i += 1) {
    const chance = chanceOf(theta, task, { steps, i, by });
    const weight = cells.weight[i]!;
    value += weight * Math.log(chance);
    const twoSided = cells.from[i] === NO_STEP || cells.to[i] === NO_STEP;
    // Expected information of a side; of what lies between two steps, the square of its own score.
    const worth = weight / (twoSided ? Math.max(1e-9, chance * (1 - chance)) : chance * chance);
    for (let a = 0; a < size; a += 1) {
      gradient[a]! += (weight * by[a]!) / chance;
      for (let b = 0; b <= a; b += 1) information[a * size + b]! += worth * by[a]! * by[b]!;
    }
  }
  if (prior) {
    value += logPrior(theta, prior);
    addPrior(theta, prior, gradient, information);
  }
  for (let a = 0; a < size; a += 1)
    for (let b = 0; b < a; b += 1) information[b * size + a] = information[a * size + b]!;
  return { value, gradient, information };
}

/** The chance of what a cell was read as; `by` takes how it changes with each parameter. */
function chanceOf(
  theta: ArrayLike<number>,
  { cells, prior }: BoundaryTask,
  { steps, i, by }: { readonly steps: Float64Array; readonly i: number; readonly by: Float64Array },
): number {
  const { columns, lnPower, x, misread, doubt } = cells;
  const from = cells.from[i]!;
  const to = cells.to[i]!;
  const k = Math.exp(theta[0]!);
  const own = prior ? sigmoid(theta[columns + 1]!) / 2 : 0;
  let need = 0;
  for (let j = 0; j < columns; j += 1) need += x[i * columns + j]! * theta[j + 1]!;
  const eta = k * (lnPower[i]! - need);
  const mine = own * doubt[i]!;
  const share = mine + misread[i]! - 2 * mine * misread[i]!;
  const more = from === NO_STEP ? 1 : sigmoid(eta - steps[from]!);
  const less = to === NO_STEP ? 0 : sigmoid(eta - steps[to]!);
  const straight = 1 - 2 * share;
  const rise = straight * (more * (1 - more) - less * (1 - less));
  by[0] = rise * eta;
  for (let j = 0; j < columns; j += 1) by[j + 1] = -rise * k * x[i * columns + j]!;
  const misreads = misreadTo(cells, from, to);
  by[columns + 1] = (misreads - 2 * (more - less)) * (1 - 2 * misread[i]!) * mine * (1 - 2 * own);
  by.fill(0, columns + 2);
  if (from !== NO_STEP) stepSlopes(theta, cells, from, -straight * more * (1 - more), by);
  if (to !== NO_STEP) stepSlopes(theta, cells, to, straight * less * (1 - less), by);
  return Math.min(1 - 1e-12, Math.max(1e-12, share * misreads + straight * (more - less)));
}

/** Adds what a change of a step does, by the distances that it is the sum of. */
function stepSlopes(
  theta: ArrayLike<number>,
  { columns, steps }: BoundaryCells,
  step: number,
  of: number,
  by: Float64Array,
) {
  const first = columns + 2;
  for (let s = 0; s < steps.below - step; s += 1) by[first + s]! -= of * Math.exp(theta[first + s]!);
  for (let s = 0; s < step - steps.below; s += 1)
    by[first + steps.below + s]! += of * Math.exp(theta[first + steps.below + s]!);
}

function addPrior(
  theta: ArrayLike<number>,
  { lnSteepness, columns, misread, lnStep, taught = [] }: BoundaryPrior,
  gradient: Float64Array,
  information: Float64Array,
): void {
  const size = gradient.length;
  const known = [lnSteepness, ...columns, misread];
  for (let a = 0; a < size; a += 1) {
    const { mean, sd } = known[a] ?? lnStep;
    gradient[a]! -= (theta[a]! - mean) / sd ** 2;
    information[a * size + a]! += 1 / sd ** 2;
  }
  for (let s = 0, slope = 0; s < SEGMENTS && s + 1 < columns.length; s += 1) {
    slope += theta[s + 2]!;
    const away = strayed(slope);
    if (away === 0) continue;
    for (let a = 2; a <= s + 2; a += 1) {
      gradient[a]! -= away / SLOPES.softness;
      for (let b = 2; b <= a; b += 1) information[a * size + b]! += 1 / SLOPES.softness ** 2;
    }
  }
  for (const { row, mean, precision } of taught) {
    const away = sumBy(row, theta) - mean;
    for (let a = 0; a < row.length; a += 1) {
      gradient[a + 1]! -= precision * away * row[a]!;
      for (let b = 0; b <= a; b += 1) information[(a + 1) * size + b + 1]! += precision * row[a]! * row[b]!;
    }
  }
}
