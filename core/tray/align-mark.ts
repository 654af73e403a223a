import type { LevelPicture } from '../target/level-picture.js';
import type { MarkMask } from './expected-mark.js';

/** How a mark lies against where it is to lie: mm, degrees counter-clockwise about the middle, and how well it fits. */
export interface MarkOffset {
  readonly dxMm: number;
  readonly dyMm: number;
  readonly turnDeg: number;
  /** Correlation of what is seen with what is to be there, −1 to 1, positive for the tone asked for. */
  readonly fit: number;
}

/** A mask as it is looked for: softened, so that it is found from beside, and as the camera blurs it. */
export interface SoughtMark {
  readonly mask: MarkMask;
  readonly soft: Float32Array;
  readonly sharp: Float32Array;
  /** Its single strokes as the camera blurs them; null where it has none. */
  readonly strokes: Float32Array | null;
}

/** A mark is looked for so far about its place, mm, in such steps first; the piece's own rim is left out, mm. */
const REACH_MM = 1.8;
const COARSE_MM = 0.6;
const RIM_MM = 0.8;
/** Places of a piece that the fit is judged by, first and last. */
const PLACES = { coarse: 600, fine: 1500 } as const;
/** Steps of the refining search: mm, and degrees. */
const FINER = [
  [0.3, 0.6],
  [0.15, 0.3],
  [0.07, 0.15],
  [0.03, 0.08],
] as const;
/** A mark that is pushed further than this by the refining search is none of this piece's, mm. */
const FURTHEST_MM = 3;

/**
 * Where a mark lies on a levelled piece and which way up, by the correlation of its light with the mask.
 * @param waysDeg turns it may lie in @param sign 1 for marks darker than their ground, −1 for lighter ones
 * @returns its offset as the level picture has it, the way it lies in its turn
 */
export function alignMark(
  level: LevelPicture,
  sought: SoughtMark,
  waysDeg: readonly number[],
  sign: 1 | -1,
): MarkOffset & { readonly wayDeg: number } {
  const few = placesOf(level, PLACES.coarse);
  let way = waysDeg[0]!;
  let at: Shift = { dx: 0, dy: 0, turn: (way * Math.PI) / 180 };
  let fit = -Infinity;
  for (const wayDeg of waysDeg)
    for (let dy = -REACH_MM; dy <= REACH_MM + 1e-9; dy += COARSE_MM)
      for (let dx = -REACH_MM; dx <= REACH_MM + 1e-9; dx += COARSE_MM) {
        const shift = { dx, dy, turn: (wayDeg * Math.PI) / 180 };
        const now = sign * correlation(few, sought.mask, sought.soft, shift);
        if (now > fit) [way, at, fit] = [wayDeg, shift, now];
      }
  const fine = placesOf(level, PLACES.fine);
  for (const [mm, degrees] of FINER) {
    const cover = mm > 0.2 ? sought.soft : sought.sharp;
    [at, fit] = climb(
      at,
      [mm, (degrees * Math.PI) / 180],
      (shift) => sign * correlation(fine, sought.mask, cover, shift),
    );
  }
  return { dxMm: at.dx, dyMm: at.dy, turnDeg: (180 * at.turn) / Math.PI - way, fit, wayDeg: way };
}

/** A mark moved by so much about the middle of its piece: mm, radians. */
export interface Shift {
  readonly dx: number;
  readonly dy: number;
  readonly turn: number;
}

/** From a shift to the best beside it, step by step. */
function climb(from: Shift, [mm, by]: readonly [number, number], score: (shift: Shift) => number): [Shift, number] {
  let [best, fit] = [from, score(from)];
  for (let moved = true; moved;) {
    moved = false;
    for (const [dx, dy, turn] of BESIDE) {
      const next = { dx: best.dx + mm * dx, dy: best.dy + mm * dy, turn: best.turn + by * turn };
      if (Math.hypot(next.dx, next.dy) > FURTHEST_MM) continue;
      const now = score(next);
      if (now > fit) [best, fit, moved] = [next, now, true];
    }
  }
  return [best, fit];
}

const BESIDE = [
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
] as const;

/** Places of a piece, mm from its middle, and how dark each is. */
interface Places {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly dark: Float64Array;
  /** Room for what of a mask is marked there. */
  readonly cover: Float32Array;
}

function placesOf({ columns, rows, pxMm, burnt, l }: LevelPicture, most: number): Places {
  const rim = Math.ceil(RIM_MM / pxMm);
  const every = Math.max(1, Math.round(Math.sqrt((columns * rows) / most)));
  const room = Math.ceil((columns / every + 1) * (rows / every + 1));
  const [x, y, dark] = [new Float64Array(room), new Float64Array(room), new Float64Array(room)];
  let n = 0;
  for (let r = rim, line = 0; r < rows - rim; r += every, line += 1)
    for (let c = rim + (line % 2 ? every >> 1 : 0); c < columns - rim; c += every) {
      const i = r * columns + c;
      if (burnt[i]) continue;
      x[n] = (c + 0.5 - columns / 2) * pxMm;
      y[n] = (r + 0.5 - rows / 2) * pxMm;
      dark[n] = -l[i]!;
      n += 1;
    }
  return { x: x.subarray(0, n), y: y.subarray(0, n), dark: dark.subarray(0, n), cover: new Float32Array(n) };
}

/** Correlation of darkness with the mask moved by a shift. */
function correlation({ x, y, dark, cover: values }: Places, mask: MarkMask, cover: Float32Array, shift: Shift): number {
  const n = x.length;
  coverAt(mask, cover, shift, { x, y }, values);
  let [sc, sl, scc, sll, scl] = [0, 0, 0, 0, 0];
  for (let k = 0; k < n; k += 1) {
    const [c, d] = [values[k]!, dark[k]!];
    sc += c;
    sl += d;
    scc += c * c;
    sll += d * d;
    scl += c * d;
  }
  const [vc, vl] = [scc - (sc * sc) / n, sll - (sl * sl) / n];
  return vc > 0 && vl > 0 ? (scl - (sc * sl) / n) / Math.sqrt(vc * vl) : 0;
}

/** Tells in `out` what of a mask moved by a shift is marked at places of the piece (mm from its middle); nothing beside it. */
export function coverAt(
  { columns, rows, pxMm }: MarkMask,
  cover: Float32Array,
  { dx, dy, turn }: Shift,
  { x, y }: { readonly x: Float64Array; readonly y: Float64Array },
  out: Float32Array,
): void {
  const [cos, sin] = [Math.cos(turn) / pxMm, Math.sin(turn) / pxMm];
  const [mx, my] = [columns / 2 - 0.5, rows / 2 - 0.5];
  const [lastC, lastR] = [columns - 1, rows - 1];
  for (let k = 0; k < out.length; k += 1) {
    const ox = x[k]! - dx;
    const oy = y[k]! - dy;
    const px = cos * ox + sin * oy + mx;
    const py = cos * oy - sin * ox + my;
    if (px < 0 || py < 0 || px >= lastC || py >= lastR) {
      out[k] = 0;
      continue;
    }
    const c = px | 0;
    const r = py | 0;
    const fx = px - c;
    const i = r * columns + c;
    const low = cover[i]! + (cover[i + 1]! - cover[i]!) * fx;
    const high = cover[i + columns]! + (cover[i + columns + 1]! - cover[i + columns]!) * fx;
    out[k] = low + (high - low) * (py - r);
  }
}
