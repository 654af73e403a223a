/** A curve leaves its chords by no more than this, mm. */
export const CHORD_MM = 0.002;
/** No curve is cut into more chords than this. */
const MOST_CHORDS = 2000;

/**
 * A cubic Bézier as chords, appended to `out` without its first point. The number of chords follows from the largest second
 * difference of the control points: the error of n equal steps is at most that × 6 ÷ 8n². Source: Filip, Magedson & Markot 1986.
 */
export function cubicChords(p: readonly number[], out: number[]): void {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = p as [number, number, number, number, number, number, number, number];
  const bend = Math.max(Math.hypot(x0 - 2 * x1 + x2, y0 - 2 * y1 + y2), Math.hypot(x1 - 2 * x2 + x3, y1 - 2 * y2 + y3));
  const count = chords((6 * bend) / 8);
  for (let k = 1; k <= count; k += 1) {
    const t = k / count;
    const u = 1 - t;
    const [a, b, c, d] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    out.push(a * x0 + b * x1 + c * x2 + d * x3, a * y0 + b * y1 + c * y2 + d * y3);
  }
}

/** A quadratic Bézier as chords, as the cubic that it is. */
export function quadraticChords(p: readonly number[], out: number[]): void {
  const [x0, y0, x1, y1, x2, y2] = p as [number, number, number, number, number, number];
  const third = (from: number, to: number) => from + (2 / 3) * (to - from);
  cubicChords([x0, y0, third(x0, x1), third(y0, y1), third(x2, x1), third(y2, y1), x2, y2], out);
}

function chords(errorOfOne: number): number {
  if (!Number.isFinite(errorOfOne)) return 1;
  return Math.min(MOST_CHORDS, Math.max(1, Math.ceil(Math.sqrt(errorOfOne / CHORD_MM))));
}

/** An arc as chords without its first point: centre, radius, from one angle by another (radians, counter-clockwise above 0). */
export function arcChords(
  arc: { readonly x: number; readonly y: number; readonly radius: number; readonly from: number; readonly by: number },
  out: number[],
): void {
  const step = 2 * Math.acos(Math.max(0, 1 - CHORD_MM / arc.radius));
  const count = Math.min(MOST_CHORDS, Math.max(1, Math.ceil(Math.abs(arc.by) / (step || 1))));
  for (let k = 1; k <= count; k += 1) {
    const angle = arc.from + (arc.by * k) / count;
    out.push(arc.x + arc.radius * Math.cos(angle), arc.y + arc.radius * Math.sin(angle));
  }
}
