import { describe, expect, it } from 'vitest';
import { seededRandom, standardNormal } from '../support/random.js';
import { compareTimes, crossovers, windowTimes, type WindowTimes } from './compare-windows.js';
import { fitWindow } from './fit-window.js';
import type { WindowCell } from './window-terms.js';

const STEEL = { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 };
const JOB = {
  ...{ widthMm: 40, heightMm: 12, directions: 'two-way' as const },
  motion: { kind: 'gantry' as const, accelerationMmPerS2: 5000, rapidMmPerS: 600 },
};
const REST = { intervalMm: 0.06, passes: 1 };
/** Cells of a coat that wants so much power at 100 mm/s, more by speed to a slope, and scorches at twice that. */
function coupon(wantsW: number, slope: number, seed: number): WindowCell[] {
  const random = seededRandom(seed);
  return [10, 14, 18, 23, 29, 36, 45].flatMap((powerW) =>
    [40, 60, 90, 135, 200, 300].map((speedMmPerS): WindowCell => {
      const off = Math.log(powerW / wantsW) - slope * Math.log(speedMmPerS / 100) + 0.05 * standardNormal(random);
      return { ...REST, powerW, speedMmPerS, outcome: off < 0 ? 'under' : off > Math.log(2.2) ? 'over' : 'holds' };
    }),
  );
}
const POWERS = Array.from({ length: 15 }, (_, i) => 10 * 4.5 ** (i / 14));
const timesOf = (wantsW: number, slope: number, seed: number) =>
  windowTimes(fitWindow({ cells: coupon(wantsW, slope, seed), equipment: STEEL, seed: 1 }), JOB, {
    ...{ powersW: POWERS, rest: REST, level: 0.9 },
  });

describe('windows against one another', () => {
  const [quick, slow] = [timesOf(16, 0.7, 1), timesOf(24, 0.7, 2)];

  it('tell how quick each may be: more power never asks for more time, up to where it scorches', () => {
    const middles = quick.byPower.flatMap((one) => (one ? [one.middle] : []));
    expect(middles.length).toBeGreaterThan(8);
    middles.slice(1).forEach((seconds, i) => expect(seconds).toBeLessThanOrEqual(middles[i]! * 1.02));
    expect(
      windowTimes(fitWindow({ cells: coupon(16, 0.7, 1), equipment: STEEL, seed: 1 }), JOB, {
        powersW: [5, 90],
        rest: REST,
        level: 0.9,
      }).byPower,
    ).toEqual([null, null]);
  });

  it('tell which is quicker and how sure, and the same the other way round', () => {
    const [there, back] = [compareTimes(quick.best, slow.best), compareTimes(slow.best, quick.best)];
    expect(there.quicker).toBeGreaterThan(0.9);
    expect(there.quicker + back.quicker).toBeCloseTo(1, 10);
    expect(there.ratio!.low).toBeGreaterThan(1);
    expect(there.ratio!.middle * back.ratio!.middle).toBeCloseTo(1, 2);
  });

  it('are as good as one another where they are the same, and say so', () => {
    const { ratio, quicker } = compareTimes(quick.best, timesOf(16, 0.7, 3).best);
    expect(quicker).toBeGreaterThan(0.1);
    expect(quicker).toBeLessThan(0.9);
    // Both may hold at the quickest speed that was tried: then neither is known to be quicker.
    expect(ratio!.low).toBeLessThanOrEqual(1);
    expect(ratio!.high).toBeGreaterThanOrEqual(1);
  });

  it('cross where the steeper one catches up', () => {
    // The one wants less at little power and more by speed: level at 100 mm/s and about 20 W.
    const [flat, steep] = [timesOf(20, 0.45, 4), timesOf(20, 1, 5)];
    const at = crossovers(flat, steep);
    expect(at.length).toBeGreaterThan(0);
    expect(at.some((powerW) => powerW > 16 && powerW < 29)).toBe(true);
    expect(crossovers(flat, flat)).toEqual([]);
  });

  it('that hold nowhere have no time, and lose to what holds', () => {
    const never = coupon(500, 0.7, 6).map((cell): WindowCell => ({ ...cell, outcome: 'under' }));
    const none = windowTimes(fitWindow({ cells: never, equipment: STEEL, seed: 1 }), JOB, {
      powersW: POWERS,
      rest: REST,
      level: 0.9,
    });
    expect(none.best.filter(Number.isFinite).length / none.best.length).toBeLessThan(0.3);
    expect(compareTimes(quick.best, none.best).quicker).toBeGreaterThan(0.8);
    expect(compareTimes(quick.best, none.best).ratio).toBeNull();
  });

  it('find a crossover by hand: straight in ln between two powers', () => {
    const times = (...middles: (number | null)[]): WindowTimes => ({
      ...{ powersW: [10, 20, 40], best: new Float64Array(), atEnd: 0 },
      byPower: middles.map((middle) => middle && { low: middle, middle, high: middle }) as WindowTimes['byPower'],
    });
    expect(crossovers(times(4, 2, 1), times(2, 2.5, 3))).toEqual([
      expect.closeTo(10 * 2 ** (Math.log(2) / (Math.log(2) + Math.log(1.25))), 9),
    ]);
    // Where one has no answer it lies between the two that have.
    expect(crossovers(times(4, null, 1), times(2, 2, 2))).toEqual([expect.closeTo(20, 9)]);
    // A hundredth either way is no change.
    expect(crossovers(times(2, 1.99, 2.01), times(2.01, 2, 2))).toEqual([]);
  });
});
