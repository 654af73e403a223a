import { describe, expect, it } from 'vitest';
import { linearToLab } from '../imaging/colour.js';
import type { LevelPicture } from '../target/level-picture.js';
import { seededRandom, standardNormal } from '../support/random.js';
import { fitBareGround } from './bare-ground.js';
import { channelIn, columnTexture, highPass, pixelsIn } from './boxes.js';

function level(
  columns: number,
  rows: number,
  rgb: (x: number, y: number) => readonly [number, number, number],
): LevelPicture {
  const pxMm = 0.1;
  const count = columns * rows;
  const out = {
    columns,
    rows,
    pxMm,
    l: new Float32Array(count),
    rgb: new Float32Array(3 * count),
    burnt: new Uint8Array(count),
  };
  for (let i = 0; i < count; i += 1) {
    const own = rgb(((i % columns) + 0.5) * pxMm, (Math.floor(i / columns) + 0.5) * pxMm);
    out.rgb.set(own, 3 * i);
    out.l[i] = linearToLab(...own).l;
  }
  return out;
}
const WHOLE = { x0: 0, y0: 0, x1: 20, y1: 15 };

describe('pixels of a box', () => {
  const picture = level(200, 150, () => [0.4, 0.3, 0.2]);

  it('are those whose middles lie in it, none twice, and stop at the picture', () => {
    expect([...pixelsIn(picture, { x0: 0.1, y0: 0.1, x1: 0.3, y1: 0.2 })]).toEqual([201, 202]);
    expect(pixelsIn(picture, WHOLE)).toHaveLength(200 * 150);
    expect(pixelsIn(picture, { x0: -5, y0: -5, x1: 0.1, y1: 0.1 })).toHaveLength(1);
    expect(pixelsIn(picture, { x0: 30, y0: 0, x1: 40, y1: 1 })).toHaveLength(0);
    const [left, right] = [pixelsIn(picture, { ...WHOLE, x1: 7.3 }), pixelsIn(picture, { ...WHOLE, x0: 7.3 })];
    expect(left.length + right.length).toBe(200 * 150);
  });

  it('give one channel at a time', () => {
    const pixels = pixelsIn(picture, { x0: 1, y0: 1, x1: 2, y1: 2 });
    for (const [channel, value] of [0.4, 0.3, 0.2].entries())
      for (const one of channelIn(picture, pixels, channel)) expect(one).toBeCloseTo(value, 6);
  });
});

describe('texture', () => {
  // The weights of the differences make both estimates of a white noise its own spread, in closed form.
  it('of white noise is its spread, and a slope has none', () => {
    const random = seededRandom(5);
    const noisy = level(200, 150, () => [0.3, 0.3, 0.3]);
    for (let i = 0; i < noisy.l.length; i += 1) noisy.l[i] = 50 + 2 * standardNormal(random);
    expect(highPass(noisy, WHOLE)).toBeCloseTo(2, 1);
    expect(columnTexture(noisy, WHOLE)!).toBeCloseTo(2, 1);
    const slope = level(200, 150, () => [0.3, 0.3, 0.3]);
    for (let i = 0; i < slope.l.length; i += 1) slope.l[i] = 20 + 0.1 * (i % 200) + 0.2 * Math.floor(i / 200);
    expect(highPass(slope, WHOLE)).toBeLessThan(1e-3);
    expect(columnTexture(slope, WHOLE)!).toBeLessThan(1e-3);
    expect(columnTexture(slope, { x0: 0, y0: 0, x1: 1, y1: 0.4 })).toBeNull();
  });
});

describe('the bare ground', () => {
  const truth = (x: number, y: number): readonly [number, number, number] => {
    const [u, v] = [x / 10 - 1, y / 7.5 - 1];
    return [0.42 + 0.05 * u - 0.03 * v * v, 0.4 + 0.05 * u + 0.02 * u * v, 0.3 - 0.04 * v + 0.01 * u * u];
  };
  const boxes = (columns: number, rows: number, top = 15) =>
    Array.from({ length: columns * rows }, (_, i) => {
      const x = 1 + (17 * (i % columns)) / Math.max(1, columns - 1);
      const y = 1 + ((top - 3) * Math.floor(i / columns)) / Math.max(1, rows - 1);
      return { x0: x, x1: x + 0.5, y0: y, y1: y + 1 };
    });

  it('comes back as the quadratic that it is, whatever stands between', () => {
    const marked = (x: number, y: number) =>
      x > 8 && x < 10 && y > 6 && y < 8 ? ([0.02, 0.02, 0.02] as const) : truth(x, y);
    const ground = fitBareGround(level(200, 150, marked), boxes(8, 6));
    for (const [x, y] of [
      [2, 3],
      [9, 7],
      [17, 13],
    ] as const) {
      expect(ground.at(x, y).y).toBeCloseTo(truth(x, y)[1], 3);
      expect(ground.at(x, y).l).toBeCloseTo(linearToLab(...truth(x, y)).l, 1);
    }
    expect(ground.noise).toBeLessThan(0.35);
  });

  it('is a level where few places show it, and holds where all of them stand in one row', () => {
    const flat = level(200, 150, () => [0.4, 0.4, 0.4]);
    expect(fitBareGround(flat, boxes(3, 2)).at(10, 7).y).toBeCloseTo(0.4, 5);
    const row = Array.from({ length: 24 }, (_, i) => ({ x0: 0.5 + 0.75 * i, x1: 0.9 + 0.75 * i, y0: 7, y1: 8 }));
    const seen = fitBareGround(
      level(200, 150, (x) => [0.3 + 0.005 * x, 0.3 + 0.005 * x, 0.3 + 0.005 * x]),
      row,
    );
    expect(seen.at(4, 7.5).y).toBeCloseTo(0.32, 3);
    expect(Number.isFinite(seen.at(18, 14).l)).toBe(true);
  });
});
