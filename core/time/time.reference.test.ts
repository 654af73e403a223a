import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fastestRowSpeed, moveTime, overscan, rasterTime, rowCount, rowTime, type RowMotion } from './index.js';

const GANTRY: RowMotion = { kind: 'gantry', accelerationMmPerS2: 5000, rapidMmPerS: 600 };

describe('raster time on trapezoidal motion', () => {
  it('the quickest speed of a 38 mm row at 5000 mm/s² is √(38·5000/2) = 308 mm/s', () => {
    expect(fastestRowSpeed(38, 5000)).toBeCloseTo(308.2, 1);
  });

  it('is least there', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 600, noNaN: true }), (speedMmPerS) => {
        const best = rowTime({ widthMm: 38, speedMmPerS: 308.22, directions: 'two-way' }, GANTRY);
        expect(rowTime({ widthMm: 38, speedMmPerS, directions: 'two-way' }, GANTRY)).toBeGreaterThanOrEqual(
          best - 1e-6,
        );
      }),
    );
  });

  it('a row at 200 mm/s: 38/200 + 2·200/5000 = 0.27 s; overscan 200²/10000 = 4 mm', () => {
    expect(rowTime({ widthMm: 38, speedMmPerS: 200, directions: 'two-way' }, GANTRY)).toBeCloseTo(0.27, 9);
    expect(overscan(200, GANTRY)).toBeCloseTo(4, 9);
  });

  it('22 mm at 0.1 mm is 220 rows, twice over for two passes', () => {
    const job = {
      widthMm: 38,
      heightMm: 22,
      intervalMm: 0.1,
      speedMmPerS: 200,
      passes: 2,
      directions: 'two-way',
    } as const;
    expect(rowCount(22, 0.1)).toBe(220);
    // The step of 0.1 mm to the next row is a triangle of 2√(s/a).
    expect(rasterTime(job, GANTRY)).toBeCloseTo(220 * (0.27 + 2 * Math.sqrt(0.1 / 5000)) * 2, 6);
    expect(rasterTime({ ...job, directions: 'one-way' }, GANTRY)).toBeGreaterThan(rasterTime(job, GANTRY));
  });

  it('moves as a triangle below v²/a and as a trapezoid above', () => {
    expect(moveTime(50, 600, 5000)).toBeCloseTo(2 * Math.sqrt(0.01), 9);
    expect(moveTime(600, 600, 5000)).toBeCloseTo(1 + 0.12, 9);
    expect(moveTime(72, 600, 5000)).toBeCloseTo(2 * Math.sqrt(72 / 5000), 9);
    expect(moveTime(0, 600, 5000)).toBe(0);
  });

  it('a galvo pays delays instead of run-ups', () => {
    const galvo: RowMotion = { kind: 'galvo', jumpMmPerS: 5000, delayS: 0.0004 };
    expect(rowTime({ widthMm: 10, speedMmPerS: 1000, directions: 'two-way' }, galvo)).toBeCloseTo(0.0104, 9);
    expect(rowTime({ widthMm: 10, speedMmPerS: 1000, directions: 'one-way' }, galvo)).toBeCloseTo(0.0124, 9);
    expect(overscan(1000, galvo)).toBe(0);
  });
});
