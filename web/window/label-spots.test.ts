import { seededRandom } from '@unto/core';
import { describe, expect, it } from 'vitest';
import { labelSpots, PLOT, type Point, type Taken } from './label-spots';

const axes = { x: { from: 10, to: 1000 }, y: { from: 20, to: 100 } };
const px = ([x, y]: Point) => ({
  x: (PLOT.width * Math.log(x / 10)) / Math.log(100),
  y: (PLOT.height * Math.log(100 / y)) / Math.log(5),
});

describe('places of labels', () => {
  it('are the first that is clear of points, of labels before, and of the rim', () => {
    const middle: Point = [100, Math.sqrt(2000)];
    const free: Point = [300, 30];
    const spots = labelSpots(axes, [{ at: middle, reachPx: 7 }]);
    expect(spots.place('95', 12, [[10, 100], middle, free], true)).toEqual(free);
    // Taken now by the label itself.
    expect(spots.place('80', 12, [free], false)).toBeNull();
    expect(spots.place('80', 12, [free, [20, 80]], false)).toEqual([20, 80]);
  });

  it('are where least is covered for what must be shown, and none for what need not', () => {
    const crowd: Taken[] = [200, 210].map((x) => ({ at: [x, 40], reachPx: 7 }));
    const places: Point[] = [
      [205, 40],
      [240, 42],
    ];
    expect(labelSpots(axes, crowd).place('50', 12, places, false)).toBeNull();
    expect(labelSpots(axes, crowd).place('50', 12, places, true)).toEqual([240, 42]);
    expect(labelSpots(axes, crowd).place('50', 12, [], true)).toBeNull();
  });

  it('cover no point and no other label, however the points lie', () => {
    const random = seededRandom(8);
    for (let round = 0; round < 40; round += 1) {
      const somewhere = (): Point => [10 * 100 ** random(), 20 * 5 ** random()];
      const points = Array.from({ length: 12 }, (): Taken => ({ at: somewhere(), reachPx: 7 }));
      const spots = labelSpots(axes, points);
      const put = ['95', '16 J/mm²', 'too little'].flatMap((text) => {
        const at = spots.place(text, 12, Array.from({ length: 60 }, somewhere), false);
        return at ? [{ ...px(at), halfWidth: text.length * 3.6, halfHeight: 7.5 }] : [];
      });
      expect(put.length).toBeGreaterThan(1);
      const boxes = [...points.map(({ at }) => ({ ...px(at), halfWidth: 7, halfHeight: 7 })), ...put];
      put.forEach((box, i) => {
        expect(Math.min(box.x, PLOT.width - box.x)).toBeGreaterThanOrEqual(box.halfWidth);
        boxes.forEach((other, j) => {
          if (j === points.length + i) return;
          const across = Math.abs(box.x - other.x) >= box.halfWidth + other.halfWidth;
          expect(across || Math.abs(box.y - other.y) >= box.halfHeight + other.halfHeight).toBe(true);
        });
      });
    }
  });
});
