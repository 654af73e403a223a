import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CoreError, seededRandom, standardNormal } from '../support/index.js';
import { boundariesAt, fitWindow, outcomeChances } from './fit-window.js';
import { focusAsPower } from './focus-as-power.js';
import { insideHull } from './hull.js';
import { orderedLogit, ordinalLogLikelihood } from './ordered-logit.js';
import { judgeSetting, type SettingJob } from './setting-search.js';
import { paysFrom } from './expected-gain.js';
import { nextBlock } from './next-block.js';
import { settingFigure, settingFromWindow } from './setting-from-window.js';
import { windowBands, windowMap } from './window-map.js';
import type { WindowCell } from './window-terms.js';

const equipment = { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 };

/** Cells of a made-up coat whose bonding goes with P·v^−0.6, spray noise 10 %. */
function cellsOf(
  seed: number,
  grid: { powers: number[]; speeds: number[] },
  cuts: [number, number] = [0.55, 1.35],
): WindowCell[] {
  const random = seededRandom(seed);
  return grid.powers.flatMap((powerW) =>
    grid.speeds.map((speedMmPerS) => {
      const effect = Math.log(powerW) - 0.6 * Math.log(speedMmPerS) + 0.1 * standardNormal(random);
      return {
        powerW,
        speedMmPerS,
        intervalMm: 0.06,
        passes: 1,
        outcome: effect < cuts[0] ? 'under' : effect < cuts[1] ? 'holds' : 'over',
      };
    }),
  );
}
const GRID = { powers: [20, 25, 30, 35, 40, 45, 50, 55], speeds: [50, 70, 100, 140, 200, 280, 350, 400, 450, 500] };
const job: SettingJob = {
  power: { ratedW: 55 },
  motion: { kind: 'gantry', accelerationMmPerS2: 5000, rapidMmPerS: 600 },
  topSpeedMmPerS: 600,
  widthMm: 38,
  heightMm: 22,
  directions: 'two-way',
  tolerance: { powerShare: 0.05, focusShare: 0.01 },
  bound: 0.8,
};

describe('fit', () => {
  it('finds the slope and the steepness of the coat it was made from', () => {
    const fit = fitWindow({ cells: cellsOf(3, GRID), equipment, seed: 1 });
    const middle = (values: Float64Array) => values.reduce((sum, one) => sum + one, 0) / values.length;
    const at = (speedMmPerS: number) => boundariesAt(fit, { powerW: 1, speedMmPerS, intervalMm: 0.06, passes: 1 });
    // P·v^−0.6: from 100 to 300 mm/s both boundaries ask for 0.6·ln 3 more, give or take the noise of 80 cells.
    const [slow, fast] = [at(100), at(300)];
    expect((middle(fast.bondAt) - middle(slow.bondAt)) / Math.log(3)).toBeCloseTo(0.55, 1);
    expect(middle(slow.overAt) - middle(slow.bondAt)).toBeGreaterThan(0.5);
    // Spray noise 10 %: a logistic scale of 0.055, so ln k about 2.9.
    expect(Math.log(middle(slow.bondK))).toBeGreaterThan(2.3);
    expect(Math.log(middle(slow.bondK))).toBeLessThan(3.4);
  });

  it('is the same again from the same seed, and its chances add up to 1', () => {
    const cells = cellsOf(4, GRID);
    const fit = fitWindow({ cells, equipment, seed: 9 });
    expect(fitWindow({ cells, equipment, seed: 9 }).bond).toEqual(fit.bond);
    const { under, holds, over } = outcomeChances(fit, {
      powerW: 40,
      speedMmPerS: 120,
      intervalMm: 0.06,
      passes: 1,
    });
    expect(under + holds + over).toBeCloseTo(1, 12);
  });

  it.each([
    ['one cell', { powers: [40], speeds: [100] }, undefined],
    ['everything holds', GRID, [-99, 99]],
    ['nothing holds', GRID, [98, 99]],
    ['everything is too much', GRID, [-99, -98]],
    ['separated without noise', { powers: [20, 50], speeds: [60, 400] }, [0.55, 1.35]],
  ] as const)('stays finite when %s', (_name, grid, cuts) => {
    const fit = fitWindow({ cells: cellsOf(1, grid as never, cuts as never), equipment, seed: 1 });
    expect([...fit.bond.values, ...fit.over.values].every(Number.isFinite)).toBe(true);
    const { under, holds, over } = outcomeChances(fit, { powerW: 40, speedMmPerS: 100, intervalMm: 0.06, passes: 1 });
    expect(Math.min(under, holds, over)).toBeGreaterThanOrEqual(0);
  });

  it('refuses to fit nothing, and separated data without priors', () => {
    expect(() => fitWindow({ cells: [], equipment, seed: 1 })).toThrow(/Scrub the coupon|scrub the coupon/);
    const rows = [
      { z: [0], category: 0 },
      { z: [1], category: 1 },
    ];
    expect(() => orderedLogit({ rows, categories: 2 })).toThrow(CoreError);
    expect(() => orderedLogit({ rows: [{ z: [0], category: 5 }], categories: 2 })).toThrow(/none of 2/);
  });

  it('sits at the top of its likelihood: no small step does better', () => {
    const rows = cellsOf(5, GRID).map((cell) => ({
      z: [Math.log(cell.powerW), Math.log(cell.speedMmPerS)],
      category: ['under', 'holds', 'over'].indexOf(cell.outcome),
    }));
    const fit = orderedLogit({ rows, categories: 3 });
    const best = [...fit.cuts, ...fit.slopes];
    const top = ordinalLogLikelihood(best, rows, 3);
    best.forEach((_, i) => {
      for (const step of [-1e-3, 1e-3]) {
        const moved = best.map((value, k) => (k === i ? value + step : value));
        expect(ordinalLogLikelihood(moved, rows, 3)).toBeLessThanOrEqual(top + 1e-10);
      }
    });
    expect(ordinalLogLikelihood([2, 1, 0, 0], rows, 3)).toBe(-Infinity);
  });
});

describe('setting to use', () => {
  const fit = fitWindow({ cells: cellsOf(3, GRID), equipment, seed: 1 });
  const { quickest, widest } = settingFromWindow(fit, job);

  it('meets its bound, lies in the hull, and is the quicker of the two', () => {
    expect(quickest!.worst).toBeGreaterThanOrEqual(0.8);
    expect(judgeSetting(fit, quickest!, job).inside).toBe(true);
    expect(quickest!.seconds).toBeLessThanOrEqual(widest!.seconds);
    expect(widest!.worst).toBeGreaterThanOrEqual(quickest!.worst);
    expect(quickest!.binding).toBe('too-little');
  });

  it('truly holds: at least 90 % of pieces, by the made-up coat itself', () => {
    const effect = Math.log(quickest!.powerW) - 0.6 * Math.log(quickest!.speedMmPerS);
    const random = seededRandom(77);
    const holds = Array.from({ length: 2000 }, () => effect + 0.1 * standardNormal(random)).filter(
      (x) => x >= 0.55 && x < 1.35,
    ).length;
    expect(holds / 2000).toBeGreaterThanOrEqual(0.9);
  });

  it('offers no quickest when no setting meets the bound', () => {
    const narrow = fitWindow({ cells: cellsOf(3, { powers: [20, 40], speeds: [60, 400] }), equipment, seed: 1 });
    expect(settingFromWindow(narrow, { ...job, bound: 0.99 }).quickest).toBeNull();
    expect(settingFromWindow(narrow, { ...job, bound: 0.99 }).widest).not.toBeNull();
  });

  it('says when turning round binds rather than the beam', () => {
    const { quickest: fast } = settingFromWindow(fit, { ...job, widthMm: 1.5 });
    expect(fast!.binding).toBe('turnaround');
    expect(fast!.speedMmPerS).toBeLessThan(100);
  });

  it('is a figure of the grade that its proof earns', () => {
    const coupons = [{ kind: 'coupon', id: 'k' }];
    expect(settingFigure(quickest!, { grade: 'proved', cells: 80, coupons }).grade).toBe('proved');
    expect(settingFigure(quickest!, { grade: 'carried', cells: 80, coupons }).grade).toBe('carried');
    expect(() => settingFromWindow(fit, { ...job, bound: 2 })).toThrow(/bound/);
  });

  it('maps chances between 0 and 1, with the lower boundary under the upper', () => {
    const map = windowMap(fit, {
      powersW: [20, 35, 50],
      speedsMmPerS: [60, 150, 400],
      rest: { intervalMm: 0.06, passes: 1 },
    });
    expect([...map.holds].every((chance) => chance >= 0 && chance <= 1)).toBe(true);
    map.lowerW.forEach((lower, i) => expect(lower).toBeLessThan(map.upperW[i]!));
    const even = outcomeChances(fit, { powerW: map.lowerW[1]!, speedMmPerS: 150, intervalMm: 0.06, passes: 1 });
    expect(even.holds).toBeGreaterThan(0.4);
    expect(even.holds).toBeLessThan(0.6);
  });

  it('gives the bands of a map as stretches of speeds, cut where the chance crosses the level', () => {
    const holds = Float64Array.from([0, 0.2, 0, 0.4, 0.8, 0, 0.6, 1, 0.1]);
    const map = { powersW: [10, 20, 40], speedsMmPerS: [100, 200, 400], holds, lowerW: [], upperW: [] };
    const [band, ...more] = windowBands(map, 0.5);
    expect(more).toEqual([]);
    expect(band!.map(({ speedMmPerS }) => speedMmPerS)).toEqual([100, 200]);
    // Half way from 0.4 to 0.6 in ln power, and from 0.2 to 0.8; the upper end is the map's own.
    expect(band![0]!.lowW).toBeCloseTo(20 * Math.SQRT2, 9);
    expect(band![1]!.lowW).toBeCloseTo(10 * Math.SQRT2, 9);
    expect(band!.map(({ highW }) => highW)).toEqual([40, 40]);
    expect(windowBands({ ...map, holds: holds.map(() => 0) }, 0.5)).toEqual([]);
  });

  it('weighs a focus error as power: none at focus, more further off', () => {
    const at = (errorMm: number) => focusAsPower(equipment, { speedMmPerS: 150, errorMm, rayleighMm: 1.6 });
    expect(at(0)).toBeCloseTo(0, 9);
    expect(at(0.5)).toBeGreaterThan(0);
    expect(at(1)).toBeGreaterThan(at(0.5));
    expect(at(3)).toBeLessThan(1);
  });
});

describe('the next coupon', () => {
  const fit = fitWindow({ cells: cellsOf(3, GRID), equipment, seed: 1 });
  const reach = { leastW: 4, mostW: 55, topSpeedMmPerS: 600 };
  const { quickest } = settingFromWindow(fit, job);

  it('is laid where it may be quicker than what is proven, within what the head can do', () => {
    const block = nextBlock(fit, job, { reach, proven: quickest })!;
    expect(block.about.seconds).toBeLessThan(quickest!.seconds);
    expect(block.about.sure).toBeGreaterThan(0);
    expect(block.powersW.high).toBeLessThanOrEqual(55);
    expect(block.powersW.high / block.powersW.low).toBeCloseTo(1.44, 6);
    expect(block.speedsMmPerS.high).toBeLessThanOrEqual(600);
  });

  it('pays the sooner the surer it is and the more it saves', () => {
    // 30 s at 24 a minute, every other time: 6 a piece of 600.
    const price = { couponMinor: 600, laserMinorPerMinute: 24 };
    const saved = { low: 10, middle: 30, high: 50 };
    expect(paysFrom({ proves: 0.5, saved }, price)).toBe(100);
    expect(paysFrom({ proves: 1, saved }, price)).toBe(50);
    expect(paysFrom({ proves: 0, saved: null }, price)).toBeNull();
  });

  it('is none where nothing tested is likely to be quicker', () => {
    const fastest = { ...quickest!, seconds: 0.001 };
    expect(nextBlock(fit, job, { reach, proven: fastest })).toBeNull();
  });
});

describe('hull', () => {
  it('tells inside from outside in two and three dimensions', () => {
    const triangle = [
      [0, 0],
      [4, 0],
      [0, 4],
    ];
    expect(insideHull([1, 1], triangle)).toBe(true);
    expect(insideHull([2, 2], triangle)).toBe(true);
    expect(insideHull([2.1, 2.1], triangle)).toBe(false);
    expect(
      insideHull(
        [1, 1, 1],
        [
          [0, 0, 0],
          [4, 0, 0],
          [0, 4, 0],
          [0, 0, 4],
        ],
      ),
    ).toBe(true);
    expect(
      insideHull(
        [2, 2, 2],
        [
          [0, 0, 0],
          [4, 0, 0],
          [0, 4, 0],
          [0, 0, 4],
        ],
      ),
    ).toBe(false);
  });

  it('compares a direction in which all agree directly', () => {
    expect(
      insideHull(
        [1, 5],
        [
          [0, 5],
          [2, 5],
        ],
      ),
    ).toBe(true);
    expect(
      insideHull(
        [1, 6],
        [
          [0, 5],
          [2, 5],
        ],
      ),
    ).toBe(false);
    expect(insideHull([3], [])).toBe(false);
  });

  it('holds every mixture of its points', () => {
    // Hulls of logarithms of settings: nothing there is smaller than a billionth.
    const number = fc.double({ min: -5, max: 5, noNaN: true }).map((value) => Number(value.toFixed(9)));
    const point = fc.tuple(number, number);
    fc.assert(
      fc.property(
        fc.array(point, { minLength: 3, maxLength: 9 }),
        fc.array(fc.double({ min: 0.01, max: 1, noNaN: true }), { minLength: 9, maxLength: 9 }),
        (points, weights) => {
          const total = points.reduce((sum, _, i) => sum + weights[i]!, 0);
          const mixed = [0, 1].map((k) => points.reduce((sum, p, i) => sum + (weights[i]! / total) * p[k]!, 0));
          expect(insideHull(mixed, points)).toBe(true);
        },
      ),
    );
  });
});
