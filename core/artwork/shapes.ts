import { CoreError } from '../support/core-error.js';

/** Corners one after the other, mm, y up: x0, y0, x1, y1 … A closed line repeats its first corner; the ring of a filled shape need not. */
export type Ring = Float64Array;

/** How it is told what lies inside a filled shape. */
export type FillRule = 'nonzero' | 'evenodd';

/** One thing drawn: filled with marks, filled with nothing (it covers what lies below it), or followed as a line. */
export interface ArtworkShape {
  readonly as: 'marked' | 'left bare' | 'line';
  readonly rule: FillRule;
  readonly rings: readonly Ring[];
  /** Width a line was drawn at, mm; null where the file says none. It is followed once all the same. */
  readonly drawnMm: number | null;
}

/** A rectangle, mm. */
export interface Box {
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** What a file draws at its real size, its lower left corner at 0, 0; and what was left out of it, in words. */
export interface Artwork {
  readonly shapes: readonly ArtworkShape[];
  readonly widthMm: number;
  readonly heightMm: number;
  readonly said: readonly string[];
}

/** More corners than anybody marks; a photograph traced by its dots comes near. */
export const MOST_CORNERS = 2_000_000;

/** What a person says of a file that does not say it itself. */
export interface ArtworkSaid {
  /** Unit of a DXF that names none. */
  readonly unit: 'mm' | 'in' | null;
  /** What becomes of the closed outlines of a file that fills nothing itself. */
  readonly closed: 'filled' | 'followed';
  /** Width it is brought to, mm; its own where null. */
  readonly widthMm: number | null;
}

/**
 * Shapes as an artwork: moved so that their box begins at 0, 0, and scaled to a width where one is asked for.
 * @throws artwork.no-geometry where nothing is drawn or it has no extent, artwork.not-a-number, artwork.too-large
 */
export function artworkOf(shapes: readonly ArtworkShape[], said: readonly string[], widthMm: number | null): Artwork {
  const corners = shapes.reduce((sum, { rings }) => sum + rings.reduce((n, ring) => n + ring.length / 2, 0), 0);
  if (corners > MOST_CORNERS)
    throw new CoreError('artwork.too-large', `It draws ${corners} corners; ${MOST_CORNERS} are read at most.`);
  const box = boxOf(shapes.filter(({ as }) => as !== 'left bare'));
  if (!box || Math.max(box.widthMm, box.heightMm) <= 0)
    throw new CoreError('artwork.no-geometry', ['Nothing in this file can be marked.', ...said].join(' '));
  const scale = widthMm === null ? 1 : scaleTo(box, widthMm);
  const moved = shapes.map((shape) => ({
    ...shape,
    drawnMm: shape.drawnMm === null ? null : shape.drawnMm * scale,
    rings: shape.rings.map((ring) => ring.map((at, i) => (at - (i % 2 ? box.yMm : box.xMm)) * scale)),
  }));
  return { shapes: moved, widthMm: box.widthMm * scale, heightMm: box.heightMm * scale, said };
}

function scaleTo(box: Box, widthMm: number): number {
  if (!(widthMm > 0) || !(box.widthMm > 0))
    throw new CoreError('artwork.no-size', 'It has no width of its own that could be brought to another.', {
      path: 'widthMm',
    });
  return widthMm / box.widthMm;
}

/** The box round shapes; null round none. @throws artwork.not-a-number */
export function boxOf(shapes: readonly ArtworkShape[]): Box | null {
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { rings } of shapes) {
    for (const ring of rings) {
      for (let i = 0; i < ring.length; i += 2) {
        const [x, y] = [ring[i]!, ring[i + 1]!];
        if (!Number.isFinite(x) || !Number.isFinite(y))
          throw new CoreError('artwork.not-a-number', 'A corner in this file is not at a number.');
        left = Math.min(left, x);
        right = Math.max(right, x);
        low = Math.min(low, y);
        high = Math.max(high, y);
      }
    }
  }
  return left > right ? null : { xMm: left, yMm: low, widthMm: right - left, heightMm: high - low };
}

/** Shapes turned by degrees counter-clockwise about 0, 0, then moved, mm. */
export function placed(
  shapes: readonly ArtworkShape[],
  at: { readonly xMm: number; readonly yMm: number; readonly turnDeg: number },
): ArtworkShape[] {
  const turn = (at.turnDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return shapes.map((shape) => ({
    ...shape,
    rings: shape.rings.map((ring) => {
      const out = new Float64Array(ring.length);
      for (let i = 0; i < ring.length; i += 2) {
        const [x, y] = [ring[i]!, ring[i + 1]!];
        out[i] = at.xMm + c * x - s * y;
        out[i + 1] = at.yMm + s * x + c * y;
      }
      return out;
    }),
  }));
}
