import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clipped, markedArea, spansOf, type ArtworkShape } from './index.js';

const fill = (...rings: number[][]): ArtworkShape => ({
  ...{ as: 'marked', rule: 'evenodd', drawnMm: null },
  rings: rings.map((ring) => Float64Array.from(ring)),
});
const line = (...ring: number[]): ArtworkShape => ({
  ...{ as: 'line', rule: 'nonzero', drawnMm: null },
  rings: [Float64Array.from(ring)],
});
const BOX = { xMm: 2, yMm: 1, widthMm: 5, heightMm: 4 };
const areaOf = (shapes: readonly ArtworkShape[]) => markedArea(spansOf(shapes, { spacingMm: 0.01, angleDeg: 0 }));

describe('a region of an artwork', () => {
  it('cuts a square with a hole to what lies in it: by hand', () => {
    // 10 × 10 with a hole of 2 × 2 about 5, 3: of the region’s 20 mm² the hole takes 4.
    const shape = fill([0, 0, 10, 0, 10, 10, 0, 10], [4, 2, 6, 2, 6, 4, 4, 4]);
    expect(areaOf(clipped([shape], BOX))).toBeCloseTo(16, 1);
    expect(clipped([fill([20, 20, 30, 20, 30, 30])], BOX)).toEqual([]);
  });

  it('keeps of any star exactly the places that lie in it, holes among them: against a count of places', () => {
    const star = fc.array(
      fc.tuple(fc.double({ min: 1, max: 7, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true })),
      {
        minLength: 3,
        maxLength: 9,
      },
    );
    fc.assert(
      fc.property(star, (corners) => {
        const ring = corners.flatMap(([radius, wobble], i) => {
          const turn = (2 * Math.PI * (i + 0.5 * wobble)) / corners.length;
          return [5 + radius * Math.cos(turn), 3 + radius * Math.sin(turn)];
        });
        const inside = clipped([fill(ring)], BOX);
        const step = 0.05;
        let places = 0;
        for (let y = BOX.yMm + step / 2; y < BOX.yMm + BOX.heightMm; y += step)
          for (let x = BOX.xMm + step / 2; x < BOX.xMm + BOX.widthMm; x += step) if (isIn(ring, x, y)) places += 1;
        expect(areaOf(inside)).toBeCloseTo(places * step * step, 0);
      }),
      { numRuns: 40 },
    );
  });

  it('cuts a line where it leaves the box, into as many pieces as it comes in: by hand', () => {
    const [one] = clipped([line(0, 3, 10, 3, 10, 4.5, 0, 4.5)], BOX);
    expect(one!.rings.map((ring) => [...ring])).toEqual([
      [2, 3, 7, 3],
      [7, 4.5, 2, 4.5],
    ]);
    expect([...clipped([line(3, 2, 4, 2, 4, 9)], BOX)[0]!.rings[0]!]).toEqual([3, 2, 4, 2, 4, 5]);
  });
});

/** Even-odd rule by a ray. */
function isIn(ring: readonly number[], x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    if (
      ring[i + 1]! > y !== ring[j + 1]! > y &&
      x < ((ring[j]! - ring[i]!) * (y - ring[i + 1]!)) / (ring[j + 1]! - ring[i + 1]!) + ring[i]!
    )
      inside = !inside;
  return inside;
}
