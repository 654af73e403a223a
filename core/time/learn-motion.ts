import { studentT90 } from '../statistics/student-t.js';

/** A run whose minutes were measured: what it would take without ramps, how much of a ramp it has, and how many pieces. */
export interface TimedRun {
  readonly seconds: number;
  /** At marking speed, without speeding up or slowing down. */
  readonly cruiseS: number;
  /** Seconds × mm/s² of its ramps: what they take is this ÷ acceleration. */
  readonly ramp: number;
  readonly pieces: number;
}

/** A value with its 90 % interval. */
export interface Learnt {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

export interface LearntMotion {
  readonly accelerationMmPerS2: Learnt;
  /** Beside the path, a piece: laying in, lids, waiting. */
  readonly overheadS: Learnt;
  readonly runs: number;
}

/** Fewer runs say nothing of two unknowns and how sure they are. */
export const FEWEST_TIMED_RUNS = 4;

/**
 * Acceleration and seconds beside the path a piece, from runs whose minutes were measured: least squares in the two unknowns 1/a and
 * overhead of seconds a piece = cruise + ramp ÷ a + overhead, weighted by pieces; intervals of 90 % by Student's t.
 * @returns null below four runs, where they are too alike to tell the two apart, or where no acceleration above 0 comes out
 */
export function learnMotion(runs: readonly TimedRun[]): LearntMotion | null {
  if (runs.length < FEWEST_TIMED_RUNS) return null;
  // Each piece once: y = p·x + o with x ramp and y seconds beyond cruise.
  const points = runs.map(({ seconds, cruiseS, ramp, pieces }) => ({
    ...{ weight: pieces, x: ramp / pieces, y: (seconds - cruiseS) / pieces },
  }));
  const total = points.reduce((sum, { weight }) => sum + weight, 0);
  const [meanX, meanY] = [mean(points, 'x', total), mean(points, 'y', total)];
  const sxx = points.reduce((sum, { weight, x }) => sum + weight * (x - meanX) ** 2, 0);
  if (sxx <= 1e-9 * total * meanX ** 2) return null;
  const slope = points.reduce((sum, { weight, x, y }) => sum + weight * (x - meanX) * (y - meanY), 0) / sxx;
  const overhead = meanY - slope * meanX;
  const degrees = points.length - 2;
  const left = points.reduce((sum, { weight, x, y }) => sum + weight * (y - overhead - slope * x) ** 2, 0) / degrees;
  const half = studentT90(degrees) * Math.sqrt(left / sxx);
  const halfOver = studentT90(degrees) * Math.sqrt(left * (1 / total + meanX ** 2 / sxx));
  if (!(slope > 0)) return null;
  return {
    accelerationMmPerS2: {
      value: 1 / slope,
      low: 1 / (slope + half),
      high: slope - half > 0 ? 1 / (slope - half) : Infinity,
    },
    overheadS: { value: overhead, low: overhead - halfOver, high: overhead + halfOver },
    runs: runs.length,
  };
}

function mean(points: readonly { weight: number; x: number; y: number }[], key: 'x' | 'y', total: number): number {
  return points.reduce((sum, point) => sum + point.weight * point[key], 0) / total;
}
