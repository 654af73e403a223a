import { describe, expect, it } from 'vitest';
import { seededRandom } from '../support/random.js';
import { fisherExact } from '../statistics/fisher-exact.js';
import { cusum, driftCharts, driftFactors, steadyOf, westernElectric, type DriftRun } from './index.js';

describe('control charts against the NIST/SEMATECH e-Handbook (figures from memory, reproduced by hand)', () => {
  it('individuals, 6.3.2.2: ten flow rates', () => {
    const { centre, spread } = steadyOf([49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1]);
    expect(centre).toBeCloseTo(50.81, 10);
    // Limits 55.8041 and 45.8159 there, by the rounded constant 1.128.
    expect(centre + 3 * spread).toBeCloseTo(55.8041, 2);
    expect(centre - 3 * spread).toBeCloseTo(45.8159, 2);
  });

  it('CUSUM, 6.3.2.3: twenty groups about 325, k = 0.3175, h = 4.1959, out at the fourteenth', () => {
    const groups = [
      324.925, 324.675, 324.725, 324.35, 325.35, 325.225, 324.125, 324.525, 325.225, 324.6, 324.625, 325.15, 328.325,
      327.25, 327.825, 328.5, 326.675, 327.775, 326.875, 328.35,
    ];
    const sums = cusum(
      groups.map((value) => value - 325),
      { slack: 0.3175, limit: 4.1959 },
    );
    expect(sums.findIndex(({ out }) => out === 'high')).toBe(13);
    const rounded = (of: 'high' | 'low') => sums.map((point) => Number(point[of].toFixed(2)));
    expect(rounded('high').slice(12, 19)).toEqual([3.01, 4.94, 7.45, 10.63, 11.99, 14.44, 16.0]);
    expect(sums.at(-1)!.high).toBeCloseTo(19.035, 6);
    expect(rounded('low').slice(0, 9)).toEqual([0, 0.01, 0, 0.33, 0, 0, 0.56, 0.72, 0.17]);
    expect(sums.some(({ out }) => out === 'low')).toBe(false);
  });

  it('a CUSUM of h 4.77 and k 0.5 calls out by chance about once in 370 and finds one σ in about ten (Montgomery, from memory)', () => {
    let state = 12345;
    const uniform = () => {
      state = (state * 48271) % 2147483647;
      return state / 2147483647;
    };
    const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
    const lengthOf = (shift: number) => {
      const values: number[] = [];
      for (;;) {
        for (let i = 0; i < 50; i += 1) values.push(normal() + shift);
        const at = cusum(values).findIndex(({ out }) => out !== null);
        if (at >= 0) return at + 1;
      }
    };
    const average = (shift: number) => Array.from({ length: 400 }, () => lengthOf(shift)).reduce((a, b) => a + b) / 400;
    expect(average(0)).toBeGreaterThan(310);
    expect(average(0)).toBeLessThan(430);
    expect(average(-1)).toBeGreaterThan(9);
    expect(average(-1)).toBeLessThan(11);
  });

  it('Western Electric rules, each by its definition', () => {
    expect(westernElectric([0, -3.1], -1)[1]).toEqual(['beyond 3 σ']);
    expect(westernElectric([-2.1, 0, -2.1], -1)[2]).toEqual(['two of three beyond 2 σ']);
    expect(westernElectric([-1.1, -1.1, 0.5, -1.1, -1.1], -1)[4]).toEqual(['four of five beyond 1 σ']);
    expect(westernElectric(new Array(8).fill(-0.2), -1)[7]).toEqual(['eight on one side']);
    expect(westernElectric([...new Array(7).fill(-0.2), 0.1, -0.2], -1).flat()).toEqual([]);
    // Up is not down.
    expect(westernElectric([3.5, 3.5, 3.5], -1).flat()).toEqual([]);
    // Four of five does not count on a value that itself lies within.
    expect(westernElectric([-1.1, -1.1, -1.1, -1.1, 0.5], -1)[4]).toEqual([]);
  });
});

describe('Fisher’s exact test', () => {
  it('the lady tasting tea: three of four right, 17 in 70 by chance (Fisher 1935)', () => {
    expect(fisherExact({ outWith: 3, runsWith: 4, outWithout: 1, runsWithout: 4 })).toBeCloseTo(17 / 70, 12);
    expect(fisherExact({ outWith: 4, runsWith: 4, outWithout: 0, runsWithout: 4 })).toBeCloseTo(1 / 70, 12);
  });

  it('refuses counts that cannot be', () => {
    expect(() => fisherExact({ outWith: 5, runsWith: 4, outWithout: 0, runsWithout: 4 })).toThrow(/more are out/i);
  });
});

const run = (contrast: number, good = 12): DriftRun => ({ contrast, kept: 1, pieces: 12, good });

describe('drift of a recipe', () => {
  it('stays quiet over steady runs, and over ones that get better', () => {
    const steady = [4, 4, 5, 4, 4, 4, 5, 4, 4, 4, 5, 4, 4, 5, 5, 5].map((step) => run(step));
    expect(driftCharts(steady).map(({ alarm }) => alarm)).toEqual([null, null, null]);
  });

  it('names the run at which contrast went down, and the can that came with it', () => {
    const steps = [4, 4, 5, 4, 4, 4, 4, 5, 4, 4, 3, 2, 3, 2];
    const charts = driftCharts(steps.map((step) => run(step)));
    const { alarm, points, baseline } = charts.find(({ measure }) => measure === 'contrast')!;
    expect([alarm?.run, alarm?.sure, baseline]).toEqual([11, true, 7]);
    const out = steps.map((_, i) => (points.find((point) => point.run === i)?.z ?? 0) < -1);
    const factors = driftFactors(
      steps.map((_, i) => ({ 'can lot': i >= 10 ? 'K7' : 'K5', operator: i % 2 ? 'Ines' : 'Tobin', weather: null })),
      out,
    );
    expect(factors[0]).toMatchObject({ factor: 'can lot', level: 'K7', outWith: 4, runsWith: 4, outWithout: 0 });
    expect(factors[0]!.chance).toBeLessThan(0.01);
    expect(factors.some(({ factor }) => factor === 'weather' || factor === 'operator')).toBe(false);
  });

  it('finds lost pieces by their count, not one among many', () => {
    const good = (counts: number[]) => counts.map((count) => run(4, count));
    const rate = (counts: number[]) => driftCharts(good(counts)).find(({ measure }) => measure === 'hold rate')!;
    expect(rate([12, 12, 12, 12, 11, 12, 12, 12, 11, 12]).alarm).toBeNull();
    expect(rate([12, 12, 12, 12, 11, 12, 12, 12, 5, 6]).alarm).toMatchObject({ run: 8, sure: true });
    // One bad run among good ones is told of, and does not yet suspend.
    expect(rate([12, 12, 12, 12, 11, 12, 12, 5]).alarm).toMatchObject({ run: 7, sure: false });
  });

  it('suspends by chance less than once in twelve recipes over forty runs read by eye, and finds a step of contrast within a few', () => {
    const random = seededRandom(3);
    const recipes = (drop: number) =>
      Array.from({ length: 150 }, () => {
        const look = 3 + 1.6 * random();
        const runs: DriftRun[] = [];
        for (let i = 0; i < 40; i += 1) {
          runs.push(run(Math.min(5, Math.max(1, Math.round(look - (i < 20 ? 0 : drop) + 1.2 * (random() - 0.5))))));
          if (driftCharts(runs).some(({ alarm }) => alarm?.sure)) return i;
        }
        return null;
      });
    expect(recipes(0).filter((at) => at !== null).length / 150).toBeLessThan(0.09);
    const found = recipes(1).map((at) => (at ?? 40) - 19);
    expect(found.sort((a, b) => a - b)[75]).toBeLessThanOrEqual(6);
    expect(found.filter((after) => after > 12).length / 150).toBeLessThan(0.05);
  });

  it('says nothing of fewer than seven runs, and does not raise again what was dealt with', () => {
    expect(driftCharts([4, 4, 4, 4, 1, 1].map((step) => run(step)))).toEqual([]);
    const steps = [4, 4, 5, 4, 4, 4, 4, 1, 1, 4, 4, 4, 4];
    expect(driftCharts(steps.map((step) => run(step)))[0]!.alarm?.run).toBe(7);
    expect(
      driftCharts(
        steps.map((step) => run(step)),
        9,
      )[0]!.alarm,
    ).toBeNull();
  });
});
