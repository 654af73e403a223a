import { CoreError } from '../support/core-error.js';
import { requireFinite } from '../support/require.js';

export interface PlanePoint {
  readonly xMm: number;
  readonly yMm: number;
}

/** A circle through touched points, mm. */
export interface CircleFit {
  readonly centre: PlanePoint;
  readonly radiusMm: number;
  /** Root mean square of the points' distances from the circle. */
  readonly rmsMm: number;
  /** The point farthest off, and how far (outside positive). */
  readonly worst: { readonly index: number; readonly offMm: number };
}

const MAX_ITERATIONS = 100;

/**
 * Circle of least squared distances (geometric fit) through points touched on a rim: Gauss-Newton from the algebraic fit.
 * Source: Gander, Golub & Strebel, "Least-squares fitting of circles and ellipses", BIT 34, 1994.
 * @param points three or more, not in line
 * @throws place.too-few-points, place.points-in-line, value.not-finite
 * @example fitCircle([{ xMm: 1, yMm: 0 }, { xMm: 0, yMm: 1 }, { xMm: -1, yMm: 0 }]).radiusMm // 1
 */
export function fitCircle(points: readonly PlanePoint[]): CircleFit {
  if (points.length < 3)
    throw new CoreError(
      'place.too-few-points',
      `A circle needs at least three rim points; there are ${points.length}.`,
    );
  points.forEach(({ xMm, yMm }) => [requireFinite('x', xMm), requireFinite('y', yMm)]);
  let [x, y, r] = algebraicCircle(points);
  for (let i = 0; i < MAX_ITERATIONS; i += 1) {
    const [dx, dy, dr] = gaussNewtonStep(points, x, y, r);
    [x, y, r] = [x + dx, y + dy, r + dr];
    if (Math.hypot(dx, dy, dr) < 1e-12 * (1 + Math.abs(r))) break;
  }
  const off = points.map((point) => Math.hypot(point.xMm - x, point.yMm - y) - r);
  const index = off.reduce((worst, value, i) => (Math.abs(value) > Math.abs(off[worst]!) ? i : worst), 0);
  return {
    centre: { xMm: x, yMm: y },
    radiusMm: r,
    rmsMm: Math.sqrt(off.reduce((sum, value) => sum + value * value, 0) / points.length),
    worst: { index, offMm: off[index]! },
  };
}

/** The circle whose equation the points meet best: x² + y² = 2ax + 2by + c, about their mean. */
function algebraicCircle(points: readonly PlanePoint[]): [number, number, number] {
  const n = points.length;
  const mx = points.reduce((sum, { xMm }) => sum + xMm, 0) / n;
  const my = points.reduce((sum, { yMm }) => sum + yMm, 0) / n;
  let [suu, suv, svv, suuu, svvv, suvv, svuu] = [0, 0, 0, 0, 0, 0, 0];
  for (const { xMm, yMm } of points) {
    const [u, v] = [xMm - mx, yMm - my];
    suu += u * u;
    suv += u * v;
    svv += v * v;
    suuu += u * u * u;
    svvv += v * v * v;
    suvv += u * v * v;
    svuu += v * u * u;
  }
  const determinant = suu * svv - suv * suv;
  // Points in line spread along one direction only: the smaller spread is nothing against the larger.
  if (determinant <= 1e-9 * (suu + svv) ** 2)
    throw new CoreError('place.points-in-line', 'The rim points lie in a line: touch the rim farther round.');
  const [p, q] = [(suuu + suvv) / 2, (svvv + svuu) / 2];
  const a = (p * svv - q * suv) / determinant;
  const b = (q * suu - p * suv) / determinant;
  return [a + mx, b + my, Math.sqrt(a * a + b * b + (suu + svv) / n)];
}

function gaussNewtonStep(points: readonly PlanePoint[], x: number, y: number, r: number): [number, number, number] {
  // Normal equations of the three unknowns, solved by Cramer's rule.
  const m = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  const g = [0, 0, 0];
  for (const { xMm, yMm } of points) {
    const distance = Math.hypot(xMm - x, yMm - y) || 1e-12;
    const row = [(x - xMm) / distance, (y - yMm) / distance, -1];
    const residual = distance - r;
    for (let i = 0; i < 3; i += 1) {
      g[i]! -= row[i]! * residual;
      for (let j = 0; j < 3; j += 1) m[3 * i + j]! += row[i]! * row[j]!;
    }
  }
  return solve3(m, g);
}

/** Solution of a 3 × 3 system; nothing moves when it is singular. */
function solve3(m: readonly number[], g: readonly number[]): [number, number, number] {
  const det = (a: readonly number[]) =>
    a[0]! * (a[4]! * a[8]! - a[5]! * a[7]!) -
    a[1]! * (a[3]! * a[8]! - a[5]! * a[6]!) +
    a[2]! * (a[3]! * a[7]! - a[4]! * a[6]!);
  const whole = det(m);
  if (whole === 0) return [0, 0, 0];
  const column = (k: number) => det(m.map((value, i) => (i % 3 === k ? g[Math.floor(i / 3)]! : value)));
  return [column(0) / whole, column(1) / whole, column(2) / whole];
}
