import { describe, expect, it } from 'vitest';
import { seededRandom } from '../support/random.js';
import { ledgerTrend, type TrendRun } from './ledger-trend.js';

const DAY = 86_400_000;
const run = (day: number, change: Partial<TrendRun> = {}): TrendRun => ({
  ...{ at: Date.UTC(2026, 0, 5) + day * DAY, pieces: 10, minutes: 20, contrast: 4, good: 10, ...change },
});

describe('the ledger over time', () => {
  it('gathers runs by calendar whiles that a chart carries', () => {
    const { by, points } = ledgerTrend([run(0), run(0), run(3), run(20)]);
    expect([by, points.length, points[0]!.runs, points[1]!.runs, points[3]!.runs]).toEqual(['day', 21, 2, 0, 1]);
    expect(points[1]!.contrast).toBeNull();
    expect(ledgerTrend(Array.from({ length: 40 }, (_, i) => run(20 * i))).by).toBe('month');
  });

  it('tells a mean by Student’s interval over runs: 3, 4, 5 is 4 ± 2.920 ÷ √3', () => {
    const [point] = ledgerTrend([3, 4, 5].map((contrast) => run(0, { contrast }))).points;
    expect(point!.contrast!.value).toBe(4);
    expect(point!.contrast!.high).toBe(5);
    const [wide] = ledgerTrend([1, 2, 6].map((minutes) => run(0, { minutes: 10 * minutes }))).points;
    const s = Math.sqrt(7);
    expect(wide!.minutes!.high).toBeCloseTo(3 + (2.92 * s) / Math.sqrt(3), 6);
    expect(wide!.minutes!.low).toBe(0);
  });

  it('claims no more of good pieces than their number can tell, though all runs came out alike', () => {
    const [point] = ledgerTrend([run(0), run(0), run(0)]).points;
    // 30 of 30: the one-sided 95 % bound of Clopper and Pearson is 0.05^(1/30).
    expect(point!.good!.low).toBeCloseTo(0.05 ** (1 / 30), 6);
    expect(point!.good).toMatchObject({ value: 1, high: 1, runs: 3 });
  });

  it('knows that a step read the same each time was rounded: 4, 4, 4 is 4 ± 2.920 ÷ √36', () => {
    const [point] = ledgerTrend([run(0), run(0), run(0)]).points;
    expect(point!.contrast!.high! - 4).toBeCloseTo(2.92 / 6, 6);
  });

  it('has intervals that hold the true share nine times in ten, though pieces share their run’s fortune', () => {
    const random = seededRandom(5);
    let within = 0;
    const SHOPS = 400;
    for (let i = 0; i < SHOPS; i += 1) {
      const runs = Array.from({ length: 10 }, () => {
        // Each run has a chance of its own, 0.6 to 1: 0.8 at the middle.
        const chance = 0.6 + 0.4 * random();
        const good = Array.from({ length: 12 }, () => random() < chance).filter(Boolean).length;
        return run(0, { pieces: 12, good });
      });
      const { low, high } = ledgerTrend(runs).points[0]!.good!;
      if (low! <= 0.8 && high! >= 0.8) within += 1;
    }
    expect(within / SHOPS).toBeGreaterThan(0.87);
  });

  it('leaves out what nobody judged or timed, and one run tells no interval', () => {
    const [point] = ledgerTrend([run(0, { minutes: null }), run(0, { contrast: null, good: null })]).points;
    expect(point).toMatchObject({
      runs: 2,
      pieces: 20,
      contrast: { runs: 1, low: null },
      minutes: { runs: 1, high: null },
    });
    expect(ledgerTrend([])).toEqual({ by: 'day', points: [], ways: [] });
  });

  it('tells a way over single runs, seldom where there is none', () => {
    const falling = Array.from({ length: 20 }, (_, i) => run(3 * i, { contrast: 5 - Math.floor(i / 5) }));
    const way = ledgerTrend(falling).ways.find(({ measure }) => measure === 'contrast')!;
    expect([way.tau < -0.8, way.chance < 0.001, way.runs]).toEqual([true, true, 20]);
    const random = seededRandom(11);
    const told = Array.from({ length: 300 }, () => {
      const runs = Array.from({ length: 15 }, (_, i) => run(i, { contrast: 3 + Math.floor(3 * random()) }));
      return ledgerTrend(runs).ways.find(({ measure }) => measure === 'contrast')!.chance;
    });
    expect(told.filter((chance) => chance < 0.05).length / 300).toBeLessThan(0.08);
    expect(ledgerTrend([run(0), run(1)]).ways).toEqual([]);
  });
});
