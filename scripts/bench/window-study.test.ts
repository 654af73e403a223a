import { TRUTH_FAMILIES } from '@unto/simulators/window-truths';
import { describe, expect, it } from 'vitest';
import { shopStudy } from './window-shops.js';
import { gainStudy, study, together, worstTenth, type CouponKind, type Tally } from './window-study.js';

const COATS = 8;
const NAMES = ['own form', 'dose and scorch', 'two regimes', 'misread 8 %'];

/** A small slice of the study, the same every time: it would show a fall of five points. */
function slice(kind: CouponKind): Tally[] {
  return TRUTH_FAMILIES.filter(({ name }) => NAMES.includes(name)).map((family) => study(family, kind, COATS));
}
const sum = (tallies: readonly Tally[], pick: (tally: Tally) => number) =>
  tallies.reduce((total, tally) => total + pick(tally), 0);

describe('settings over hidden coats', () => {
  it.each([
    ['24', 0.79, 0.58],
    ['80', 0.95, 0.71],
    ['24 + 24 next', 0.95, 0.71],
    ['24, kept', 0.92, 0.68],
  ] as const)(
    '%s cells: a setting in %s of them, at %s of the best safe rate, all but all truly good',
    (kind, least, rate) => {
      const tallies = slice(kind);
      const given = sum(tallies, (tally) => tally.given);
      const shares = tallies.flatMap((tally) => tally.shares);
      expect(given / (COATS * NAMES.length)).toBeGreaterThanOrEqual(least);
      expect(sum(tallies, (tally) => tally.good) / given).toBeGreaterThanOrEqual(0.95);
      expect(shares.reduce((a, b) => a + b, 0) / shares.length).toBeGreaterThanOrEqual(rate);
      expect(worstTenth(together(tallies).tenths)).toBeLessThan(0.1);
    },
    120_000,
  );

  it.each(['narrow band', 'nothing holds'])(
    '%s: none',
    (name) => {
      const family = TRUTH_FAMILIES.find((one) => one.name === name)!;
      expect(study(family, '48', 15).given).toBe(0);
    },
    60_000,
  );
});

describe('a shop’s tenth window', () => {
  it('gives a setting on half the cells, with what the others taught, as often as on all of them without', () => {
    const tallies = shopStudy(14, [12, 24], 0);
    const [few, whole] = [tallies[0]!.taught, tallies[1]!.alone];
    expect(few.given).toBeGreaterThan(tallies[0]!.alone.given);
    expect(few.given).toBeGreaterThanOrEqual(whole.given - 2);
    expect(few.good / few.given).toBeGreaterThanOrEqual(0.9);
  }, 120_000);
});

describe('what a next coupon is said to bring', () => {
  it('comes about as often, and saves about as much, on coats that are hidden from it', () => {
    const tallies = TRUTH_FAMILIES.filter(({ name }) => NAMES.includes(name)).map((family) => gainStudy(family, 8));
    const all = (pick: (tally: (typeof tallies)[number]) => number) =>
      tallies.reduce((sum, tally) => sum + pick(tally), 0);
    const coupons = all(({ coupons: count }) => count);
    const [said, proved] = [all((tally) => tally.said) / coupons, all((tally) => tally.proved) / coupons];
    expect(coupons).toBeGreaterThan(15);
    expect(Math.abs(said - proved)).toBeLessThan(0.15);
    const times = all((tally) => tally.saidSaved) / all((tally) => tally.saved);
    expect(times).toBeGreaterThan(0.75);
    expect(times).toBeLessThan(1.35);
  }, 120_000);
});
