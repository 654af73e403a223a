import { ciede2000 } from '../imaging/ciede2000.js';
import { lightness, linearToLab, luminance } from '../imaging/colour.js';
import { lightSurface } from '../imaging/flatten.js';
import { median, robustSpread } from '../statistics/index.js';
import type { LevelPicture } from '../target/level-picture.js';
import { coverAt, type Shift, type SoughtMark } from './align-mark.js';
import type { MarkMask } from './expected-mark.js';

/** Parts of a mark that are told apart: three across, three up, from its lower left. */
export const MARK_PARTS = 9;

/** The mark of one piece, read against what was to be marked. L* and ΔE₀₀; shares from 0 to 1. */
export interface MarkReading {
  /** L* of bare ground less that of the mark; strokes too thin to be seen solid are read through what the camera makes of them. */
  readonly contrast: number;
  /** Contrast of single strokes, where fills are read beside them: one stroke lays down less than rows do. Null where there are none. */
  readonly strokes: number | null;
  /** Standard deviation of its reading, L*. */
  readonly sd: number;
  readonly deltaE: number;
  readonly chroma: number;
  /** Of each part; null where too little of the mark lies there. */
  readonly parts: readonly (number | null)[];
  /** 1 less the spread of its blotches over its contrast. */
  readonly evenness: number;
  /** Share of the mark that came out more than half. */
  readonly coverage: number;
  /** How much darker the ground is close to the mark than away from it, L*. */
  readonly halo: number;
  /** Share of the bare ground away from the mark that is darker than it: something was left there. */
  readonly residue: number;
  /** Share of it that is brighter: a reflection, and nothing to be read under it. */
  readonly glare: number;
}

type Three = readonly [number, number, number];

/** The piece's rim is left out, mm. */
const RIM_MM = 0.8;
/** Standard deviation of a blur that reaches as far as a halo does, mm. */
export const HALO_SD_MM = 0.45;
/** What light that is judged beside the card leaves in a contrast, L*: measured on made-up trays. */
const LIGHT_SD = 1;
/** Blotches, not grain: blocks so wide, mm. */
const BLOCK_MM = 0.6;
/** A part is told by so many pixels of mark, a block by a share of itself; less of a pixel than this tells no mark. */
const LEAST_PART_PX = 12;
const LEAST_BLOCK = 0.35;
const LEAST_SHARE = 0.2;
/** Pixels that count as marked whole, and how many of them a piece is read by. */
const WHOLE = { share: 0.97, px: 60 } as const;
/** Ground off its own light by so much, and by so many spreads, is no longer bare. */
const STAINED = { l: 4, spreads: 5 } as const;
/** Pixels by which a median is told. */
const MOST_TOLD = 500;

/** Pixels of a piece with what of each is to be marked. */
export interface PiecePixels {
  /** Indices in the level picture. */
  readonly inside: Int32Array;
  /**
   * Share of each that is marked as the camera blurs it: by pixels that are marked whole alone where there are enough of those, as a beam
   * marks somewhat beyond its edges and a single stroke comes out paler than a fill.
   */
  readonly cover: Float32Array;
  /** The part of the mark each lies in. */
  readonly part: Uint8Array;
  /** Those that a single stroke marks in part, and how much of each; none where nothing else is read. */
  readonly strokes: Int32Array;
  readonly strokeCover: Float32Array;
  /** Those well away from any mark, and those close to one. */
  readonly bare: Int32Array;
  readonly close: Int32Array;
}

/** Lays a mask over a levelled piece, moved by a shift. */
export function overlay(
  { columns, rows, pxMm }: LevelPicture,
  { mask, sharp, soft, strokes }: SoughtMark,
  shift: Shift,
): PiecePixels {
  const rim = Math.ceil(RIM_MM / pxMm);
  const [across, up] = [Math.max(0, columns - 2 * rim), Math.max(0, rows - 2 * rim)];
  const inside = new Int32Array(across * up);
  const [x, y] = [new Float64Array(inside.length), new Float64Array(inside.length)];
  for (let k = 0; k < inside.length; k += 1) {
    const [c, r] = [rim + (k % across), rim + Math.floor(k / across)];
    inside[k] = r * columns + c;
    x[k] = (c + 0.5 - columns / 2) * pxMm;
    y[k] = (r + 0.5 - rows / 2) * pxMm;
  }
  const [cover, near] = [new Float32Array(inside.length), new Float32Array(inside.length)];
  coverAt(mask, sharp, shift, { x, y }, cover);
  coverAt(mask, soft, shift, { x, y }, near);
  const [bare, close] = [new Int32Array(inside.length), new Int32Array(inside.length)];
  let [bares, closes] = [0, 0];
  for (let k = 0; k < inside.length; k += 1) {
    if (cover[k]! >= 0.01) continue;
    if (near[k]! < 0.02) bare[bares++] = k;
    else if (near[k]! >= 0.1) close[closes++] = k;
  }
  const read = wholeAlone(cover) && strokes ? strokesIn({ mask, cover: strokes }, shift, { x, y }, cover) : NO_STROKES;
  return {
    ...{ inside, cover, ...read, part: partsOf(mask, shift, x, y) },
    ...{ bare: bare.subarray(0, bares), close: close.subarray(0, closes) },
  };
}

const NO_STROKES = { strokes: new Int32Array(0), strokeCover: new Float32Array(0) } as const;

/** Pixels that single strokes mark in part and nothing else marks, and how much of each. */
function strokesIn(
  { mask, cover: strokes }: { readonly mask: MarkMask; readonly cover: Float32Array },
  shift: Shift,
  places: { readonly x: Float64Array; readonly y: Float64Array },
  cover: Float32Array,
): Pick<PiecePixels, 'strokes' | 'strokeCover'> {
  const strokeCover = new Float32Array(cover.length);
  coverAt(mask, strokes, shift, places, strokeCover);
  const found: number[] = [];
  for (let k = 0; k < cover.length; k += 1) if (strokeCover[k]! >= LEAST_SHARE && cover[k] === 0) found.push(k);
  return { strokes: Int32Array.from(found), strokeCover };
}

/** Leaves only pixels that are marked whole where there are enough of them to read by. @returns whether there were */
function wholeAlone(cover: Float32Array): boolean {
  let whole = 0;
  for (const share of cover) if (share >= WHOLE.share) whole += 1;
  if (whole < WHOLE.px) return false;
  for (let k = 0; k < cover.length; k += 1) cover[k] = cover[k]! >= WHOLE.share ? 1 : 0;
  return true;
}

/** Which part of the mark a place of the piece lies in, the mark being moved. */
function partsOf({ box, columns, rows, pxMm }: MarkMask, { dx, dy, turn }: Shift, x: Float64Array, y: Float64Array) {
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const [mx, my] = [(columns * pxMm) / 2 - box.x0, (rows * pxMm) / 2 - box.y0];
  const [perX, perY] = [3 / (box.x1 - box.x0), 3 / (box.y1 - box.y0)];
  const out = new Uint8Array(x.length);
  for (let k = 0; k < out.length; k += 1) {
    const ox = x[k]! - dx;
    const oy = y[k]! - dy;
    const across = Math.min(2, Math.max(0, ((cos * ox + sin * oy + mx) * perX) | 0));
    const up = Math.min(2, Math.max(0, ((cos * oy - sin * ox + my) * perY) | 0));
    out[k] = 3 * up + across;
  }
  return out;
}

/** Some of them, spread over all. */
function some(indices: Int32Array, most = MOST_TOLD): Int32Array {
  const every = Math.max(1, Math.ceil(indices.length / most));
  return Int32Array.from({ length: Math.floor(indices.length / every) }, (_, n) => indices[n * every]!);
}

/** Light of a piece's own bare ground, by channel: its median. Null where hardly any of it is bare. */
export function bareLight({ rgb }: LevelPicture, { inside, bare }: PiecePixels): Three | null {
  if (bare.length < LEAST_PART_PX) return null;
  const few = some(bare);
  return [0, 1, 2].map((c) => median(Float64Array.from(few, (k) => rgb[3 * inside[k]! + c]!))) as unknown as Three;
}

/** Reads the mark of a piece whose mask was laid over it. @param ground share of light that bare ground throws back, by channel */
export function readMark(level: LevelPicture, pixels: PiecePixels, ground: Three): MarkReading {
  const flat = levelled(level, pixels, ground);
  const bareY = luminance(...ground);
  const bareL = lightness(bareY);
  const contrastOf = ({ light, weight }: MarkLight) => bareL - lightness(Math.max(0.001, luminance(...light) / weight));
  const { whole, parts } = markLight(flat, pixels, ground);
  const light = whole.light.map((value) => Math.max(0.001, value / whole.weight)) as [number, number, number];
  const contrast = contrastOf(whole);
  const blocks = blockContrasts(level, flat, pixels, bareY);
  const [bare, mark] = [linearToLab(...ground), linearToLab(...light)];
  const around = groundLightness(flat, pixels);
  const middle = median(blocks, 0);
  const spread = median(
    Float64Array.from(blocks, (value) => Math.abs(value - middle)),
    0,
  );
  return {
    ...{ contrast, deltaE: ciede2000(bare, mark), chroma: Math.hypot(mark.a, mark.b) },
    sd: Math.hypot(LIGHT_SD, (1.4826 * spread) / Math.sqrt(Math.max(1, blocks.length / 4))),
    strokes: strokeContrast(flat, pixels, ground),
    parts: parts.map((part) => (part.px >= LEAST_PART_PX ? contrastOf(part) : null)),
    evenness: Math.max(0, 1 - spread / Math.max(1, Math.abs(contrast))),
    coverage: blocks.filter((one) => one / contrast > 0.5).length / Math.max(1, blocks.length),
    halo: around.bare - around.close,
    residue: around.darker,
    glare: around.brighter,
  };
}

/** Share of light that a pixel inside throws back in a channel, the piece's own uneven light taken off by its bare ground. */
type FlatLight = (k: number, channel: number) => number;

function levelled({ rgb, columns, rows }: LevelPicture, { inside, bare }: PiecePixels, ground: Three): FlatLight {
  const few = some(bare, 140);
  const placeOf = (i: number) => ({ x: (i % columns) / columns, y: Math.floor(i / columns) / rows });
  const surface =
    few.length > 50
      ? lightSurface(
          Array.from(few, (k) => placeOf(inside[k]!)),
          Float64Array.from(few, (k) => rgb[3 * inside[k]! + 1]!),
        )
      : null;
  const own = new Float32Array(inside.length);
  const ownAt = (k: number) => own[k] || (own[k] = surface ? 1 / surface.at(placeOf(inside[k]!)) : 1);
  const told = some(bare);
  const scale = [0, 1, 2].map(
    (c) =>
      ground[c]! /
      median(
        Float64Array.from(told, (k) => rgb[3 * inside[k]! + c]! * ownAt(k)),
        1,
      ),
  );
  return (k, c) => rgb[3 * inside[k]! + c]! * ownAt(k) * scale[c]!;
}

/** Light of a mark alone by least squares over pixels of which a share is marked: `light` over `weight`. */
interface MarkLight {
  readonly light: [number, number, number];
  weight: number;
  /** How much of it was seen. */
  px: number;
}

function markLight(flat: FlatLight, { cover, part }: PiecePixels, ground: Three) {
  const none = (): MarkLight => ({ light: [0, 0, 0], weight: 0, px: 0 });
  const [whole, parts] = [none(), Array.from({ length: MARK_PARTS }, none)];
  for (let k = 0; k < cover.length; k += 1) {
    const share = cover[k]!;
    if (share < LEAST_SHARE) continue;
    const sum = parts[part[k]!]!;
    sum.weight += share * share;
    sum.px += share;
    for (let c = 0; c < 3; c += 1) sum.light[c]! += share * (flat(k, c) - ground[c]! * (1 - share));
  }
  for (const { light, weight, px } of parts) {
    whole.weight += weight;
    whole.px += px;
    for (let c = 0; c < 3; c += 1) whole.light[c]! += light[c]!;
  }
  return { whole, parts };
}

/** Contrast of single strokes by what of each pixel they mark; null of too few. */
function strokeContrast(flat: FlatLight, { strokes, strokeCover }: PiecePixels, ground: Three): number | null {
  let [y, weight, px] = [0, 0, 0];
  const bareY = luminance(...ground);
  for (const k of strokes) {
    const share = strokeCover[k]!;
    y += share * (luminance(flat(k, 0), flat(k, 1), flat(k, 2)) - bareY * (1 - share));
    weight += share * share;
    px += share;
  }
  return px < 2 * LEAST_PART_PX ? null : lightness(bareY) - lightness(Math.max(0.001, y / weight));
}

/** Contrast of every block of the piece that is marked enough to tell it. */
function blockContrasts(
  { columns, rows, pxMm }: LevelPicture,
  flat: FlatLight,
  { inside, cover }: PiecePixels,
  bareY: number,
): number[] {
  const side = Math.max(1, Math.round(BLOCK_MM / pxMm));
  const across = Math.ceil(columns / side);
  const count = across * Math.ceil(rows / side);
  const [sums, weights] = [new Float64Array(count), new Float64Array(count)];
  for (let k = 0; k < cover.length; k += 1) {
    const share = cover[k]!;
    if (share < LEAST_SHARE) continue;
    const i = inside[k]!;
    const key = Math.floor(Math.floor(i / columns) / side) * across + Math.floor((i % columns) / side);
    sums[key]! += share * (luminance(flat(k, 0), flat(k, 1), flat(k, 2)) - bareY * (1 - share));
    weights[key]! += share * share;
  }
  const bareL = lightness(bareY);
  return Array.from(weights.keys())
    .filter((key) => weights[key]! > LEAST_BLOCK * side * side)
    .map((key) => bareL - lightness(Math.max(0.001, sums[key]! / weights[key]!)));
}

/** L* of the bare ground and of that close to the mark, and the shares of the first that are off it. */
function groundLightness(flat: FlatLight, { bare, close }: PiecePixels) {
  const lOf = (k: number) => lightness(luminance(flat(k, 0), flat(k, 1), flat(k, 2)));
  const seen = Array.from(some(bare, 1500), lOf);
  const middle = median(seen, 0);
  const limit = Math.max(STAINED.l, STAINED.spreads * robustSpread(seen.map((l) => l - middle)));
  return {
    bare: middle,
    close: close.length >= LEAST_PART_PX ? median(Array.from(some(close), lOf)) : middle,
    darker: seen.filter((l) => middle - l > limit).length / Math.max(1, seen.length),
    brighter: seen.filter((l) => l - middle > limit).length / Math.max(1, seen.length),
  };
}
