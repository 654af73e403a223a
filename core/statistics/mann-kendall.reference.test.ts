import { describe, expect, it } from 'vitest';
import { seededRandom } from '../support/random.js';
import { mannKendall } from './mann-kendall.js';

/** Every order of some values. */
function orders(values: readonly number[]): number[][] {
  if (values.length < 2) return [[...values]];
  return values.flatMap((value, i) => orders(values.filter((_, j) => j !== i)).map((rest) => [value, ...rest]));
}

describe('the trend test of Mann and Kendall', () => {
  it('has the chances of Kendall’s table of S (Rank Correlation Methods, 1975, Table A1; from memory)', () => {
    // One-sided there: n = 4, S ≥ 6: 0.042, S ≥ 4: 0.167; n = 5, S ≥ 10: 0.0083, S ≥ 8: 0.042; n = 8, S ≥ 16: 0.031.
    const table: [number[], number, number][] = [
      [[1, 2, 3, 4], 6, 0.042],
      [[1, 2, 4, 3], 4, 0.167],
      [[1, 2, 3, 4, 5], 10, 0.0083],
      [[1, 2, 3, 5, 4], 8, 0.042],
      [[1, 2, 3, 4, 5, 8, 7, 6].map((x, i) => (i === 0 ? 4.5 : x)), 16, 0.031],
    ];
    for (const [values, s, oneSided] of table) {
      const told = mannKendall(values);
      expect(told.s).toBe(s);
      expect(told.chance / 2).toBeCloseTo(oneSided, 3);
    }
  });

  it('counts what all orders of the values count', () => {
    const values = [2, 9, 4, 7, 1, 6, 3];
    const seen = Math.abs(mannKendall(values).s);
    const all = orders(values).map((order) => Math.abs(mannKendall(order).s));
    expect(mannKendall(values).chance).toBeCloseTo(all.filter((s) => s >= seen).length / all.length, 12);
  });

  it('comes near to what orders drawn at random count where there are many, and ties among them', () => {
    const random = seededRandom(7);
    const values = Array.from({ length: 24 }, (_, i) => Math.round(i / 6 + 4 * random()));
    const told = mannKendall(values);
    let beyond = 0;
    for (let i = 0; i < 20_000; i += 1) {
      const drawn = [...values];
      for (let k = drawn.length - 1; k > 0; k -= 1) {
        const j = Math.floor(random() * (k + 1));
        [drawn[k], drawn[j]] = [drawn[j]!, drawn[k]!];
      }
      if (Math.abs(mannKendall(drawn).s) >= Math.abs(told.s)) beyond += 1;
    }
    expect(told.chance).toBeCloseTo(beyond / 20_000, 2);
  });

  it('says nothing of values that are all the same, and the same of either direction', () => {
    expect(mannKendall([3, 3, 3, 3])).toEqual({ s: 0, tau: 0, chance: 1 });
    const values = [5, 1, 4, 4, 2, 9, 8, 8, 3, 11, 7];
    const [up, down] = [mannKendall(values), mannKendall([...values].reverse())];
    expect([down.s, down.tau, down.chance]).toEqual([-up.s, -up.tau, up.chance]);
    expect(mannKendall([1, 2, 3]).tau).toBe(1);
  });
});
