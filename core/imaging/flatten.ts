import { Matrix, solve } from 'ml-matrix';
import type { Point2 } from './homography.js';
import type { Straightened } from './picture.js';
import { median, robustSpread } from '../statistics/index.js';

/** Uneven light over a part: how bright it is at a place (shares of width and height), 1 in its middle. */
export interface LightSurface {
  readonly at: (place: Point2) => number;
  /** Luminance in its middle. */
  readonly level: number;
  /** Robust spread of the readings about it, as a share. */
  readonly spread: number;
  /** Share of the readings that lie on it. */
  readonly kept: number;
}

/** A map with its uneven light taken off, and what that was judged by. */
export interface Flattened {
  readonly flat: Float64Array;
  readonly light: LightSurface;
  /** The even ground round the part; where there is none, the part itself, whose own slow changes are then taken for light. */
  readonly from: 'surround' | 'part itself';
}

/** A surround more uneven than this is no even ground. */
const EVEN = 0.04;
const MOSTLY = 0.5;
/** What eight bits and a lens leave in the evenest picture, as a share. */
const LEAST_SPREAD = 0.004;

/** Takes uneven light off a straightened part: by the ground about it where that is even, else by the part itself. */
export function flattenLight(straight: Straightened): Flattened {
  const { columns, rows, luminance, around } = straight;
  const places = Array.from({ length: columns * rows }, (_, i) => ({
    x: ((i % columns) + 0.5) / columns,
    y: (Math.floor(i / columns) + 0.5) / rows,
  }));
  const ground = around ? lightSurface(around.places, around.luminance) : null;
  const usable = ground !== null && ground.spread < EVEN && ground.kept > MOSTLY;
  const light = usable ? ground : lightSurface(places, luminance);
  const flat = luminance.map((value, i) => value / light.at(places[i]!));
  return { flat, light, from: usable ? 'surround' : 'part itself' };
}

/**
 * A quadratic surface through the logarithms of luminances, readings that lie off it counting less and less (Tukey’s biweight, ten
 * rounds from their median). Source: Beaton & Tukey 1974 for the weights.
 */
export function lightSurface(places: readonly Point2[], luminance: Float64Array): LightSurface {
  const logs = Float64Array.from(luminance, (value) => Math.log(Math.max(value, 1e-5)));
  const rows = places.map(terms);
  let surface = [median(logs), 0, 0, 0, 0, 0];
  const over = (row: readonly number[]) => row.reduce((sum, term, k) => sum + term * surface[k]!, 0);
  let [spread, kept] = [0, 0];
  for (let round = 0; round < 10; round += 1) {
    const residuals = logs.map((value, i) => value - over(rows[i]!));
    spread = Math.max(robustSpread(residuals), LEAST_SPREAD);
    const weights = residuals.map((value) => {
      const t = value / (4.685 * spread);
      return Math.abs(t) < 1 ? (1 - t * t) ** 2 : 0;
    });
    kept = weights.reduce((sum, weight) => sum + (weight > 0 ? 1 : 0), 0) / weights.length;
    surface = weightedFit(logs, weights, rows);
  }
  const [a, b, c, d, e, f] = surface as [number, number, number, number, number, number];
  // In the middle of the part everything but the first is nought.
  const at = ({ x, y }: Point2) => {
    const [u, v] = [2 * x - 1, 2 * y - 1];
    return Math.exp(b * u + c * v + d * u * u + e * u * v + f * v * v);
  };
  return { at, level: Math.exp(a), spread, kept };
}

function terms({ x, y }: Point2): number[] {
  const [u, v] = [2 * x - 1, 2 * y - 1];
  return [1, u, v, u * u, u * v, v * v];
}

function weightedFit(values: Float64Array, weights: Float64Array, rows: readonly (readonly number[])[]): number[] {
  const normal = Array.from({ length: 6 }, () => new Float64Array(6));
  const right = new Float64Array(6);
  for (let i = 0; i < rows.length; i += 1) {
    const weight = weights[i]!;
    if (weight === 0) continue;
    const row = rows[i]!;
    for (let j = 0; j < 6; j += 1) {
      const weighed = weight * row[j]!;
      right[j]! += weighed * values[i]!;
      for (let k = 0; k < 6; k += 1) normal[j]![k]! += weighed * row[k]!;
    }
  }
  // A breath of ridge keeps a picture of too few cells solvable.
  for (let k = 0; k < 6; k += 1) normal[k]![k]! += 1e-9;
  return solve(new Matrix(normal), Matrix.columnVector(right)).to1DArray();
}
