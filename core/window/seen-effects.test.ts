import { describe, expect, it } from 'vitest';
import { seededRandom, standardNormal } from '../support/random.js';
import { fitWindow, outcomeChances } from './fit-window.js';
import { seenEffects } from './seen-effects.js';
import type { WindowCell } from './window-terms.js';

const STEEL = { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 };
/** A coupon of a lot that wants so much more power than another. */
function coupon(lot: string | undefined, more: number, seed: number): WindowCell[] {
  const random = seededRandom(seed);
  return [12, 16, 21, 27, 34, 43].flatMap((powerW) =>
    [40, 60, 90, 135, 200, 300].map((speedMmPerS): WindowCell => {
      const off =
        Math.log(powerW / (20 * (1 + more))) - 0.7 * Math.log(speedMmPerS / 100) + 0.05 * standardNormal(random);
      const outcome = off < 0 ? 'under' : off > 0.8 ? 'over' : 'holds';
      return { powerW, speedMmPerS, intervalMm: 0.06, passes: 1, outcome, ...(lot ? { seen: { lot } } : {}) };
    }),
  );
}
const fitOf = (...coupons: WindowCell[][]) => fitWindow({ cells: coupons.flat(), equipment: STEEL, seed: 3 });

describe('lots and people seen', () => {
  it('have the power that they ask for, against the middle of all, with an interval that holds it', () => {
    const effects = seenEffects(
      fitOf(coupon('K5', 0, 1), coupon('K7', 0.2, 2), coupon('K5', 0, 3), coupon('K7', 0.2, 4)),
    );
    const [k5, k7] = effects;
    expect(effects.map(({ factor, level }) => `${factor} ${level}`)).toEqual(['lot K5', 'lot K7']);
    // A fifth apart: about a tenth either side of the middle.
    expect(k7!.more - k5!.more).toBeGreaterThan(0.08);
    expect(k7!.more - k5!.more).toBeLessThan(0.26);
    expect(k7!.low).toBeGreaterThan(-0.02);
    expect(k5!.high).toBeLessThan(0.02);
  });

  it('are told apart by nothing where they mark alike, and are none where one was seen, or few cells of it', () => {
    const alike = seenEffects(fitOf(coupon('K5', 0, 1), coupon('K7', 0, 2)));
    alike.forEach(({ low, high }) => expect(low < 0 && high > 0).toBe(true));
    expect(seenEffects(fitOf(coupon('K5', 0, 1), coupon('K5', 0, 2)))).toEqual([]);
    expect(seenEffects(fitOf(coupon('K5', 0, 1), coupon('K7', 0, 2).slice(0, 5)))).toEqual([]);
    expect(seenEffects(fitOf(coupon(undefined, 0, 1)))).toEqual([]);
  });

  it('keep the steepness of each: two lots that differ are not one blurred edge', () => {
    const cells = [coupon('K5', 0, 1), coupon('K7', 0.25, 2)];
    const blind = fitOf(...cells.map((own) => own.map(({ seen: _seen, ...cell }) => cell)));
    const told = fitOf(...cells);
    const chance = (fit: ReturnType<typeof fitOf>, powerW: number) =>
      outcomeChances(fit, { powerW, speedMmPerS: 100, intervalMm: 0.06, passes: 1 }).holds;
    // A fifth beyond the middle of both it is surer than where both were taken for one coat.
    expect(chance(told, 28)).toBeGreaterThan(chance(blind, 28) - 0.02);
  });
});
