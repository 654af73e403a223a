import type { Point2 } from '../imaging/homography.js';
import type { Pixels } from '../imaging/picture.js';
import { edgeWidth } from '../imaging/edge-width.js';
import { profile } from '../imaging/profile.js';
import { mean } from '../statistics/index.js';

/** Where along an edge it is looked at; near the corners two edges blur into each other. */
const PLACES = Array.from({ length: 13 }, (_, i) => 0.2 + (0.6 * i) / 12);
const SAMPLES = 41;

/** A square's corners, and the 10–90 % widths of its edges across (its sides) and upwards (its top and bottom), px. */
export interface SharpSquare {
  readonly corners: readonly Point2[];
  readonly edgePx: { readonly x: readonly number[]; readonly y: readonly number[] };
}

/** Corners of a dark square to a fraction of a pixel: its four edges are found where brightness is half way, and intersected. Corners from the upper left, clockwise. */
export function sharpenCorners(pixels: Pixels, corners: readonly Point2[]): SharpSquare {
  const edges = corners.map((corner, i) => sharpenEdge(pixels, corner, corners[(i + 1) % 4]!));
  const sharp = corners.map((corner, i) => {
    const [before, after] = [edges[(i + 3) % 4]!.line, edges[i]!.line];
    return before && after ? (crossing(before, after) ?? corner) : corner;
  });
  const widths = (some: readonly number[]) => some.flatMap((i) => edges[i]!.widths);
  return { corners: sharp, edgePx: { x: widths([1, 3]), y: widths([0, 2]) } };
}

/** A line by a point on it and its direction. */
interface Line {
  readonly at: Point2;
  readonly along: Point2;
}

function sharpenEdge(pixels: Pixels, a: Point2, b: Point2): { line: Line | null; widths: number[] } {
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  const along = { x: (b.x - a.x) / length, y: (b.y - a.y) / length };
  const out = { x: along.y, y: -along.x };
  // The rim of a mark is an eighth of its side: stay within it.
  const reach = Math.max(2, length * 0.1);
  const points: Point2[] = [];
  const widths: number[] = [];
  for (const t of PLACES) {
    const on = { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t };
    const at = (d: number) => ({ x: on.x + out.x * d, y: on.y + out.y * d });
    const light = profile(pixels, at(-reach), at(reach), SAMPLES);
    const half = halfWay(light);
    if (half === null) continue;
    points.push(at((half / (SAMPLES - 1)) * 2 * reach - reach));
    const width = edgeWidth(light);
    if (width !== null) widths.push((width / (SAMPLES - 1)) * 2 * reach);
  }
  return { line: points.length >= 5 ? lineThrough(points) : null, widths };
}

/** Index (a fraction) at which a profile from dark to light passes half way; null where it is no edge. */
function halfWay(light: readonly number[]): number | null {
  if (light.some(Number.isNaN)) return null;
  const ends = Math.floor(light.length / 5);
  const [dark, bright] = [mean(light.slice(0, ends)), mean(light.slice(-ends))];
  if (bright - dark < 0.08) return null;
  const half = (dark + bright) / 2;
  const i = light.findIndex((value, k) => k > 0 && light[k - 1]! < half && value >= half);
  if (i < 0) return null;
  return i - 1 + (half - light[i - 1]!) / (light[i]! - light[i - 1]!);
}

/** Line of least squared distances, fitted again without what lies far off it. */
function lineThrough(points: readonly Point2[]): Line {
  const fit = (own: readonly Point2[]): Line => {
    const at = {
      x: own.reduce((sum, { x }) => sum + x, 0) / own.length,
      y: own.reduce((sum, { y }) => sum + y, 0) / own.length,
    };
    let [xx, xy, yy] = [0, 0, 0];
    for (const { x, y } of own) {
      xx += (x - at.x) ** 2;
      xy += (x - at.x) * (y - at.y);
      yy += (y - at.y) ** 2;
    }
    const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
    return { at, along: { x: Math.cos(angle), y: Math.sin(angle) } };
  };
  const first = fit(points);
  const off = points.map(({ x, y }) => Math.abs((x - first.at.x) * first.along.y - (y - first.at.y) * first.along.x));
  const limit = Math.max(0.25, 3 * [...off].sort((p, q) => p - q)[off.length >> 1]!);
  const near = points.filter((_, i) => off[i]! <= limit);
  return near.length >= 4 ? fit(near) : first;
}

function crossing(one: Line, other: Line): Point2 | null {
  const turn = one.along.x * other.along.y - one.along.y * other.along.x;
  if (Math.abs(turn) < 0.2) return null;
  const t = ((other.at.x - one.at.x) * other.along.y - (other.at.y - one.at.y) * other.along.x) / turn;
  return { x: one.at.x + one.along.x * t, y: one.at.y + one.along.y * t };
}
