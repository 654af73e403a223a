import { CoreError } from '../support/core-error.js';
import { requireFinite } from '../support/require.js';
import { mean, sampleVariance } from './moments.js';

/** How a smooth surface is believed to run: how far along each input it stays alike, and what share of its variance is noise. */
export interface Smoothness {
  /** One for each input, in its own unit, above 0. */
  readonly lengths: readonly number[];
  /** Noise as a share of all variance, above 0, below 1. */
  readonly noise: number;
}

/** A smooth surface through noisy values, by a Gaussian process with squared exponential covariance. */
export interface SmoothSurface {
  readonly smoothness: Smoothness;
  /** log marginal likelihood of the values, standardised */
  readonly logEvidence: number;
  /** Mean at a place; much less work than with its spread. */
  mean(place: readonly number[]): number;
  /** Mean at a place, its standard deviation there, and that of one more value read there. */
  at(place: readonly number[]): { readonly mean: number; readonly sd: number; readonly sdOfReading: number };
}

/**
 * Fits a smooth surface of a given smoothness. Its scale follows from the values themselves.
 * @param places one row of inputs a value; three or more
 * @throws fit.no-data for fewer than three; value.not-finite
 * Source: Rasmussen & Williams, Gaussian Processes for Machine Learning, 2006, algorithm 2.1.
 */
export function smoothSurface(
  places: readonly (readonly number[])[],
  values: readonly number[],
  smoothness: Smoothness,
): SmoothSurface {
  if (values.length < 3) throw new CoreError('fit.no-data', 'Three readings or more make a surface.');
  values.forEach((value) => requireFinite('value', value));
  places.forEach((place) => place.forEach((one) => requireFinite('place', one)));
  const middle = mean(values);
  const scale = Math.sqrt(sampleVariance(values)) || 1;
  const y = values.map((value) => (value - middle) / scale);
  const n = values.length;
  const alike = (a: readonly number[], b: readonly number[]) =>
    (1 - smoothness.noise) * Math.exp(-0.5 * apart(a, b, smoothness.lengths));
  const lower = new Float64Array(n * n);
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1)
      lower[i * n + j] = alike(places[i]!, places[j]!) + (i === j ? smoothness.noise + JITTER : 0);
  rootInPlace(lower, n);
  const weights = backward(lower, forward(lower, y, n), n);
  let logEvidence = -0.5 * n * Math.log(2 * Math.PI);
  for (let i = 0; i < n; i += 1) logEvidence -= 0.5 * y[i]! * weights[i]! + Math.log(lower[i * n + i]!);
  const meanBy = (near: Float64Array) => middle + scale * near.reduce((sum, one, i) => sum + one * weights[i]!, 0);
  const nearTo = (place: readonly number[]) => Float64Array.from(places, (one) => alike(one, place));
  return {
    smoothness,
    logEvidence,
    mean: (place) => meanBy(nearTo(place)),
    at: (place) => {
      const near = nearTo(place);
      const through = forward(lower, near, n);
      const known = through.reduce((sum, one) => sum + one * one, 0);
      const variance = Math.max(0, 1 - smoothness.noise - known);
      return {
        mean: meanBy(near),
        sd: scale * Math.sqrt(variance),
        sdOfReading: scale * Math.sqrt(variance + smoothness.noise),
      };
    },
  };
}

/** Keeps the covariance of places that coincide from being singular. */
const JITTER = 1e-9;

function apart(a: readonly number[], b: readonly number[], lengths: readonly number[]): number {
  let sum = 0;
  for (let j = 0; j < lengths.length; j += 1) sum += ((a[j]! - b[j]!) / lengths[j]!) ** 2;
  return sum;
}

/** Lower root of a symmetric matrix (Cholesky), in its place. @throws fit.no-data where it has none */
function rootInPlace(matrix: Float64Array, n: number): void {
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = matrix[i * n + j]!;
      for (let k = 0; k < j; k += 1) sum -= matrix[i * n + k]! * matrix[j * n + k]!;
      if (i === j && sum <= 0) throw new CoreError('fit.no-data', 'These places are too alike for a surface.');
      matrix[i * n + j] = i === j ? Math.sqrt(sum) : sum / matrix[j * n + j]!;
    }
}

function forward(lower: Float64Array, right: ArrayLike<number>, n: number): Float64Array {
  const out = new Float64Array(n);
  for (let i = 0; i < n; i += 1) {
    let sum = right[i]!;
    for (let k = 0; k < i; k += 1) sum -= lower[i * n + k]! * out[k]!;
    out[i] = sum / lower[i * n + i]!;
  }
  return out;
}

function backward(lower: Float64Array, right: Float64Array, n: number): Float64Array {
  const out = new Float64Array(n);
  for (let i = n - 1; i >= 0; i -= 1) {
    let sum = right[i]!;
    for (let k = i + 1; k < n; k += 1) sum -= lower[k * n + i]! * out[k]!;
    out[i] = sum / lower[i * n + i]!;
  }
  return out;
}

/** Readings that a smoothness is chosen by: more tell no more, and cost the cube. */
const CHOSEN_BY = 70;
/** Readings that a surface runs through at the most. */
const MOST = 350;
const NOISES = [0.02, 0.06, 0.15, 0.35, 0.7];
const LENGTHS = [0.35, 0.7, 1.4, 2.8];

/**
 * A smooth surface whose smoothness is the one under which the readings are likeliest, of a grid: length scales between a third of and
 * three times the spread of each input, noise from 2 to 70 % of the variance. Where there are many readings, evenly picked ones serve.
 * @throws fit.no-data for fewer than three; value.not-finite
 */
export function fitSurface(places: readonly (readonly number[])[], values: readonly number[]): SmoothSurface {
  const spreads = (places[0] ?? []).map((_, j) => Math.sqrt(sampleVariance(places.map((place) => place[j]!))) || 1);
  const few = picked(values.length, CHOSEN_BY);
  const at = (rows: readonly number[]) => [rows.map((i) => places[i]!), rows.map((i) => values[i]!)] as const;
  const [fewPlaces, fewValues] = at(few);
  let best: SmoothSurface | null = null;
  // The first two inputs, power and speed, have lengths of their own; the others share the longer of these.
  for (const first of LENGTHS)
    for (const second of LENGTHS)
      for (const noise of NOISES) {
        const lengths = spreads.map(
          (spread, j) => spread * (j === 0 ? first : j === 1 ? second : Math.max(first, second)),
        );
        const tried = smoothSurface(fewPlaces, fewValues, { lengths, noise });
        if (!best || tried.logEvidence > best.logEvidence) best = tried;
      }
  if (few.length === values.length) return best!;
  return smoothSurface(...at(picked(values.length, MOST)), best!.smoothness);
}

/** So many of some rows, evenly; all where there are no more. */
function picked(count: number, most: number): number[] {
  if (count <= most) return Array.from({ length: count }, (_, i) => i);
  return Array.from({ length: most }, (_, i) => Math.floor((i * count) / most));
}
