import { describe, expect, it } from 'vitest';
import { trendChart, valueWords, wayWords } from './trend-chart';

const COLOURS = {
  ...{ ink: '#111', quiet: '#666', rule: '#ccc', surface: '#fff', ground: '#eee' },
  ...{ action: '#00f', danger: '#f00', bonded: '#0a0' },
};
const value = (mean: number, reach: number | null) => ({
  ...{ value: mean, low: reach === null ? null : mean - reach, high: reach === null ? null : mean + reach, runs: 3 },
});
const point = (month: number, good: ReturnType<typeof value> | null) => ({
  from: `2026-0${month}-01T00:00:00.000Z`,
  to: `2026-0${month + 1}-01T00:00:00.000Z`,
  ...{ runs: 4, pieces: 20, contrast: null, good, minutes: null },
});
const series = (points: ReturnType<typeof point>[]) =>
  (trendChart('good', points, COLOURS) as { series: { data: [number, ...number[]][]; renderItem: any }[] }).series;

describe('the chart of a trend', () => {
  it('sets each mean in the middle of its while, in what the axis shows, and leaves out what nobody knows', () => {
    const [bars, means] = series([point(1, value(0.9, 0.05)), point(2, null), point(3, value(0.8, null))]);
    expect(means!.data.map(([, good]) => good)).toEqual([90, 80]);
    expect(new Date(means!.data[0]![0]).toISOString()).toBe('2026-01-16T12:00:00.000Z');
    expect(bars!.data[0]!.slice(1).map((end) => Math.round(end))).toEqual([85, 95]);
    expect(bars!.data[1]!.slice(1)).toEqual([NaN, NaN]);
  });

  it('draws an interval as an upright between two feet, and none of one run', () => {
    const { renderItem, data } = series([point(1, value(0.9, 0.05)), point(3, value(0.8, null))])[0]!;
    const drawn = (i: number) =>
      renderItem(null, { value: (k: number) => data[i]![k], coord: ([x, y]: [number, number]) => [x / 1e10, 100 - y] });
    expect(drawn(0).children).toHaveLength(3);
    expect(drawn(1).children).toHaveLength(0);
  });

  it('says a mean with its interval and a way with its chance', () => {
    expect(valueWords('good', value(0.9, 0.05))).toBe('90 of 100 (85 to 95)');
    expect(valueWords('minutes', value(1.5, null))).toBe('1.5 min (one run)');
    expect(valueWords('contrast', null)).toBe('–');
    const way = (tau: number, chance: number) => [{ measure: 'minutes' as const, tau, chance, runs: 9 }];
    expect(wayWords('minutes', way(-0.6, 0.02))).toBe(
      'Pieces go quicker over 9 runs: chance alone does as much 2 times in 100.',
    );
    expect(wayWords('minutes', way(0.2, 0.4))).toBe(
      'No way seen over 9 runs: chance alone does as much 40 times in 100.',
    );
    expect(wayWords('good', way(0.2, 0.4))).toBe('Too few runs to tell a way.');
  });
});
