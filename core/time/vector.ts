import { requirePositive } from '../support/require.js';
import type { RowMotion } from './raster.js';

/** A corner is taken as if on an arc that leaves it by so much, mm; usual of gantry controllers, common practice, no source. */
const CORNER_MM = 0.01;

/**
 * Seconds to follow a line at a speed, from rest to rest. Gantry: no faster anywhere than acceleration and corners allow. A corner is
 * taken at √(a·δ·s ÷ (1 − s)) where s is the sine of half the angle between its sides: as fast as an arc that leaves the corner by δ can
 * be run at that acceleration. Looks ahead and back over the whole line. Galvo: length ÷ speed and a delay at every corner.
 * @param corners x0, y0, x1, y1 … in mm
 * @throws value.not-positive for speed or acceleration
 */
export function lineTime(corners: ArrayLike<number>, speedMmPerS: number, motion: RowMotion): number {
  requirePositive('speed', speedMmPerS);
  const sides = sidesOf(corners);
  if (motion.kind === 'galvo') {
    const length = sides.reduce((sum, { mm }) => sum + mm, 0);
    return length / speedMmPerS + Math.max(0, sides.length - 1) * motion.delayS;
  }
  const a = requirePositive('acceleration', motion.accelerationMmPerS2);
  const at = cornerSpeeds(sides, speedMmPerS, a);
  return sides.reduce((sum, { mm }, i) => sum + sideTime(mm, at[i]!, at[i + 1]!, speedMmPerS, a), 0);
}

interface Side {
  readonly mm: number;
  /** Direction, of length 1. */
  readonly x: number;
  readonly y: number;
}

function sidesOf(corners: ArrayLike<number>): Side[] {
  const sides: Side[] = [];
  for (let i = 2; i < corners.length; i += 2) {
    const [dx, dy] = [corners[i]! - corners[i - 2]!, corners[i + 1]! - corners[i - 1]!];
    const mm = Math.hypot(dx, dy);
    if (mm > 0) sides.push({ mm, x: dx / mm, y: dy / mm });
  }
  return sides;
}

/** Speed at either end of every side, mm/s. */
function cornerSpeeds(sides: readonly Side[], speed: number, a: number): Float64Array {
  const at = new Float64Array(sides.length + 1);
  for (let i = 1; i < sides.length; i += 1) {
    const limit = cornerLimit(sides[i - 1]!, sides[i]!, a);
    at[i] = Math.min(speed, limit, Math.sqrt(at[i - 1]! ** 2 + 2 * a * sides[i - 1]!.mm));
  }
  for (let i = sides.length - 1; i > 0; i -= 1)
    at[i] = Math.min(at[i]!, Math.sqrt(at[i + 1]! ** 2 + 2 * a * sides[i]!.mm));
  return at;
}

/** Speed a corner is taken at, mm/s; any where it is straight on. */
function cornerLimit(one: Side, next: Side, a: number): number {
  // Of the angle between the sides: 0 where they turn back, π straight on.
  const cos = -(one.x * next.x + one.y * next.y);
  const half = Math.sqrt(Math.max(0, (1 - cos) / 2));
  return half > 0.9999 ? Infinity : Math.sqrt((a * CORNER_MM * half) / (1 - half));
}

function sideTime(mm: number, from: number, to: number, speed: number, a: number): number {
  const top = Math.min(speed, Math.sqrt((2 * a * mm + from ** 2 + to ** 2) / 2));
  const ramps = (2 * top ** 2 - from ** 2 - to ** 2) / (2 * a);
  return (2 * top - from - to) / a + Math.max(0, mm - ramps) / top;
}
