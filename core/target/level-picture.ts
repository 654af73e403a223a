import { lightness, luminance, srgbToLinear } from '../imaging/colour.js';
import type { Homography } from '../imaging/homography.js';
import type { Pixels } from '../imaging/picture.js';
import { BURNT_OUT, lightAt, TONE_STEPS, TONE_TOP, type CardLight } from './card-light.js';
import type { CardBox } from './card.js';
import type { CardPrint } from './card-print.js';
import type { CardPose } from './find-card.js';

/** A picture whose card was found: any place of the card can be asked for what it throws back. */
export interface ReadablePicture {
  readonly pixels: Pixels;
  readonly pose: CardPose;
  readonly light: CardLight;
  /** What its card throws back, by which the light was read. */
  readonly print: CardPrint;
}

/** A rectangle seen straight from above at true scale, light and colour levelled; row by row from its lower left corner. */
export interface LevelPicture {
  readonly columns: number;
  readonly rows: number;
  readonly pxMm: number;
  /** CIE L*. */
  readonly l: Float32Array;
  /** Share of light thrown back: red, green, blue in turn. */
  readonly rgb: Float32Array;
  /** 1 where the camera's picture is burnt out. */
  readonly burnt: Uint8Array;
}

const LIGHTNESS = Float32Array.from({ length: TONE_STEPS }, (_, i) => lightness((i / (TONE_STEPS - 1)) * TONE_TOP));

/** L* of a share of light, by table. */
function lightnessOf(y: number): number {
  const i = ((y * (TONE_STEPS - 1)) / TONE_TOP + 0.5) | 0;
  return LIGHTNESS[i < 0 ? 0 : i >= TONE_STEPS ? TONE_STEPS - 1 : i]!;
}

/** Light changes slowly: between places so many pixels apart it is taken as straight. */
const LIGHT_STEP = 16;

/**
 * A rectangle of something that lies on the card, levelled. `toCard` maps its mm (from the lower left corner) to the card's.
 * `samples` each way are averaged in a pixel: more than one where pixels are coarser than the picture's.
 */
export function levelPicture(
  { pixels, pose, light }: ReadablePicture,
  toCard: Homography,
  box: CardBox & { readonly pxMm: number },
  samples = 1,
): LevelPicture {
  const { pxMm } = box;
  const out = emptyLevel(
    Math.max(1, Math.round(box.widthMm / pxMm)),
    Math.max(1, Math.round(box.heightMm / pxMm)),
    pxMm,
  );
  const { columns, rows, l, rgb, burnt } = out;
  const { data, width } = pixels;
  const [toneR, toneG, toneB] = light.tone;
  const share = 1 / (samples * samples);
  const [levelR, levelG, levelB] = light.paper.map((paper) => (TONE_STEPS - 1) / TONE_TOP / paper) as Three;
  const brightness = new Float64Array(columns);
  const places = new Float64Array(2 * columns * samples);
  const along = placesAlong(pixels, pose, product(pose.homography, toCard));
  for (let row = 0; row < rows; row += 1) {
    lightAlong(brightness, pose, light, toCard, { xMm: box.xMm, yMm: box.yMm + (row + 0.5) * pxMm, pxMm });
    const first = row * columns;
    for (let line = 0; line < samples; line += 1) {
      along(places, box.xMm, box.yMm + (row + (line + 0.5) / samples) * pxMm, pxMm / samples);
      let next = 0;
      for (let column = 0; column < columns; column += 1) {
        const at = first + column;
        const lit = 1 / brightness[column]!;
        let r = 0;
        let g = 0;
        let b = 0;
        for (let s = 0; s < samples; s += 1) {
          const px = places[next]!;
          const py = places[next + 1]!;
          next += 2;
          const x0 = px | 0;
          const y0 = py | 0;
          const fx = px - x0;
          const fy = py - y0;
          const k = 4 * (y0 * width + x0);
          const below = k + 4 * width;
          const wd = fx * fy;
          const wb = fx - wd;
          const wc = fy - wd;
          const wa = 1 - fx - wc;
          const red = data[k]! * wa + data[k + 4]! * wb + data[below]! * wc + data[below + 4]! * wd;
          const green = data[k + 1]! * wa + data[k + 5]! * wb + data[below + 1]! * wc + data[below + 5]! * wd;
          const blue = data[k + 2]! * wa + data[k + 6]! * wb + data[below + 2]! * wc + data[below + 6]! * wd;
          if (red >= BURNT_OUT || green >= BURNT_OUT || blue >= BURNT_OUT) burnt[at] = 1;
          r += toned(toneR, linear(red) * lit * levelR);
          g += toned(toneG, linear(green) * lit * levelG);
          b += toned(toneB, linear(blue) * lit * levelB);
        }
        rgb[3 * at]! += r * share;
        rgb[3 * at + 1]! += g * share;
        rgb[3 * at + 2]! += b * share;
      }
    }
    for (let at = first; at < first + columns; at += 1)
      l[at] = lightnessOf(luminance(rgb[3 * at]!, rgb[3 * at + 1]!, rgb[3 * at + 2]!));
  }
  return out;
}

/** What pixels hold at a place, mm, by bilinear interpolation; the edge of the picture goes on beyond it. */
export function between(
  { columns, rows, pxMm }: Pick<LevelPicture, 'columns' | 'rows' | 'pxMm'>,
  x: number,
  y: number,
  of: (pixel: number) => number,
): number {
  const px = Math.min(columns - 1.001, Math.max(0, x / pxMm - 0.5));
  const py = Math.min(rows - 1.001, Math.max(0, y / pxMm - 0.5));
  const [c, r] = [Math.floor(px), Math.floor(py)];
  const [fx, fy] = [px - c, py - r];
  const i = r * columns + c;
  return (of(i) * (1 - fx) + of(i + 1) * fx) * (1 - fy) + (of(i + columns) * (1 - fx) + of(i + columns + 1) * fx) * fy;
}

type Three = [number, number, number];

/** Between places so many samples apart the picture's own geometry is taken as straight: it bends by less than a hundredth of a pixel. */
const PLACE_STEP = 16;

/** Maps mm straight from above to the picture, line by line: places (x, y in turn) of samples along a line from `xMm` on, every `stepMm`, kept within the picture. */
export function placesAlong(
  { width, height }: Pixels,
  { k1, halfDiagonalPx, middle }: CardPose,
  [m0, m1, m2, m3, m4, m5, m6, m7, m8]: Nine,
): (out: Float64Array, xMm: number, yMm: number, stepMm: number) => void {
  const bend = k1 / halfDiagonalPx ** 2;
  const [mostX, mostY] = [width - 1.001, height - 1.001];
  const at = (x: number, y: number): [number, number] => {
    const w = 1 / (m6 * x + m7 * y + m8);
    const dx = (m0 * x + m1 * y + m2) * w - middle.x;
    const dy = (m3 * x + m4 * y + m5) * w - middle.y;
    const stretch = 1 + bend * (dx * dx + dy * dy);
    return [middle.x + dx * stretch, middle.y + dy * stretch];
  };
  return (out, xMm, yMm, stepMm) => {
    const count = out.length / 2;
    let [x, y] = at(xMm + 0.5 * stepMm, yMm);
    for (let start = 0; start < count; start += PLACE_STEP) {
      const [toX, toY] = at(xMm + (start + PLACE_STEP + 0.5) * stepMm, yMm);
      const [dx, dy] = [(toX - x) / PLACE_STEP, (toY - y) / PLACE_STEP];
      const end = Math.min(count, start + PLACE_STEP);
      for (let i = start; i < end; i += 1) {
        const px = x + dx * (i - start);
        const py = y + dy * (i - start);
        out[2 * i] = px < 0 ? 0 : px > mostX ? mostX : px;
        out[2 * i + 1] = py < 0 ? 0 : py > mostY ? mostY : py;
      }
      [x, y] = [toX, toY];
    }
  };
}

function emptyLevel(columns: number, rows: number, pxMm: number): LevelPicture {
  const count = columns * rows;
  const [l, rgb, burnt] = [new Float32Array(count), new Float32Array(3 * count), new Uint8Array(count)];
  return { columns, rows, pxMm, l, rgb, burnt };
}

/** Light along a row of pixels, exact at every so many and straight between. */
function lightAlong(
  out: Float64Array,
  pose: CardPose,
  { fall }: CardLight,
  t: Homography,
  { xMm, yMm, pxMm }: { xMm: number; yMm: number; pxMm: number },
): void {
  const at = (column: number) => {
    const x = xMm + (column + 0.5) * pxMm;
    const w = 1 / (t[6]! * x + t[7]! * yMm + t[8]!);
    return lightAt(fall, pose, {
      x: (t[0]! * x + t[1]! * yMm + t[2]!) * w,
      y: (t[3]! * x + t[4]! * yMm + t[5]!) * w,
    });
  };
  let from = at(0);
  for (let start = 0; start < out.length; start += LIGHT_STEP) {
    const to = at(start + LIGHT_STEP);
    for (let i = 0; i < LIGHT_STEP && start + i < out.length; i += 1)
      out[start + i] = from + ((to - from) * i) / LIGHT_STEP;
    from = to;
  }
}

/** A homography of nine numbers. */
export type Nine = [number, number, number, number, number, number, number, number, number];

/** One map after another: first `b`, then `a`. */
export function product(a: Homography, b: Homography): Nine {
  return Array.from({ length: 9 }, (_, i) => {
    const [r, c] = [3 * Math.floor(i / 3), i % 3];
    return a[r]! * b[c]! + a[r + 1]! * b[c + 3]! + a[r + 2]! * b[c + 6]!;
  }) as Nine;
}

/** The tone tables take light over the paper’s at that place. */
function toned(table: Float32Array, index: number): number {
  return table[index >= TONE_STEPS ? TONE_STEPS - 1 : index | 0]!;
}

/** Steps of the table between two bytes. */
const FINE = 32;
const LINEAR = Float32Array.from({ length: 255 * FINE + 2 }, (_, i) => srgbToLinear(Math.min(1, i / FINE / 255)));

/** Linear light of a byte and a fraction, by table. */
function linear(byte: number): number {
  return LINEAR[(byte * FINE + 0.5) | 0]!;
}

/** The card's own mm as they are. */
export const ON_CARD: Homography = [1, 0, 0, 0, 1, 0, 0, 0, 1];
