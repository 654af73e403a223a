import type { LevelPicture } from '../target/level-picture.js';

/** A rectangle of a coupon, mm. */
export interface Box {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** Indices of the pixels whose middles lie in a box. */
export function pixelsIn({ columns, rows, pxMm }: LevelPicture, { x0, y0, x1, y1 }: Box): Int32Array {
  const c0 = Math.max(0, Math.ceil(x0 / pxMm - 0.5));
  const c1 = Math.min(columns - 1, Math.floor(x1 / pxMm - 0.5));
  const r0 = Math.max(0, Math.ceil(y0 / pxMm - 0.5));
  const r1 = Math.min(rows - 1, Math.floor(y1 / pxMm - 0.5));
  const found = new Int32Array(Math.max(0, c1 - c0 + 1) * Math.max(0, r1 - r0 + 1));
  let next = 0;
  for (let r = r0; r <= r1; r += 1) {
    for (let c = c0; c <= c1; c += 1) {
      found[next] = r * columns + c;
      next += 1;
    }
  }
  return found;
}

/** One channel (0 red, 1 green, 2 blue) of some pixels. */
export function channelIn({ rgb }: LevelPicture, pixels: Int32Array, channel: number): Float32Array {
  const values = new Float32Array(pixels.length);
  for (let k = 0; k < pixels.length; k += 1) values[k] = rgb[3 * pixels[k]! + channel]!;
  return values;
}

/** Spread of neighbours’ differences: what changes from pixel to pixel, L*. */
export function highPass({ l, columns, rows, pxMm }: LevelPicture, { x0, y0, x1, y1 }: Box): number {
  const [c0, c1] = [Math.max(1, Math.ceil(x0 / pxMm)), Math.min(columns - 2, Math.floor(x1 / pxMm) - 1)];
  const [r0, r1] = [Math.max(1, Math.ceil(y0 / pxMm)), Math.min(rows - 2, Math.floor(y1 / pxMm) - 1)];
  let [sum, count] = [0, 0];
  for (let r = r0; r <= r1; r += 1) {
    for (let c = c0; c <= c1; c += 1) {
      const i = r * columns + c;
      const off = l[i]! - 0.25 * (l[i - 1]! + l[i + 1]! + l[i - columns]! + l[i + columns]!);
      sum += off * off;
      count += 1;
    }
  }
  return count ? Math.sqrt(sum / count / 1.25) : 0;
}

/** Spread of second differences along the columns of a narrow box, L*; null where it is too small. */
export function columnTexture({ l, columns, rows, pxMm }: LevelPicture, { x0, y0, x1, y1 }: Box): number | null {
  const [c0, c1] = [Math.round(x0 / pxMm), Math.max(Math.round(x0 / pxMm), Math.round(x1 / pxMm) - 1)];
  const [r0, r1] = [Math.max(1, Math.ceil(y0 / pxMm)), Math.min(rows - 2, Math.floor(y1 / pxMm))];
  if (c0 < 0 || c1 >= columns || r1 - r0 < 6) return null;
  let [sum, count] = [0, 0];
  for (let c = c0; c <= c1; c += 1) {
    for (let r = r0; r <= r1; r += 1) {
      const i = r * columns + c;
      const off = l[i]! - 0.5 * (l[i - columns]! + l[i + columns]!);
      sum += off * off;
      count += 1;
    }
  }
  return Math.sqrt(sum / count / 1.5);
}
