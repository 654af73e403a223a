import { Matrix, SVD } from 'ml-matrix';
import { CoreError } from '../support/core-error.js';
import { requireFinite } from '../support/require.js';

/** A place on a plane: a pixel of a picture, or mm on a part. */
export interface Point2 {
  readonly x: number;
  readonly y: number;
}

/** Nine numbers, row by row: (x, y) goes to ((h0 x + h1 y + h2)/w, (h3 x + h4 y + h5)/w), w = h6 x + h7 y + h8. */
export type Homography = readonly number[];

/**
 * The projective map that takes four or more points onto others with least algebraic error: direct linear transformation on
 * normalised points. Source: Hartley & Zisserman, Multiple View Geometry, 2nd ed., algorithm 4.2 (from memory).
 * @throws reading.points for fewer than four pairs, or three of four in a line; value.not-finite
 */
export function fitHomography(from: readonly Point2[], to: readonly Point2[]): Homography {
  if (from.length < 4 || from.length !== to.length)
    throw new CoreError('reading.points', 'A picture is straightened by four points at least, each with its place.');
  [...from, ...to].forEach(({ x, y }) => [requireFinite('x', x), requireFinite('y', y)]);
  if (from.length === 4) [from, to].forEach(requireSpread);
  const [a, b] = [normaliser(from), normaliser(to)];
  const rows = from.flatMap((point, i) => {
    const [x, y] = moved(a, point);
    const [u, v] = moved(b, to[i]!);
    return [
      [-x, -y, -1, 0, 0, 0, u * x, u * y, u],
      [0, 0, 0, -x, -y, -1, v * x, v * y, v],
    ];
  });
  // A square system at least, so that the last right singular vector is there.
  while (rows.length < 9) rows.push(new Array<number>(9).fill(0));
  const solved = new SVD(new Matrix(rows), { autoTranspose: true }).rightSingularVectors.getColumn(8);
  return undone(solved, a, b);
}

/** Where a point goes. @throws reading.points for a point on the map's horizon */
export function project(h: Homography, { x, y }: Point2): Point2 {
  const w = h[6]! * x + h[7]! * y + h[8]!;
  if (Math.abs(w) < 1e-12) throw new CoreError('reading.points', 'The corners cross: put them on the part in turn.');
  return { x: (h[0]! * x + h[1]! * y + h[2]!) / w, y: (h[3]! * x + h[4]! * y + h[5]!) / w };
}

/** Twice the area of a triangle, signed: positive where a, b, c turn counter-clockwise (y up). */
export function turnOf(a: Point2, b: Point2, c: Point2): number {
  return (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
}

/**
 * Refuses corners that cross, and a mirrored part: in a picture (y down) they run clockwise in its numbers, counter-clockwise on the part.
 * @throws reading.points
 */
export function requireConvex(corners: readonly Point2[]): void {
  const turns = corners.map((corner, i) => turnOf(corner, corners[(i + 1) % 4]!, corners[(i + 2) % 4]!));
  if (!turns.every((turn) => turn < 0))
    throw new CoreError('reading.points', 'The corners cross: they run from the lower left one counter-clockwise.');
}

function requireSpread(points: readonly Point2[]): void {
  const size = Math.max(...points.map((p) => Math.hypot(p.x - points[0]!.x, p.y - points[0]!.y)), 1e-12);
  for (let skip = 0; skip < 4; skip += 1) {
    const [a, b, c] = points.filter((_, i) => i !== skip) as [Point2, Point2, Point2];
    if (Math.abs(turnOf(a, b, c)) < 1e-6 * size * size)
      throw new CoreError('reading.points', 'Three of the corners lie in a line: put each on a corner of the part.');
  }
}

/** Shift and scale that bring points to a mean of nought and a mean distance of √2. */
interface Normaliser {
  readonly cx: number;
  readonly cy: number;
  readonly scale: number;
}

function normaliser(points: readonly Point2[]): Normaliser {
  const n = points.length;
  const cx = points.reduce((sum, { x }) => sum + x, 0) / n;
  const cy = points.reduce((sum, { y }) => sum + y, 0) / n;
  const mean = points.reduce((sum, { x, y }) => sum + Math.hypot(x - cx, y - cy), 0) / n;
  return { cx, cy, scale: mean > 0 ? Math.SQRT2 / mean : 1 };
}

function moved({ cx, cy, scale }: Normaliser, { x, y }: Point2): [number, number] {
  return [(x - cx) * scale, (y - cy) * scale];
}

/** T_b⁻¹ · H · T_a, scaled to a last entry of 1 where it has one. */
function undone(h: readonly number[], a: Normaliser, b: Normaliser): Homography {
  const matrix = new Matrix([h.slice(0, 3), h.slice(3, 6), h.slice(6, 9)] as number[][]);
  const ta = new Matrix([
    [a.scale, 0, -a.scale * a.cx],
    [0, a.scale, -a.scale * a.cy],
    [0, 0, 1],
  ]);
  const tbInverse = new Matrix([
    [1 / b.scale, 0, b.cx],
    [0, 1 / b.scale, b.cy],
    [0, 0, 1],
  ]);
  const whole = tbInverse.mmul(matrix).mmul(ta).to1DArray();
  const last = whole[8]!;
  return Math.abs(last) > 1e-12 ? whole.map((value) => value / last) : whole;
}
