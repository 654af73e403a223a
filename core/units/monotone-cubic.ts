import { CoreError } from '../support/core-error.js';
import { requireFinite } from '../support/require.js';

/** One measured pair of a table: x must rise from row to row, y must never fall. */
export interface TablePoint {
  readonly x: number;
  readonly y: number;
}

/** A checked table and the slopes of its curve. */
export interface MonotoneCurve {
  readonly points: readonly TablePoint[];
  readonly slopes: readonly number[];
}

/**
 * Builds the monotone piecewise cubic through a table.
 *
 * The curve never falls between two rows that rise, so a calibration cannot promise less power for more percent.
 * Source: F. N. Fritsch, R. E. Carlson, "Monotone Piecewise Cubic Interpolation", SIAM J. Numer. Anal. 17 (1980).
 *
 * @throws table.too-short below two rows; table.duplicate for a repeated x; table.falls when y falls while x rises
 * @example evaluateCurve(monotoneCurve([{ x: 0, y: 0 }, { x: 100, y: 40 }]), 50) // 20
 */
export function monotoneCurve(rows: readonly TablePoint[], name = 'table'): MonotoneCurve {
  const points = checkedRows(rows, name);
  const secants = points.slice(1).map((point, i) => secant(points[i]!, point));
  const slopes = points.map((_, i) => {
    const before = secants[i - 1];
    const after = secants[i];
    if (before === undefined) return after!;
    if (after === undefined) return before;
    return before === 0 || after === 0 ? 0 : (before + after) / 2;
  });
  secants.forEach((slope, i) => limitSlopes(slopes, i, slope));
  return { points, slopes };
}

/** Value of the curve at x; outside the table the nearest row is returned, never an extrapolation. */
export function evaluateCurve(curve: MonotoneCurve, x: number): number {
  const { points, slopes } = curve;
  const last = points.length - 1;
  if (x <= points[0]!.x) return points[0]!.y;
  if (x >= points[last]!.x) return points[last]!.y;
  const right = points.findIndex((point) => point.x >= x);
  const from = points[right - 1]!;
  const to = points[right]!;
  const width = to.x - from.x;
  const t = (x - from.x) / width;
  const t2 = t * t;
  const t3 = t2 * t;
  return (
    (2 * t3 - 3 * t2 + 1) * from.y +
    (t3 - 2 * t2 + t) * width * slopes[right - 1]! +
    (-2 * t3 + 3 * t2) * to.y +
    (t3 - t2) * width * slopes[right]!
  );
}

/**
 * The x at which the curve reaches y (bisection to 1e-10 of the table's width).
 * @throws value.out-of-range when y lies outside the table
 */
export function invertCurve(curve: MonotoneCurve, y: number, name = 'value'): number {
  const first = curve.points[0]!;
  const last = curve.points[curve.points.length - 1]!;
  if (y < first.y || y > last.y) {
    throw new CoreError(
      'value.out-of-range',
      `${name} ${y} lies outside the measured table (${first.y} to ${last.y}).`,
      { path: name },
    );
  }
  let low = first.x;
  let high = last.x;
  while (high - low > 1e-10 * (last.x - first.x)) {
    const middle = (low + high) / 2;
    if (evaluateCurve(curve, middle) < y) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

function checkedRows(rows: readonly TablePoint[], name: string): TablePoint[] {
  if (rows.length < 2) {
    throw new CoreError('table.too-short', `${name} needs at least two rows.`, { path: name });
  }
  rows.forEach((row, i) => {
    requireFinite(`${name}[${i}].x`, row.x);
    requireFinite(`${name}[${i}].y`, row.y);
  });
  const sorted = [...rows].sort((a, b) => a.x - b.x);
  sorted.forEach((row, i) => {
    const before = sorted[i - 1];
    if (!before) return;
    if (row.x === before.x) {
      throw new CoreError('table.duplicate', `${name} has ${row.x} twice.`, { path: name });
    }
    if (row.y < before.y) {
      throw new CoreError(
        'table.falls',
        `${name} falls from ${before.y} at ${before.x} to ${row.y} at ${row.x}; read that row again.`,
        { path: name },
      );
    }
  });
  return sorted;
}

function secant(from: TablePoint, to: TablePoint): number {
  return (to.y - from.y) / (to.x - from.x);
}

/** Keeps a pair of end slopes within three secants, which is enough for monotony (de Boor & Swartz 1977). */
function limitSlopes(slopes: number[], i: number, slope: number): void {
  slopes[i] = Math.min(slopes[i]!, 3 * slope);
  slopes[i + 1] = Math.min(slopes[i + 1]!, 3 * slope);
}
