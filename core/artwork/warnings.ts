import type { ArtworkMeasure } from './measure.js';

/** What an artwork is marked with, as far as it decides what can be told apart, mm. */
export interface MarkGrain {
  readonly spotMm: number;
  readonly intervalMm: number | null;
  /** Depth that lies in focus and room there is, where known. */
  readonly pieceWidthMm: number | null;
  readonly pieceHeightMm: number | null;
}

/** Letters read from seven dots up: the height of a 5 × 7 letter. */
const DOTS_A_LETTER = 7;
/** Lines a stroke needs beside each other to look even. */
const LINES_A_STROKE = 2;

export const ARTWORK_WARNINGS = [
  'stroke thinner than the spot',
  'stroke thinner than two lines',
  'gap closes',
  'open outline filled',
  'larger than the piece',
] as const;
export interface ArtworkWarning {
  readonly kind: (typeof ARTWORK_WARNINGS)[number];
  readonly words: string;
  /** Where on the artwork; null for all of it. */
  readonly at: { readonly xMm: number; readonly yMm: number } | null;
}

/** Smallest height of a letter that reads with a spot and interval, mm: seven dots, each as large as the coarser of the two. */
export function legibleHeight({ spotMm, intervalMm }: Pick<MarkGrain, 'spotMm' | 'intervalMm'>): number {
  return DOTS_A_LETTER * Math.max(spotMm, intervalMm ?? 0);
}

/** What of an artwork will not come out as drawn. Common practice, no source. */
export function artworkWarnings(measure: ArtworkMeasure, grain: MarkGrain): ArtworkWarning[] {
  const said: ArtworkWarning[] = [];
  const { smallestStroke: stroke, smallestGap: gap } = measure;
  const { spotMm, intervalMm } = grain;
  if (stroke && stroke.mm < spotMm)
    said.push({
      kind: 'stroke thinner than the spot',
      words: `A stroke is ${fine(stroke.mm)} mm wide and the spot ${fine(spotMm)} mm: it comes out as wide as the spot.`,
      at: stroke,
    });
  else if (stroke && intervalMm !== null && stroke.mm < LINES_A_STROKE * intervalMm)
    said.push({
      kind: 'stroke thinner than two lines',
      words: `A stroke is ${fine(stroke.mm)} mm wide, less than two lines ${fine(intervalMm)} mm apart: it may break up.`,
      at: stroke,
    });
  if (gap && gap.mm < spotMm)
    said.push({
      kind: 'gap closes',
      words: `A gap of ${fine(gap.mm)} mm is narrower than the spot of ${fine(spotMm)} mm: it fills up.`,
      at: gap,
    });
  if (measure.openFills > 0)
    said.push({
      kind: 'open outline filled',
      words: `${measure.openFills === 1 ? 'One filled outline is' : `${measure.openFills} filled outlines are`} not closed: filled as if a straight line closed ${measure.openFills === 1 ? 'it' : 'them'}.`,
      at: null,
    });
  const { pieceWidthMm: w, pieceHeightMm: h } = grain;
  if ((w !== null && measure.widthMm > w) || (h !== null && measure.heightMm > h))
    said.push({
      kind: 'larger than the piece',
      words: `It is ${fine(measure.widthMm)} × ${fine(measure.heightMm)} mm; the blank is ${w === null ? '?' : fine(w)} × ${h === null ? '?' : fine(h)} mm.`,
      at: null,
    });
  return said;
}

function fine(mm: number): string {
  return String(Number(mm.toFixed(mm < 1 ? 3 : 1)));
}
