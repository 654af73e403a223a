import { LABEL_CAP_HEIGHT, LABEL_CAP_TOP, LABEL_FONT } from './label-font.js';

/** A point in mm, y upwards. */
export type Point = readonly [x: number, y: number];

const SPACE_HALF_WIDTH = 8;

/** Width in mm of a text at a cap height in mm. */
export function textWidth(text: string, heightMm: number): number {
  const scale = heightMm / LABEL_CAP_HEIGHT;
  return [...text].reduce((sum, letter) => sum + 2 * halfWidth(letter) * scale, 0);
}

/**
 * Strokes (polylines, mm) of a text whose first letter's lower left corner is at x, y. Letters outside ASCII 32-126 become “?”.
 */
export function labelStrokes(label: { text: string; xMm: number; yMm: number; heightMm: number }): Point[][] {
  const scale = label.heightMm / LABEL_CAP_HEIGHT;
  const strokes: Point[][] = [];
  let x = label.xMm;
  for (const letter of label.text) {
    for (const stroke of glyphStrokes(letter)) {
      strokes.push(
        stroke.map(([px, py]): Point => [x + px * scale, label.yMm + (LABEL_CAP_TOP + LABEL_CAP_HEIGHT - py) * scale]),
      );
    }
    x += 2 * halfWidth(letter) * scale;
  }
  return strokes;
}

function glyph(letter: string): readonly [path: string, halfWidth: number] | null {
  if (letter === ' ') return null;
  return LABEL_FONT[(letter.codePointAt(0) ?? 63) - 33] ?? LABEL_FONT['?'.charCodeAt(0) - 33]!;
}

function halfWidth(letter: string): number {
  return glyph(letter)?.[1] ?? SPACE_HALF_WIDTH;
}

/** Path data “M5,1 L5,15 5,20” as polylines. */
function glyphStrokes(letter: string): Point[][] {
  const path = glyph(letter)?.[0] ?? '';
  return path
    .split('M')
    .filter((part) => part.trim() !== '')
    .map((part) =>
      part
        .replaceAll('L', ' ')
        .trim()
        .split(/\s+/)
        .map((pair): Point => {
          const [px, py] = pair.split(',').map(Number);
          return [px!, py!];
        }),
    );
}
