import { luminanceAt, type Pixels } from './picture.js';
import type { Point2 } from './homography.js';
import { median } from '../statistics/index.js';

/** Side of the coarse picture the search runs on, px. */
const COARSE = 160;
/** The part fills at least this share of the picture. */
const LEAST_SHARE = 0.03;

/**
 * A first guess at the four corners of the largest thing that stands out from the picture's border, from its lower left one
 * counter-clockwise; null when nothing does. A person corrects it by hand.
 */
export function findPart(pixels: Pixels): [Point2, Point2, Point2, Point2] | null {
  const step = Math.max(1, Math.floor(Math.max(pixels.width, pixels.height) / COARSE));
  const [w, h] = [Math.floor(pixels.width / step), Math.floor(pixels.height / step)];
  if (w < 8 || h < 8) return null;
  const coarse = new Float64Array(w * h);
  for (let y = 0; y < h; y += 1)
    for (let x = 0; x < w; x += 1) coarse[y * w + x] = Math.sqrt(luminanceAt(pixels, x * step, y * step));
  const rim = borderOf(coarse, w, h);
  const border = median(rim);
  const apart = coarse.map((value) => Math.abs(value - border));
  // A dark thing beside the part must not lift the limit over the part itself.
  const limit = Math.min(otsu(apart), Math.max(0.08, 6 * median(rim.map((value) => Math.abs(value - border)))));
  const inside = largest(apart, w, h, limit);
  if (inside.length < LEAST_SHARE * w * h) return null;
  const best = (score: (x: number, y: number) => number): Point2 => {
    let at = inside[0]!;
    for (const i of inside) if (score(i % w, Math.floor(i / w)) > score(at % w, Math.floor(at / w))) at = i;
    return { x: ((at % w) + 0.5) * step, y: (Math.floor(at / w) + 0.5) * step };
  };
  return [best((x, y) => y - x), best((x, y) => x + y), best((x, y) => x - y), best((x, y) => -x - y)];
}

function borderOf(values: Float64Array, w: number, h: number): number[] {
  return Array.from(values).filter((_, i) => {
    const [x, y] = [i % w, Math.floor(i / w)];
    return x < 2 || y < 2 || x >= w - 2 || y >= h - 2;
  });
}

/** The value that parts a picture in two with least spread in each. Source: Otsu 1979. */
function otsu(values: Float64Array): number {
  const BINS = 64;
  const top = values.reduce((most, value) => Math.max(most, value), 1e-9);
  const counts = new Array<number>(BINS).fill(0);
  for (const value of values) counts[Math.min(BINS - 1, Math.floor((value / top) * BINS))]! += 1;
  const total = values.length;
  const whole = counts.reduce((sum, count, i) => sum + count * i, 0);
  let [best, at, below, sum] = [-1, 0, 0, 0];
  for (let i = 0; i < BINS - 1; i += 1) {
    below += counts[i]!;
    sum += counts[i]! * i;
    if (below === 0 || below === total) continue;
    const between = (sum * total - below * whole) ** 2 / (below * (total - below));
    if (between > best) [best, at] = [between, i];
  }
  return ((at + 1) / BINS) * top;
}

/** Indices of the largest connected set above a limit. */
function largest(values: Float64Array, w: number, h: number, limit: number): number[] {
  const seen = new Uint8Array(values.length);
  let best: number[] = [];
  for (let start = 0; start < values.length; start += 1) {
    if (seen[start] || values[start]! < limit) continue;
    const group = [start];
    seen[start] = 1;
    for (let k = 0; k < group.length; k += 1) {
      const [x, y] = [group[k]! % w, Math.floor(group[k]! / w)];
      for (const [nx, ny] of [
        [x - 1, y],
        [x + 1, y],
        [x, y - 1],
        [x, y + 1],
      ] as const) {
        const next = ny * w + nx;
        if (nx < 0 || ny < 0 || nx >= w || ny >= h || seen[next] || values[next]! < limit) continue;
        seen[next] = 1;
        group.push(next);
      }
    }
    if (group.length > best.length) best = group;
  }
  return best;
}
