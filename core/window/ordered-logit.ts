import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { CoreError } from '../support/core-error.js';
import { requireFinite } from '../support/require.js';

/** One observation: covariates z and its category, 0 for the lowest. Weight counts repeats (default 1). */
export interface OrdinalRow {
  readonly z: readonly number[];
  readonly category: number;
  readonly weight?: number;
}

/** Weak knowledge that keeps a fit finite when the cells separate or a category was never seen. All parts are log-concave. */
export interface OrdinalPriors {
  readonly slopes: { readonly mean: readonly number[]; readonly covariance: readonly (readonly number[])[] };
  /** +1, −1 or 0 for each slope; `scale` is how far past 0 it may stray. */
  readonly signs: readonly number[];
  readonly signScale: number;
  readonly cuts: { readonly mean: number; readonly sd: number };
  /** Gamma prior of shape 2 on the distance of neighbouring cut points. */
  readonly gapScale: number;
}

/** Estimates of the model P(y ≤ j) = σ(c_j − β·z), with the covariance of (cuts, slopes) at the maximum. */
export interface OrdinalFit {
  readonly cuts: readonly number[];
  readonly slopes: readonly number[];
  readonly covariance: readonly (readonly number[])[];
  /** −2 × log likelihood, priors left out. */
  readonly deviance: number;
  readonly iterations: number;
}

const MAX_ITERATIONS = 200;
const TOLERANCE = 1e-10;

/**
 * Ordered (proportional-odds) logit by Newton's method with step halving: maximum likelihood, or the posterior mode and its
 * Laplace covariance with priors. The log likelihood is concave in cuts and slopes (Pratt 1981), so the mode is the only one.
 * Source: McCullagh 1980, "Regression models for ordinal data", J. R. Statist. Soc. B 42.
 *
 * @param categories number of categories, 2 or more; with 2 it is the ordinary logit with intercept −c₁
 * @throws fit.no-data without rows; fit.not-converged when separated data are fitted without priors
 */
export function orderedLogit(problem: {
  rows: readonly OrdinalRow[];
  categories: number;
  priors?: OrdinalPriors | undefined;
}): OrdinalFit {
  const task = checked(problem);
  let theta = start(task);
  let state = derivatives(theta, task);
  for (let iteration = 1; iteration <= MAX_ITERATIONS; iteration += 1) {
    const step = newtonStep(state);
    const next = halved(theta, step, state, task);
    const moved = Math.max(...next.theta.map((x, i) => Math.abs(x - theta[i]!) / (1 + Math.abs(x))));
    ({ theta, state } = next);
    if (moved < TOLERANCE) return finish(theta, state, task, iteration);
    if (!task.priors && Math.max(...theta.map(Math.abs)) > 1e6) break;
  }
  throw new CoreError('fit.not-converged', 'The outcomes are separated: without priors no finite fit exists.');
}

/** logistic function */
export function sigmoid(x: number): number {
  return x >= 0 ? 1 / (1 + Math.exp(-x)) : Math.exp(x) / (1 + Math.exp(x));
}

/** Log likelihood of parameters (cuts, then slopes); −Infinity for cuts out of order. For comparing with other minimisers. */
export function ordinalLogLikelihood(
  theta: readonly number[],
  rows: readonly OrdinalRow[],
  categories: number,
): number {
  const cuts = categories - 1;
  for (let j = 1; j < cuts; j += 1) if (theta[j]! <= theta[j - 1]!) return -Infinity;
  return rows.reduce((sum, row) => {
    const eta = dot(row.z, theta, cuts);
    return sum + (row.weight ?? 1) * rowTerms(row.category, eta, theta, cuts).logP;
  }, 0);
}

interface Task {
  readonly rows: readonly OrdinalRow[];
  readonly categories: number;
  readonly cuts: number;
  readonly slopes: number;
  readonly priors: OrdinalPriors | undefined;
  readonly slopePrecision: readonly (readonly number[])[] | undefined;
}

interface State {
  readonly value: number;
  readonly gradient: Float64Array;
  /** Minus the second derivatives. */
  readonly information: number[][];
}

function checked(problem: {
  rows: readonly OrdinalRow[];
  categories: number;
  priors?: OrdinalPriors | undefined;
}): Task {
  const { rows, categories, priors } = problem;
  const first = rows[0];
  if (!first) throw new CoreError('fit.no-data', 'There is no outcome to fit yet.');
  for (const row of rows) {
    if (row.z.length !== first.z.length)
      throw new CoreError('fit.no-data', 'Rows differ in their number of covariates.');
    row.z.forEach((value) => requireFinite('covariate', value));
    if (!Number.isInteger(row.category) || row.category < 0 || row.category >= categories) {
      throw new CoreError('value.out-of-range', `Category ${row.category} is none of ${categories}.`);
    }
  }
  const slopePrecision = priors && inverse(priors.slopes.covariance);
  return { rows, categories, cuts: categories - 1, slopes: first.z.length, priors, slopePrecision };
}

/** Cuts from the smoothed cumulative shares, slopes from the prior or 0. */
function start(task: Task): number[] {
  const counts = new Array<number>(task.categories).fill(0.5);
  for (const row of task.rows) counts[row.category]! += row.weight ?? 1;
  const total = counts.reduce((sum, n) => sum + n, 0);
  let below = 0;
  const cuts = counts.slice(0, -1).map((n) => {
    below += n;
    return Math.log(below / (total - below));
  });
  const slopes = task.priors ? [...task.priors.slopes.mean] : new Array<number>(task.slopes).fill(0);
  return [...cuts, ...slopes];
}

function dot(z: readonly number[], theta: readonly number[], from: number): number {
  let sum = 0;
  for (let k = 0; k < z.length; k += 1) sum += z[k]! * theta[from + k]!;
  return sum;
}

/**
 * ln P of a category between cuts a (above) and b (below), with its derivatives. P = σ(a)·σ(−b)·(1 − e^{−(a−b)}), which loses no
 * digits in the tails; r = 1/(e^{a−b} − 1).
 */
function rowTerms(category: number, eta: number, theta: readonly number[], cuts: number) {
  const above = category < cuts ? theta[category]! - eta : Infinity;
  const below = category > 0 ? theta[category - 1]! - eta : -Infinity;
  const r = above === Infinity || below === -Infinity ? 0 : 1 / Math.expm1(above - below);
  const sa = sigmoid(above);
  const sb = sigmoid(below);
  const logP =
    (above === Infinity ? 0 : -Math.log1p(Math.exp(-Math.abs(above))) + Math.min(0, above)) +
    (below === -Infinity ? 0 : -Math.log1p(Math.exp(-Math.abs(below))) + Math.min(0, -below)) +
    (r === 0 ? 0 : Math.log(-Math.expm1(below - above)));
  return { logP, byAbove: 1 - sa + r, byBelow: -sb - r, fa: sa * (1 - sa), fb: sb * (1 - sb), cross: r * (1 + r) };
}

function derivatives(theta: readonly number[], task: Task): State {
  const size = task.cuts + task.slopes;
  const gradient = new Float64Array(size);
  const information = Array.from({ length: size }, () => new Array<number>(size).fill(0));
  let value = 0;
  for (const row of task.rows) {
    const weight = row.weight ?? 1;
    const { category, z } = row;
    const t = rowTerms(category, dot(z, theta, task.cuts), theta, task.cuts);
    value += weight * t.logP;
    const hasAbove = category < task.cuts;
    const hasBelow = category > 0;
    const up = category;
    const down = category - 1;
    if (hasAbove) {
      gradient[up]! += weight * t.byAbove;
      information[up]![up]! += weight * (t.fa + t.cross);
    }
    if (hasBelow) {
      gradient[down]! += weight * t.byBelow;
      information[down]![down]! += weight * (t.fb + t.cross);
    }
    if (hasAbove && hasBelow) {
      information[up]![down]! -= weight * t.cross;
      information[down]![up]! -= weight * t.cross;
    }
    const byEta = -((hasAbove ? t.byAbove : 0) + (hasBelow ? t.byBelow : 0));
    for (let k = 0; k < task.slopes; k += 1) {
      const at = task.cuts + k;
      gradient[at]! += weight * byEta * z[k]!;
      if (hasAbove) addPair(information, up, at, -weight * t.fa * z[k]!);
      if (hasBelow) addPair(information, down, at, -weight * t.fb * z[k]!);
      for (let m = 0; m < task.slopes; m += 1) {
        information[at]![task.cuts + m]! += weight * (t.fa + t.fb) * z[k]! * z[m]!;
      }
    }
  }
  return addPriors({ value, gradient, information }, theta, task);
}

function addPair(matrix: number[][], i: number, j: number, amount: number): void {
  matrix[i]![j]! += amount;
  matrix[j]![i]! += amount;
}

function addPriors(state: State, theta: readonly number[], task: Task): State {
  const { priors, slopePrecision } = task;
  if (!priors || !slopePrecision) return state;
  const { gradient, information } = state;
  let { value } = state;
  const away = priors.slopes.mean.map((mean, k) => theta[task.cuts + k]! - mean);
  for (let k = 0; k < task.slopes; k += 1) {
    const pull = dot(slopePrecision[k]!, away, 0);
    const at = task.cuts + k;
    value -= 0.5 * away[k]! * pull;
    gradient[at]! -= pull;
    for (let m = 0; m < task.slopes; m += 1) information[at]![task.cuts + m]! += slopePrecision[k]![m]!;
    const sign = priors.signs[k]!;
    if (sign !== 0) {
      const x = (sign * theta[at]!) / priors.signScale;
      const s = sigmoid(x);
      value += x > -700 ? Math.log(s) : x;
      gradient[at]! += (sign * (1 - s)) / priors.signScale;
      information[at]![at]! += (s * (1 - s)) / priors.signScale ** 2;
    }
  }
  for (let j = 0; j < task.cuts; j += 1) {
    const precision = 1 / priors.cuts.sd ** 2;
    value -= 0.5 * precision * (theta[j]! - priors.cuts.mean) ** 2;
    gradient[j]! -= precision * (theta[j]! - priors.cuts.mean);
    information[j]![j]! += precision;
    if (j === 0) continue;
    const gap = theta[j]! - theta[j - 1]!;
    value += Math.log(gap) - gap / priors.gapScale;
    const push = 1 / gap - 1 / priors.gapScale;
    gradient[j]! += push;
    gradient[j - 1]! -= push;
    information[j]![j]! += 1 / gap ** 2;
    information[j - 1]![j - 1]! += 1 / gap ** 2;
    addPair(information, j, j - 1, -1 / gap ** 2);
  }
  return { value, gradient, information };
}

function newtonStep(state: State): number[] {
  const decomposition = new CholeskyDecomposition(symmetric(state.information));
  if (!decomposition.isPositiveDefinite()) {
    throw new CoreError(
      'fit.not-converged',
      'The outcomes do not determine the fit: a covariate does not vary, or they are separated.',
    );
  }
  return decomposition.solve(Matrix.columnVector(Array.from(state.gradient))).to1DArray();
}

/** The longest of step, step/2, step/4 … that keeps the cuts in order and does not lose likelihood; the old point when none does. */
function halved(
  theta: readonly number[],
  step: readonly number[],
  state: State,
  task: Task,
): { theta: number[]; state: State } {
  for (let scale = 1; scale > 1e-12; scale /= 2) {
    const next = theta.map((x, i) => x + scale * step[i]!);
    if (!next.slice(1, task.cuts).every((cut, j) => cut > next[j]!)) continue;
    const there = derivatives(next, task);
    if (there.value >= state.value - 1e-12 * Math.abs(state.value)) return { theta: next, state: there };
  }
  return { theta: [...theta], state };
}

function finish(theta: readonly number[], state: State, task: Task, iterations: number): OrdinalFit {
  return {
    cuts: theta.slice(0, task.cuts),
    slopes: theta.slice(task.cuts),
    covariance: inverse(state.information),
    deviance: -2 * ordinalLogLikelihood(theta, task.rows, task.categories),
    iterations,
  };
}

function inverse(matrix: readonly (readonly number[])[]): number[][] {
  const decomposition = new CholeskyDecomposition(symmetric(matrix));
  return symmetric(decomposition.solve(Matrix.eye(matrix.length)).to2DArray()).to2DArray();
}

/** The decomposition refuses a matrix whose halves differ in the last digit. */
function symmetric(matrix: readonly (readonly number[])[]): Matrix {
  return new Matrix(matrix.map((row, i) => row.map((value, j) => (value + matrix[j]![i]!) / 2)));
}
