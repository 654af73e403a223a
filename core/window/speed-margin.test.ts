import { describe, expect, it } from 'vitest';
import { fitWindow, speedMargin, type WindowCell } from './index.js';

const BENCH = { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 };
const coupon = (copies: number): WindowCell[] =>
  Array.from({ length: copies }, () =>
    [30, 40, 50].flatMap((powerW) =>
      [60, 90, 140, 210, 320].map((speedMmPerS): WindowCell => ({
        powerW,
        speedMmPerS,
        intervalMm: 0.06,
        passes: 1,
        outcome: powerW / speedMmPerS ** 0.6 > 2.2 ? 'holds' : 'under',
      })),
    ),
  ).flat();
const POINT = { powerW: 50, speedMmPerS: 140, intervalMm: 0.06, passes: 1 };

describe('how far a speed may be off', () => {
  it('holds 1 and narrows with more cells', () => {
    const few = speedMargin(fitWindow({ cells: coupon(1), equipment: BENCH, seed: 1 }), POINT);
    const many = speedMargin(fitWindow({ cells: coupon(6), equipment: BENCH, seed: 1 }), POINT);
    expect(few.low).toBeLessThan(1);
    expect(few.high).toBeGreaterThan(1);
    expect(many.high / many.low).toBeLessThan(few.high / few.low);
  });

  it('does not depend on the speed it is asked at, only on the boundary', () => {
    const fit = fitWindow({ cells: coupon(1), equipment: BENCH, seed: 1 });
    const [slow, fast] = [speedMargin(fit, { ...POINT, speedMmPerS: 80 }), speedMargin(fit, POINT)];
    expect(Math.abs(slow.high / fast.high - 1)).toBeLessThan(0.1);
  });
});
