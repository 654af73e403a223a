import type { CouponLayout } from '../coupon/layout.js';
import { labelStrokes, textWidth, type Point } from '../lettering/label-strokes.js';
import type { LevelPicture } from '../target/level-picture.js';

/** The code burnt on a coupon as a picture shows it; “?” for a letter that cannot be told. */
export interface ReadCode {
  readonly text: string;
  /** False where every letter can be told and one is another than designed: it is another coupon. */
  readonly agrees: boolean;
}

const DIGITS = [...'0123456789'];
const LETTERS = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
/** Correlation of a letter with its picture: below this it cannot be told, and another letter must be better by this. */
const TOLD = { least: 0.45, better: 0.12, more: 0.6 } as const;
/** Half width of a burnt stroke as a camera sees it, mm. */
const STROKE_MM = 0.22;

/**
 * Reads the burnt code by holding the strokes of each digit (or letter) against the picture where it must stand, and looks whether a
 * digit more stands behind it: a longer code is another coupon's.
 */
export function readCode(picture: LevelPicture, { design, labels }: CouponLayout): ReadCode {
  const label = labels.find(({ text }) => text === design.code);
  if (!label) return { text: '', agrees: true };
  let x = label.xMm;
  let agrees = true;
  const read = [...label.text].map((letter) => {
    const place = { ...label, xMm: x };
    x += textWidth(letter, label.heightMm);
    const alike = [DIGITS, LETTERS].find((some) => some.includes(letter));
    if (!alike) return letter;
    const scores = alike.map((digit) => ({ digit, score: likeness(picture, { ...place, text: digit }) }));
    const best = scores.reduce((a, b) => (b.score > a.score ? b : a));
    const own = scores.find(({ digit }) => digit === letter)!;
    if (best.score < TOLD.least) return '?';
    if (best.score - own.score < TOLD.better) return letter;
    agrees = false;
    return best.digit;
  });
  const more = digitAt(picture, { ...label, xMm: x });
  if (more) agrees = false;
  // A code that can only be told in part accuses nobody; it is asked for.
  return { text: read.join('') + more, agrees: agrees || read.includes('?') };
}

/** The digit that stands at a place where none was designed; empty for none. */
function digitAt(picture: LevelPicture, place: { xMm: number; yMm: number; heightMm: number }): string {
  const scores = DIGITS.map((digit) => ({ digit, score: likeness(picture, { ...place, text: digit }) }));
  const best = scores.reduce((a, b) => (b.score > a.score ? b : a));
  return best.score >= TOLD.more ? best.digit : '';
}

/** Correlation of a letter's strokes with the darkness (or lightness) of the picture over its box; the ground's sign does not matter. */
function likeness(
  { l, columns, rows, pxMm }: LevelPicture,
  label: { text: string; xMm: number; yMm: number; heightMm: number },
): number {
  const strokes = labelStrokes(label);
  const margin = 0.25 * label.heightMm;
  // Every digit is held against the same box, so that narrow ones are not favoured.
  const width = textWidth('0', label.heightMm);
  const [c0, c1] = [Math.floor((label.xMm - 0.1) / pxMm), Math.ceil((label.xMm + width + 0.1) / pxMm)];
  const [r0, r1] = [Math.floor((label.yMm - margin) / pxMm), Math.ceil((label.yMm + label.heightMm + margin) / pxMm)];
  let [n, sx, sy, sxx, syy, sxy] = [0, 0, 0, 0, 0, 0];
  for (let r = Math.max(0, r0); r <= Math.min(rows - 1, r1); r += 1) {
    for (let c = Math.max(0, c0); c <= Math.min(columns - 1, c1); c += 1) {
      const away = distanceTo(strokes, (c + 0.5) * pxMm, (r + 0.5) * pxMm);
      const ink = Math.exp(-((away / STROKE_MM) ** 2));
      const value = l[r * columns + c]!;
      n += 1;
      sx += ink;
      sy += value;
      sxx += ink * ink;
      syy += value * value;
      sxy += ink * value;
    }
  }
  const spread = Math.sqrt((n * sxx - sx * sx) * (n * syy - sy * sy));
  return spread > 0 ? Math.abs((n * sxy - sx * sy) / spread) : 0;
}

function distanceTo(strokes: readonly (readonly Point[])[], x: number, y: number): number {
  let least = Infinity;
  for (const stroke of strokes) {
    for (let i = 1; i < stroke.length; i += 1) {
      const [x0, y0] = stroke[i - 1]!;
      const [dx, dy] = [stroke[i]![0] - x0, stroke[i]![1] - y0];
      const length2 = dx * dx + dy * dy;
      const t = length2 > 0 ? Math.min(1, Math.max(0, ((x - x0) * dx + (y - y0) * dy) / length2)) : 0;
      least = Math.min(least, (x - x0 - t * dx) ** 2 + (y - y0 - t * dy) ** 2);
    }
  }
  return Math.sqrt(least);
}
