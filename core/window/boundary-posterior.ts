import { CoreError } from '../support/core-error.js';
import { standardNormal, type Random } from '../support/random.js';
import { boundaryState, logPosterior, parametersOf, type BoundaryState, type BoundaryTask } from './boundary.js';

/** Where a posterior is highest, and a normal shape about it. */
export interface Mode {
  readonly theta: Float64Array;
  /** Lower triangular root of the covariance, row by row. */
  readonly root: Float64Array;
  readonly value: number;
  readonly converged: boolean;
}

const MOST_STEPS = 80;
const STILL = 1e-7;

/**
 * Fisher scoring with Levenberg's damping from one start.
 * @throws fit.not-converged where the information is singular and no damping mends it
 */
export function climb(start: ArrayLike<number>, task: BoundaryTask): Mode {
  let theta = Float64Array.from(start);
  let state = boundaryState(theta, task);
  let damping = 1e-4;
  let converged = false;
  for (let i = 0; i < MOST_STEPS && !converged; i += 1) {
    const step = damped(state, damping);
    const next = theta.map((value, a) => value + step[a]!);
    const value = logPosterior(next, task);
    if (value >= state.value - 1e-12) {
      converged = Math.max(...step.map((one, a) => Math.abs(one) / (1 + Math.abs(theta[a]!)))) < STILL;
      theta = next;
      state = boundaryState(theta, task);
      damping = Math.max(1e-10, damping / 6);
    } else {
      damping *= 6;
      if (damping > 1e8) break;
    }
  }
  return { theta, root: rootOfInverse(state.information, theta.length), value: state.value, converged };
}

function damped({ gradient, information }: BoundaryState, damping: number): Float64Array {
  const size = gradient.length;
  const heavy = information.slice();
  for (let a = 0; a < size; a += 1) heavy[a * size + a]! += damping * (heavy[a * size + a]! + 1e-6);
  const lower = choleskyRoot(heavy, size);
  const step = gradient.slice();
  for (let a = 0; a < size; a += 1) {
    for (let b = 0; b < a; b += 1) step[a]! -= lower[a * size + b]! * step[b]!;
    step[a]! /= lower[a * size + a]!;
  }
  return backward(lower, step);
}

/** Solves Lᵀ x = y in place. */
function backward(lower: Float64Array, y: Float64Array): Float64Array {
  const size = y.length;
  for (let a = size - 1; a >= 0; a -= 1) {
    for (let b = a + 1; b < size; b += 1) y[a]! -= lower[b * size + a]! * y[b]!;
    y[a]! /= lower[a * size + a]!;
  }
  return y;
}

/** Written out rather than by ml-matrix: it runs in the innermost loop of every fit. @throws fit.not-converged */
function choleskyRoot(matrix: Float64Array, size: number): Float64Array {
  const lower = new Float64Array(size * size);
  for (let a = 0; a < size; a += 1) {
    for (let b = 0; b <= a; b += 1) {
      let sum = matrix[a * size + b]!;
      for (let c = 0; c < b; c += 1) sum -= lower[a * size + c]! * lower[b * size + c]!;
      if (a > b) lower[a * size + b] = sum / lower[b * size + b]!;
      else if (sum > 0) lower[a * size + a] = Math.sqrt(sum);
      else throw new CoreError('fit.not-converged', 'The outcomes do not tell the terms of this window apart.');
    }
  }
  return lower;
}

/** Root of the inverse of a precision: lower triangular L with L Lᵀ = A⁻¹. */
function rootOfInverse(precision: Float64Array, size: number): Float64Array {
  const guarded = precision.slice();
  for (let a = 0; a < size; a += 1) guarded[a * size + a]! += 1e-9;
  const lower = choleskyRoot(guarded, size);
  const inverse = new Float64Array(size * size);
  for (let c = 0; c < size; c += 1) {
    const unit = new Float64Array(size);
    unit[c] = 1;
    for (let a = 0; a < size; a += 1) {
      for (let b = 0; b < a; b += 1) unit[a]! -= lower[a * size + b]! * unit[b]!;
      unit[a]! /= lower[a * size + a]!;
    }
    backward(lower, unit);
    for (let a = 0; a < size; a += 1) inverse[a * size + c] = unit[a]!;
  }
  return choleskyRoot(inverse, size);
}

/** Draws of a posterior, one after another. */
export interface Draws {
  readonly values: Float64Array;
  readonly size: number;
  readonly count: number;
  /** Kish's effective number of the weighted draws these were taken from. */
  readonly effective: number;
}

interface Part {
  readonly centre: Float64Array;
  readonly root: Float64Array;
  readonly share: number;
}

const FREEDOM = 6;
/** The first proposals are wider than the mode says: heavier tails cost little, lighter ones much. */
const WIDER = 1.25;

/**
 * Draws of one boundary's posterior: Fisher scoring from some starts, a heavy-tailed mixture about what they find, two rounds of
 * importance sampling of which the second is shaped by the first, weights capped, and as many equal draws as are asked for taken from
 * them (Student mixtures: Cappé et al. 2008, Adaptive importance sampling in general mixture classes; caps: Ionides 2008).
 * @param tries proposals a round @throws fit.not-converged
 */
export function posteriorDraws(
  task: BoundaryTask,
  starts: readonly ArrayLike<number>[],
  wanted: { readonly count: number; readonly tries: number; readonly random: Random },
): Draws {
  const modes = apart(starts.map((start) => climb(start, task)));
  const first = weighed(task, mixtureOf(modes), wanted.tries, wanted.random);
  const shaped: Part[] = [
    ...mixtureOf(modes).map((part) => ({ ...part, share: part.share * 0.3 })),
    momentsOf(first, 0.7),
  ];
  const second = weighed(task, shaped, wanted.tries, wanted.random);
  return resampled(second, wanted.count, wanted.random);
}

/**
 * Draws of the normal shape about the highest mode, for cells so many that the posterior is all but normal.
 * @throws fit.not-converged
 */
export function normalDraws(
  task: BoundaryTask,
  starts: readonly ArrayLike<number>[],
  wanted: { readonly count: number; readonly random: Random },
): Draws {
  const [mode] = apart(starts.map((start) => climb(start, task)));
  const { theta, root } = mode!;
  const size = theta.length;
  const values = new Float64Array(wanted.count * size);
  for (let d = 0; d < wanted.count; d += 1) {
    const normals = Float64Array.from({ length: size }, () => standardNormal(wanted.random));
    theta.forEach((centre, a) => {
      let sum = centre;
      for (let b = 0; b <= a; b += 1) sum += root[a * size + b]! * normals[b]!;
      values[d * size + a] = sum;
    });
  }
  return { values, size, count: wanted.count, effective: wanted.count };
}

/** Modes that differ, the highest first; those far below it are left out. */
function apart(modes: readonly Mode[]): Mode[] {
  const sorted = [...modes].sort((a, b) => b.value - a.value);
  return sorted.filter(
    (mode, i) =>
      mode.value > sorted[0]!.value - 8 &&
      !sorted.slice(0, i).some((other) => other.theta.every((value, a) => Math.abs(value - mode.theta[a]!) < 0.02)),
  );
}

function mixtureOf(modes: readonly Mode[]): Part[] {
  const best = modes[0]!.value;
  const heights = modes.map(({ value }) => Math.max(0.1, Math.exp(value - best)));
  const total = heights.reduce((sum, one) => sum + one, 0);
  return modes.map(({ theta, root }, m) => ({
    centre: theta,
    root: root.map((value) => value * WIDER),
    share: heights[m]! / total,
  }));
}

interface Weighed {
  readonly values: Float64Array;
  readonly weights: Float64Array;
  readonly size: number;
}

function weighed(task: BoundaryTask, parts: readonly Part[], tries: number, random: Random): Weighed {
  const size = parametersOf(task);
  const values = new Float64Array(tries * size);
  const logs = new Float64Array(tries);
  const ends = parts.map((_, m) => parts.slice(0, m + 1).reduce((sum, { share }) => sum + share, 0));
  const normals = new Float64Array(size);
  for (let t = 0; t < tries; t += 1) {
    const u = random() * ends.at(-1)!;
    const { centre, root } = parts[ends.findIndex((end) => u < end)] ?? parts[0]!;
    for (let a = 0; a < size; a += 1) normals[a] = standardNormal(random);
    const stretch = Math.sqrt(FREEDOM / chiSquared(random));
    const at = values.subarray(t * size, (t + 1) * size);
    for (let a = 0; a < size; a += 1) {
      let sum = 0;
      for (let b = 0; b <= a; b += 1) sum += root[a * size + b]! * normals[b]!;
      at[a] = centre[a]! + stretch * sum;
    }
    logs[t] = logPosterior(at, task) - logDensity(at, parts);
  }
  return { values, weights: capped(logs), size };
}

/** χ² with FREEDOM (even) degrees of freedom, as a sum of exponentials. */
function chiSquared(random: Random): number {
  let product = 1;
  for (let i = 0; i < FREEDOM / 2; i += 1) product *= 1 - random();
  return -2 * Math.log(product);
}

/** log of the mixture's density but for a constant that all parts share. */
function logDensity(at: Float64Array, parts: readonly Part[]): number {
  const size = at.length;
  let sum = 0;
  for (const { centre, root, share } of parts) {
    let [square, log] = [0, 0];
    const solved = new Float64Array(size);
    for (let a = 0; a < size; a += 1) {
      let left = at[a]! - centre[a]!;
      for (let b = 0; b < a; b += 1) left -= root[a * size + b]! * solved[b]!;
      solved[a] = left / root[a * size + a]!;
      square += solved[a]! ** 2;
      log += Math.log(root[a * size + a]!);
    }
    sum += share * Math.exp(-log - 0.5 * (FREEDOM + size) * Math.log1p(square / FREEDOM));
  }
  return Math.log(sum + 1e-300);
}

/** Weights from their logs, none above the root of their number times the mean; they add up to 1. */
function capped(logs: Float64Array): Float64Array {
  const highest = logs.reduce((most, one) => Math.max(most, one), -Infinity);
  const weights = logs.map((one) => Math.exp(one - highest));
  const mean = weights.reduce((sum, one) => sum + one, 0) / weights.length;
  const cap = mean * Math.sqrt(weights.length);
  const held = weights.map((one) => Math.min(cap, one));
  const total = held.reduce((sum, one) => sum + one, 0);
  return held.map((one) => one / total);
}

/** One part with the mean and the spread of weighed draws. */
function momentsOf({ values, weights, size }: Weighed, share: number): Part {
  const centre = new Float64Array(size);
  weights.forEach((weight, t) => {
    for (let a = 0; a < size; a += 1) centre[a]! += weight * values[t * size + a]!;
  });
  const spread = new Float64Array(size * size);
  weights.forEach((weight, t) => {
    if (weight === 0) return;
    for (let a = 0; a < size; a += 1)
      for (let b = 0; b <= a; b += 1)
        spread[a * size + b]! += weight * (values[t * size + a]! - centre[a]!) * (values[t * size + b]! - centre[b]!);
  });
  // Few draws may lie in a plane: a little of the parts' own size keeps the root.
  for (let a = 0; a < size; a += 1) spread[a * size + a] = spread[a * size + a]! * 1.1 + 1e-6;
  return { centre, root: choleskyRoot(spread, size), share };
}

/** Equal draws, in an order of chance. */
function resampled({ values, weights, size }: Weighed, count: number, random: Random): Draws {
  const picked = systematic(weights, count, random);
  for (let i = count - 1; i > 0; i -= 1) {
    const j = Math.floor(random() * (i + 1));
    [picked[i], picked[j]] = [picked[j]!, picked[i]!];
  }
  const effective = 1 / weights.reduce((sum, one) => sum + one * one, 0);
  return drawsAt({ values, size, count: weights.length, effective }, picked);
}

/** Which of some weighed things are taken, each as often as its weight says: systematic resampling (weights that add up to 1). */
export function systematic(weights: ArrayLike<number>, count: number, random: Random): number[] {
  const picked: number[] = [];
  const from = random();
  for (let t = 0, reached = 0; t < weights.length; t += 1) {
    reached += weights[t]! * count;
    while (picked.length < count && picked.length + from < reached) picked.push(t);
  }
  while (picked.length < count) picked.push(picked.at(-1) ?? 0);
  return picked;
}

/** Some of the draws, by their places. */
export function drawsAt({ values, size, effective }: Draws, places: readonly number[]): Draws {
  const out = new Float64Array(places.length * size);
  places.forEach((t, d) => out.set(values.subarray(t * size, (t + 1) * size), d * size));
  return { values: out, size, count: places.length, effective };
}
