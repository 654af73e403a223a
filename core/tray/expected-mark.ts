import { spansOf } from '../artwork/spans.js';
import type { ArtworkShape } from '../artwork/shapes.js';
import { CoreError } from '../support/core-error.js';

/** What is to be marked on a piece, pixel by pixel from its lower left corner: the share of each that is marked. */
export interface MarkMask {
  readonly columns: number;
  readonly rows: number;
  readonly pxMm: number;
  readonly cover: Float32Array;
  /** Of that what single strokes mark; null where none are followed. */
  readonly strokes: Float32Array | null;
  /** Box of what is marked, mm from the lower left corner. */
  readonly box: { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number };
}

/** Lines that a pixel's row is scanned by. */
const LINES = 4;

/**
 * The mark of a piece as it is to come out.
 * @param lineMm how wide a stroke that is followed comes out: the beam's spot
 * @throws artwork.no-geometry where nothing of it lies on the piece
 */
export function markMask(
  shapes: readonly ArtworkShape[],
  { widthMm, heightMm, pxMm, lineMm }: { widthMm: number; heightMm: number; pxMm: number; lineMm: number },
): MarkMask {
  const [columns, rows] = [Math.max(1, Math.round(widthMm / pxMm)), Math.max(1, Math.round(heightMm / pxMm))];
  const cover = new Float32Array(columns * rows);
  fillIn(cover, columns, rows, pxMm, shapes);
  const lines = shapes.filter(({ as }) => as === 'line').flatMap(({ rings }) => rings);
  const strokes = lines.length ? new Float32Array(columns * rows) : null;
  if (strokes) {
    for (const ring of lines) strokeIn(strokes, columns, rows, { ring, pxMm, lineMm });
    // What is filled too is marked whole.
    for (let i = 0; i < cover.length; i += 1)
      if (cover[i]! > strokes[i]!) strokes[i] = 0;
      else cover[i] = strokes[i]!;
  }
  const box = boxOfCover(cover, columns, pxMm);
  if (!box) throw new CoreError('artwork.no-geometry', 'Nothing of what is laid out lies on the piece.');
  return { columns, rows, pxMm, cover, strokes, box };
}

function fillIn(cover: Float32Array, columns: number, rows: number, pxMm: number, shapes: readonly ArtworkShape[]) {
  const spacingMm = pxMm / LINES;
  const spans = spansOf(shapes, { spacingMm, angleDeg: 0 });
  for (let line = 0; line < spans.rows; line += 1) {
    const row = Math.floor((spans.firstMm + line * spacingMm) / pxMm);
    if (row < 0 || row >= rows) continue;
    for (let k = spans.start[line]!; k < spans.start[line + 1]!; k += 1) {
      const [from, to] = [Math.max(0, spans.from[k]! / pxMm), Math.min(columns, spans.to[k]! / pxMm)];
      for (let c = Math.floor(from); c < to; c += 1)
        cover[row * columns + c]! += (Math.min(to, c + 1) - Math.max(from, c)) / LINES;
    }
  }
  for (let i = 0; i < cover.length; i += 1) cover[i] = Math.min(1, cover[i]!);
}

/** A stroke: pixels nearer to its middle than half its width are marked, those about that in part. */
function strokeIn(
  cover: Float32Array,
  columns: number,
  rows: number,
  { ring, pxMm, lineMm }: { ring: Float64Array; pxMm: number; lineMm: number },
): void {
  const half = lineMm / 2 / pxMm;
  for (let k = 0; k + 3 < ring.length; k += 2) {
    const [x0, y0, x1, y1] = [ring[k]! / pxMm, ring[k + 1]! / pxMm, ring[k + 2]! / pxMm, ring[k + 3]! / pxMm];
    const reach = half + 1;
    const [c0, c1] = [
      Math.max(0, Math.floor(Math.min(x0, x1) - reach)),
      Math.min(columns - 1, Math.max(x0, x1) + reach),
    ];
    const [r0, r1] = [Math.max(0, Math.floor(Math.min(y0, y1) - reach)), Math.min(rows - 1, Math.max(y0, y1) + reach)];
    const length2 = (x1 - x0) ** 2 + (y1 - y0) ** 2;
    for (let r = r0; r <= r1; r += 1)
      for (let c = c0; c <= c1; c += 1) {
        const [px, py] = [c + 0.5 - x0, r + 0.5 - y0];
        const t = length2 ? Math.min(1, Math.max(0, (px * (x1 - x0) + py * (y1 - y0)) / length2)) : 0;
        const away = Math.hypot(px - t * (x1 - x0), py - t * (y1 - y0));
        // A line thinner than a pixel marks as much of it as it is wide.
        const share = Math.min(1, 2 * half, Math.max(0, half + 0.5 - away));
        const i = r * columns + c;
        if (share > cover[i]!) cover[i] = share;
      }
  }
}

function boxOfCover(cover: Float32Array, columns: number, pxMm: number): MarkMask['box'] | null {
  let [c0, c1, r0, r1] = [Infinity, -1, Infinity, -1];
  for (let i = 0; i < cover.length; i += 1) {
    if (cover[i]! < 0.3) continue;
    const [c, r] = [i % columns, Math.floor(i / columns)];
    c0 = Math.min(c0, c);
    c1 = Math.max(c1, c);
    r0 = Math.min(r0, r);
    r1 = Math.max(r1, r);
  }
  return c1 < 0 ? null : { x0: c0 * pxMm, y0: r0 * pxMm, x1: (c1 + 1) * pxMm, y1: (r1 + 1) * pxMm };
}

/** Passes of a running mean that come near a Gaussian. Source: Wells 1986. */
const PASSES = 3;

/** A mask blurred as by a Gaussian of a standard deviation, mm: as a camera or a soft edge blurs it. */
export function blurredMask(
  { columns, rows, cover, pxMm }: Pick<MarkMask, 'columns' | 'rows' | 'cover' | 'pxMm'>,
  sdMm: number,
): Float32Array {
  const variance = (12 * (sdMm / pxMm) ** 2) / PASSES;
  let out = cover;
  for (let pass = 0; pass < PASSES; pass += 1) {
    out = meanAlong(out, { lines: rows, count: columns, line: columns, step: 1 }, variance);
    out = meanAlong(out, { lines: columns, count: rows, line: 1, step: columns }, variance);
  }
  return out;
}

interface Lines {
  readonly lines: number;
  readonly count: number;
  readonly line: number;
  readonly step: number;
}

/** Running mean along every line, as wide as it takes for a variance (px² × 12); its ends count in part, nothing lies beyond a line. */
function meanAlong(from: Float32Array, { lines, count, line, step }: Lines, variance: number): Float32Array {
  const to = new Float32Array(from.length);
  const width = Math.sqrt(1 + variance);
  const reach = Math.floor((width - 1) / 2);
  const rest = (width - 1) / 2 - reach;
  // A line with nothing about it, so that every running mean is of as many.
  const pad = reach + 1;
  const padded = new Float64Array(count + 2 * pad);
  for (let l = 0; l < lines; l += 1) {
    for (let i = 0, at = l * line; i < count; i += 1, at += step) padded[i + pad] = from[at]!;
    let sum = 0;
    for (let i = 1; i <= 2 * reach + 1; i += 1) sum += padded[i]!;
    for (let i = 0, at = l * line; i < count; i += 1, at += step) {
      const before = padded[i]!;
      const after = padded[i + 2 * pad]!;
      to[at] = (sum + rest * (before + after)) / width;
      sum += after - padded[i + 1]!;
    }
  }
  return to;
}
