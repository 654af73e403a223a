import { artworkOf, type Artwork, type ArtworkShape } from './shapes.js';
import { CoreError } from '../support/core-error.js';

/** A picture as it is marked: one byte a dot, 0 for none, from the top row down. */
export interface MarkedDots {
  readonly width: number;
  readonly height: number;
  readonly dots: Uint8Array;
}

/**
 * A picture as artwork: every run of dots one row high becomes a box, runs that repeat below become one.
 * @param dotMm side of a dot @throws artwork.no-size without one, artwork.no-geometry, artwork.too-large
 */
export function imageArtwork({ width, height, dots }: MarkedDots, dotMm: number | null): Artwork {
  if (dotMm === null || !(dotMm > 0))
    throw new CoreError('artwork.no-size', 'This picture does not say how large it is: type its width.', {
      path: 'widthMm',
    });
  const boxes: number[][] = [];
  let open = new Map<string, number[]>();
  for (let row = 0; row < height; row += 1) {
    const now = new Map<string, number[]>();
    for (const [from, to] of runsIn(dots, row * width, width)) {
      const key = `${from} ${to}`;
      const box = open.get(key) ?? [from, to, row, row];
      if (!open.has(key)) boxes.push(box);
      box[3] = row + 1;
      now.set(key, box);
    }
    open = now;
  }
  const rings = boxes.map(([from, to, top, low]) => {
    const [l, r, b, t] = [from! * dotMm, to! * dotMm, (height - low!) * dotMm, (height - top!) * dotMm];
    return Float64Array.of(l, b, r, b, r, t, l, t, l, b);
  });
  const shape: ArtworkShape = { as: 'marked', rule: 'nonzero', rings, drawnMm: null };
  return artworkOf([shape], [], null);
}

function* runsIn(dots: Uint8Array, offset: number, width: number): Generator<[number, number]> {
  let from = -1;
  for (let x = 0; x <= width; x += 1) {
    const on = x < width && dots[offset + x] !== 0;
    if (on && from < 0) from = x;
    if (!on && from >= 0) {
      yield [from, x];
      from = -1;
    }
  }
}
