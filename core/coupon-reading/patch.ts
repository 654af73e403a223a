import { linearToLab } from '../imaging/colour.js';
import { median } from '../statistics/index.js';
import type { LevelPicture } from '../target/level-picture.js';

/** What the pixels of one patch of a levelled picture tell. */

/** L* of some pixels. */
export function lightnessOf({ l }: LevelPicture, pixels: Int32Array): Float32Array {
  const values = new Float32Array(pixels.length);
  for (let k = 0; k < pixels.length; k += 1) values[k] = l[pixels[k]!]!;
  return values;
}

/** Mean light of some pixels: red, green, blue. */
export function meanColour({ rgb }: LevelPicture, pixels: Int32Array): [number, number, number] {
  let [r, g, b] = [0, 0, 0];
  for (const i of pixels) {
    r += rgb[3 * i]!;
    g += rgb[3 * i + 1]!;
    b += rgb[3 * i + 2]!;
  }
  return [r / pixels.length, g / pixels.length, b / pixels.length];
}

/** Ground of more chroma than this lends its colour to a mark that is not solid; a solid one is so even, and so little grained (L*). */
export const COLOURED = 6;
export const SOLID = { evenness: 0.96, grain: 0.3 } as const;
/** Of the pixels ordered from the fullest mark on, these tell its colour: the first may be dirt, the last let the ground show through. */
const FULLEST = { from: 0.05, to: 0.3 } as const;

/** Chroma of the mean colour of the fullest part of a mark. */
export function chromaOf({ l, rgb }: LevelPicture, pixels: Int32Array, sorted: Float32Array, dark: boolean): number {
  const at = (share: number) => sorted[Math.floor((dark ? share : 1 - share) * (sorted.length - 1))]!;
  const [low, high] = dark ? [at(FULLEST.from), at(FULLEST.to)] : [at(FULLEST.to), at(FULLEST.from)];
  let [r, g, b, count] = [0, 0, 0, 0];
  for (const i of pixels) {
    if (l[i]! < low || l[i]! > high) continue;
    r += rgb[3 * i]!;
    g += rgb[3 * i + 1]!;
    b += rgb[3 * i + 2]!;
    count += 1;
  }
  const lab = linearToLab(r / count, g / count, b / count);
  return Math.hypot(lab.a, lab.b);
}

/** Blotches, not grain: cells of a quarter millimetre are averaged before their deviation is taken. */
export function evennessOf(picture: LevelPicture, pixels: Int32Array, middle: number, contrast: number): number {
  const { columns, l } = picture;
  const block = Math.max(1, Math.round(0.25 / picture.pxMm));
  const first = pixels[0]!;
  const [c0, r0] = [first % columns, Math.floor(first / columns)];
  const across = Math.floor(((pixels.at(-1)! % columns) - c0) / block) + 1;
  const down = Math.floor((Math.floor(pixels.at(-1)! / columns) - r0) / block) + 1;
  const sums = new Float64Array(across * down);
  const counts = new Float64Array(across * down);
  for (const i of pixels) {
    const key = Math.floor((Math.floor(i / columns) - r0) / block) * across + Math.floor(((i % columns) - c0) / block);
    sums[key]! += l[i]!;
    counts[key]! += 1;
  }
  const deviations = sums.map((sum, k) => Math.abs(sum / counts[k]! - middle));
  return Math.max(0, 1 - median(deviations, 0) / Math.abs(contrast));
}
