import { seededRandom, standardNormal, type ArtworkShape } from '@unto/core';
import { BLANK_PX_MM, type BlankPicture } from '../burn/burnt-blank.js';

/** A piece painted as somebody says it is: no beam, no coat, nothing of the models. */
export interface PaintedPiece {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Rectangles that are marked, mm from the lower left corner: x0, y0, x1, y1. */
  readonly marks: readonly (readonly [number, number, number, number])[];
  /** Share of light that ground and mark throw back. */
  readonly ground: number;
  readonly mark: number;
  readonly seed: number;
  /** How much of the mark is there at a place, 0 to 1; all of it where nothing is said. */
  readonly strength?: (u: number, v: number) => number;
  /** Light of the ground at a place, of its own. */
  readonly stain?: (x: number, y: number) => number;
  /** The mark lies beside its place, mm. */
  readonly off?: readonly [number, number];
}

/** Paints it, with the texture of brushed metal. */
export function paintedPiece(piece: PaintedPiece): BlankPicture {
  const [columns, rows] = [Math.round(piece.widthMm / BLANK_PX_MM), Math.round(piece.heightMm / BLANK_PX_MM)];
  const rgb = new Float32Array(3 * columns * rows);
  const random = seededRandom(piece.seed);
  const [ox, oy] = piece.off ?? [0, 0];
  let brushed = 0;
  for (let i = 0; i < columns * rows; i += 1) {
    const [x, y] = [((i % columns) + 0.5) * BLANK_PX_MM, (Math.floor(i / columns) + 0.5) * BLANK_PX_MM];
    brushed = 0.7 * brushed + 0.72 * standardNormal(random);
    const isOn = piece.marks.some(([x0, y0, x1, y1]) => x - ox >= x0 && x - ox < x1 && y - oy >= y0 && y - oy < y1);
    const share = isOn ? (piece.strength?.(x / piece.widthMm, y / piece.heightMm) ?? 1) : 0;
    const ground = (piece.stain?.(x, y) ?? 1) * piece.ground * (1 + 0.015 * brushed);
    for (let k = 0; k < 3; k += 1) rgb[3 * i + k] = ground * (1 - share) + piece.mark * share;
  }
  return { columns, rows, rgb };
}

/** The rectangles of a painted piece as what is to be marked. */
export function shapesOf({ marks }: Pick<PaintedPiece, 'marks'>): ArtworkShape[] {
  return marks.map(([x0, y0, x1, y1]) => ({
    ...{ as: 'marked', rule: 'nonzero', drawnMm: null },
    rings: [Float64Array.from([x0, y0, x1, y0, x1, y1, x0, y1])],
  }));
}
