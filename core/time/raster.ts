import { requirePositive } from '../support/require.js';

/** How a machine moves along and between rows. */
export type RowMotion =
  | { readonly kind: 'gantry'; readonly accelerationMmPerS2: number; readonly rapidMmPerS: number }
  | { readonly kind: 'galvo'; readonly jumpMmPerS: number; readonly delayS: number };

/** A rectangle filled with rows. `directions` two-way marks on the way back too. */
export interface RasterJob {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly intervalMm: number;
  readonly speedMmPerS: number;
  readonly passes: number;
  readonly directions: 'one-way' | 'two-way';
}

/** Rows in a height, both in mm and above 0: at least one. @throws value.not-positive @example rowCount(6, 0.06) // 100 */
export function rowCount(heightMm: number, intervalMm: number): number {
  return Math.max(1, Math.round(requirePositive('height', heightMm) / requirePositive('interval', intervalMm)));
}

/**
 * Overscan in mm on each side so that the beam crosses the mark at full speed: v²/(2a); none on a galvo.
 * @throws value.not-positive
 * @example overscan(400, { kind: 'gantry', accelerationMmPerS2: 5000, rapidMmPerS: 600 }) // 16
 */
export function overscan(speedMmPerS: number, motion: RowMotion): number {
  return motion.kind === 'gantry'
    ? requirePositive('speed', speedMmPerS) ** 2 / (2 * requirePositive('acceleration', motion.accelerationMmPerS2))
    : 0;
}

/**
 * Seconds for one row and its turnaround. Gantry: w/v + 2v/a (run-up and stop), one-way adds the way back as a trapezoid.
 * Galvo: w/v plus delay, one-way adds the jump back.
 * @throws value.not-positive
 */
export function rowTime(
  row: { widthMm: number; speedMmPerS: number; directions: RasterJob['directions'] },
  motion: RowMotion,
): number {
  const mark = requirePositive('width', row.widthMm) / requirePositive('speed', row.speedMmPerS);
  if (motion.kind === 'galvo') {
    const back = row.directions === 'one-way' ? row.widthMm / requirePositive('jump speed', motion.jumpMmPerS) : 0;
    return mark + back + motion.delayS;
  }
  const a = requirePositive('acceleration', motion.accelerationMmPerS2);
  const turn = (2 * row.speedMmPerS) / a;
  if (row.directions === 'two-way') return mark + turn;
  const back = row.widthMm + 2 * overscan(row.speedMmPerS, motion);
  return mark + turn + moveTime(back, motion.rapidMmPerS, a);
}

/**
 * Seconds to fill a rectangle: rows × (row time + step to the next row) × passes. On the way back of a one-way row the step is in it.
 * @throws value.not-positive
 */
export function rasterTime(job: RasterJob, motion: RowMotion): number {
  const step =
    motion.kind === 'gantry' && job.directions === 'two-way'
      ? moveTime(job.intervalMm, motion.rapidMmPerS, motion.accelerationMmPerS2)
      : 0;
  const rows = rowCount(job.heightMm, job.intervalMm);
  return rows * (rowTime(job, motion) + step) * requirePositive('passes', job.passes);
}

/**
 * Speed in mm/s that makes a two-way gantry row quickest: √(w·a/2). Faster than that, the turnarounds cost more than is won.
 * @throws value.not-positive @example fastestRowSpeed(38, 5000) // 308
 */
export function fastestRowSpeed(widthMm: number, accelerationMmPerS2: number): number {
  return Math.sqrt((requirePositive('width', widthMm) * requirePositive('acceleration', accelerationMmPerS2)) / 2);
}

/**
 * Seconds to move a distance in mm from rest to rest with a speed and acceleration limit (trapezoid or triangle).
 * @throws value.not-positive for the limits
 * @example moveTime(100, 100, 1000) // 1.1
 */
export function moveTime(distanceMm: number, topMmPerS: number, accelerationMmPerS2: number): number {
  if (distanceMm <= 0) return 0;
  const ramp = requirePositive('speed', topMmPerS) ** 2 / requirePositive('acceleration', accelerationMmPerS2);
  return distanceMm < ramp
    ? 2 * Math.sqrt(distanceMm / accelerationMmPerS2)
    : distanceMm / topMmPerS + topMmPerS / accelerationMmPerS2;
}

/** Seconds to get from one place to another so many mm off with the beam out, from rest to rest. */
export function jumpTime(motion: RowMotion): (mm: number) => number {
  return motion.kind === 'gantry'
    ? (mm) => moveTime(mm, motion.rapidMmPerS, motion.accelerationMmPerS2)
    : (mm) => (mm > 0 ? mm / motion.jumpMmPerS + motion.delayS : 0);
}

/**
 * Area marked a minute, cm²/min: the rectangle ÷ its time, turnarounds and passes included.
 * @throws value.not-positive
 */
export function areaRate(job: RasterJob, motion: RowMotion): number {
  return (requirePositive('width', job.widthMm) * job.heightMm * 0.6) / rasterTime(job, motion);
}
