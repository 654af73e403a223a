import type { ArtworkShape, Box, Ring } from './shapes.js';

/** What of shapes lies within a box, mm: fills cut off at its sides, lines where they leave it. */
export function clipped(shapes: readonly ArtworkShape[], box: Box): ArtworkShape[] {
  return shapes.flatMap((shape) => {
    const rings = shape.as === 'line' ? shape.rings.flatMap((ring) => cutLine(ring, box)) : cutFill(shape.rings, box);
    return rings.length ? [{ ...shape, rings }] : [];
  });
}

interface Side {
  readonly axis: 0 | 1;
  readonly at: number;
  /** 1 where what lies above is kept, −1 for below. */
  readonly keeps: 1 | -1;
}

const sidesOf = ({ xMm, yMm, widthMm, heightMm }: Box): Side[] => [
  { axis: 0, at: xMm, keeps: 1 },
  { axis: 0, at: xMm + widthMm, keeps: -1 },
  { axis: 1, at: yMm, keeps: 1 },
  { axis: 1, at: yMm + heightMm, keeps: -1 },
];

/** Every ring cut at each side in turn; what winds about a place within the box still does. Source: Sutherland & Hodgman 1974. */
function cutFill(rings: readonly Ring[], box: Box): Ring[] {
  return rings
    .map((ring) => sidesOf(box).reduce((left: readonly number[], side) => cutAt(left, side), Array.from(ring)))
    .filter((ring) => ring.length >= 6)
    .map((ring) => Float64Array.from(ring));
}

function cutAt(ring: readonly number[], { axis, at, keeps }: Side): number[] {
  const out: number[] = [];
  const corners = ring.length / 2;
  const isIn = (i: number) => keeps * (ring[2 * i + axis]! - at) >= 0;
  for (let i = 0; i < corners; i += 1) {
    const j = (i + 1) % corners;
    if (isIn(i)) out.push(ring[2 * i]!, ring[2 * i + 1]!);
    if (isIn(i) === isIn(j)) continue;
    const t = (at - ring[2 * i + axis]!) / (ring[2 * j + axis]! - ring[2 * i + axis]!);
    const crossing = [0, 1].map((k) => ring[2 * i + k]! + t * (ring[2 * j + k]! - ring[2 * i + k]!));
    crossing[axis] = at;
    out.push(...crossing);
  }
  return out;
}

/** Pieces of a line within the box, in its order. Source: Liang & Barsky 1984. */
function cutLine(ring: Ring, box: Box): Ring[] {
  const out: number[][] = [];
  let open: number[] | null = null;
  for (let i = 0; i + 3 < ring.length; i += 2) {
    const inside = within([ring[i]!, ring[i + 1]!, ring[i + 2]!, ring[i + 3]!], box);
    if (!inside) {
      open = null;
      continue;
    }
    const [from, to] = inside;
    const [dx, dy] = [ring[i + 2]! - ring[i]!, ring[i + 3]! - ring[i + 1]!];
    if (!open || from > 0) out.push((open = [ring[i]! + from * dx, ring[i + 1]! + from * dy]));
    open.push(ring[i]! + to * dx, ring[i + 1]! + to * dy);
    if (to < 1) open = null;
  }
  return out.filter((line) => line.length >= 4).map((line) => Float64Array.from(line));
}

/** Shares of a segment between which it lies in the box; null where it does not. */
function within([x0, y0, x1, y1]: readonly [number, number, number, number], box: Box): [number, number] | null {
  let [from, to] = [0, 1];
  for (const { axis, at, keeps } of sidesOf(box)) {
    const [start, along] = axis === 0 ? [x0, x1 - x0] : [y0, y1 - y0];
    const [before, step] = [keeps * (start - at), keeps * along];
    if (step === 0) {
      if (before < 0) return null;
      continue;
    }
    const t = -before / step;
    if (step > 0) from = Math.max(from, t);
    else to = Math.min(to, t);
  }
  return from < to ? [from, to] : null;
}
