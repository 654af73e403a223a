import type { DriftChart } from '@unto/contract';
import { describe, expect, it } from 'vitest';
import { orderOf } from '../window/useOffers';
import { comparedText, pairingIn, windowAddress, windowQueryOf } from '../window/address';
import { mainKind } from '../window/main-kind';
import { controlChart, isOut } from '../recipes/control-chart';
import { compareChart } from './compare-chart';
import { comparedIn, letterOf, MOST_COMPARED } from './compared';

const colours = {
  ...{ ink: '#1', quiet: '#2', rule: '#3', surface: '#4', ground: '#5', action: '#6', danger: '#7', bonded: '#8' },
};
const pairing = { substrateId: 's', headId: 'h', lensId: 'l', compoundId: 'c' };

describe('addresses of windows', () => {
  it('hold a pairing, bare or coated, and the ticket whose job it is looked at for', () => {
    expect(windowAddress(pairing)).toBe('/windows/s/h/l/c');
    expect(windowAddress({ ...pairing, compoundId: null }, 't')).toBe('/windows/s/h/l/bare?ticket=t');
    expect(pairingIn({ ...pairing, compoundId: 'bare' }).compoundId).toBeNull();
    expect(windowQueryOf({ ...pairing, compoundId: null }).compoundId).toBeUndefined();
  });

  it('hold windows that are compared, by lot and coats, each once, six at the most, and nothing that is none', () => {
    const one = { ...pairing, lot: 'K 7|b_%', coats: 2 };
    const bare = { ...pairing, compoundId: null, lot: null, coats: null };
    // A lot may have any sign in its name.
    expect(comparedIn([comparedText(one), comparedText(bare)])).toEqual([one, bare]);
    expect(comparedIn([comparedText(bare), comparedText(bare)])).toHaveLength(1);
    expect(comparedIn(['nonsense', undefined])).toEqual([]);
    const many = Array.from({ length: 9 }, (_, i) => comparedText({ ...bare, headId: `h${i}` }));
    expect(comparedIn(many)).toHaveLength(MOST_COMPARED);
    expect([letterOf(0), letterOf(5)]).toEqual(['A', 'F']);
  });
});

describe('windows on one chart', () => {
  it('have an outline each, closed, with its letter and its quickest setting', () => {
    const bands = [[100, 150, 200].map((speedMmPerS) => ({ speedMmPerS, lowW: speedMmPerS / 5, highW: 50 }))];
    const { series } = compareChart(
      [
        { letter: 'A', bands, setting: { powerW: 48, speedMmPerS: 140 } },
        { letter: 'B', bands: [], setting: null },
      ],
      colours,
    ) as { series: { name: string; data: number[][] }[] };
    const outline = series.find(({ name }) => name === 'A')!.data;
    expect(outline[0]).toEqual(outline.at(-1));
    expect(outline).toHaveLength(7);
    expect(series.find(({ name }) => name === 'A, its quickest proven')!.data).toEqual([[140, 48]]);
    expect(series.some(({ name }) => name === 'B')).toBe(false);
    // None that holds anywhere still draws.
    expect(() => compareChart([{ letter: 'A', bands: [], setting: null }], colours)).not.toThrow();
  });
});

describe('what a window offers first', () => {
  const weights = { contrast: 3, rate: 8, durability: 5, cost: 1 } as never;
  it('is what the shop’s profile weighs most, the quickest where it has none', () => {
    expect(orderOf(null).slice(0, 2)).toEqual(['mix', 'quickest']);
    expect(orderOf(weights)).toEqual(['mix', 'quickest', 'widest', 'strongest', 'cheapest']);
    expect(orderOf({ ...(weights as object), contrast: 9 } as never)[1]).toBe('strongest');
  });

  it('is called by the first of its aims in the usual order', () => {
    expect(mainKind({ kind: 'cheapest', also: ['quickest'] })).toBe('quickest');
    expect(mainKind({ kind: 'strongest', also: [] })).toBe('strongest');
  });
});

describe('a control chart', () => {
  const point = (value: number, rules: string[] = [], low = 0) => ({
    ...{ runId: 'r', at: '2026-11-01T10:00:00Z', value, z: 0, high: 0, low, rules },
  });
  const chart: DriftChart = {
    ...{ measure: 'hold rate', centre: 0.95, spread: 0.05, baseline: 2, alarm: { index: 2, words: 'x', sure: false } },
    points: [point(1), point(0.9), point(0.5, ['beyond 3 σ']), point(0.9, [], 5)],
  };

  it('shows shares of a hundred, and runs that are out by another shape and colour', () => {
    const { series } = controlChart(chart, colours) as {
      series: {
        data: { value: number[]; itemStyle: { color: string } }[];
        symbol: (v: unknown, p: { dataIndex: number }) => string;
      }[];
    };
    const [line] = series;
    expect(line!.data.map(({ value }) => value)).toEqual([
      [1, 100],
      [2, 90],
      [3, 50],
      [4, 90],
    ]);
    expect([0, 2, 3].map((dataIndex) => line!.symbol(null, { dataIndex }))).toEqual(['circle', 'diamond', 'diamond']);
    expect(line!.data[2]!.itemStyle.color).toBe(colours.danger);
    expect(chart.points.map(isOut)).toEqual([false, false, true, true]);
  });
});
