import {
  CORE_READING,
  fitWindow,
  PLAIN_SETTING,
  seededRandom,
  standardNormal,
  windowMap,
  type WindowCell,
} from '@unto/core';
import { describe, expect, it } from 'vitest';
import type { CouponWindowCell } from '@unto/domain';
import { shallowRef } from 'vue';
import { inCoreUnits } from '../testing/shop';
import { unitsOf } from '../ui/useUnits';
import { percentFor, powerAxis, speedAxis } from './useWindow';
import { CHANCES, shownMap } from './map-shown';
import { sectionChart } from './section-chart';
import { ticks, windowChart } from './window-chart';

const colours = {
  ink: '#1',
  quiet: '#2',
  rule: '#3',
  surface: '#4',
  ground: '#5',
  action: '#6',
  danger: '#7',
  bonded: '#8',
};
const random = seededRandom(2);
const cells: CouponWindowCell[] = [40, 55, 70, 85, 100].flatMap((powerPercent) =>
  [60, 120, 240, 480].map((speedMmPerS) => {
    const powerW = powerPercent * 0.5;
    const effect = Math.log(powerW) - 0.6 * Math.log(speedMmPerS) + 0.1 * standardNormal(random);
    const outcome: WindowCell['outcome'] = effect < 0.55 ? 'under' : effect < 1.2 ? 'holds' : 'over';
    const setting = { ...PLAIN_SETTING, powerPercent, powerW, speedMmPerS, intervalMm: 0.06 };
    return {
      ...setting,
      outcome,
      couponId: 'k',
      runId: null,
      cell: 0,
      coats: 1,
      byEye: false,
      lookedAgain: false,
      kept: null,
    };
  }),
);

describe('window chart', () => {
  const powersPercent = powerAxis(cells);
  const map = windowMap(
    fitWindow({ cells, equipment: { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 }, seed: 1 }),
    {
      powersW: powersPercent.map((percent) => percent * 0.5),
      speedsMmPerS: speedAxis(cells),
      rest: { intervalMm: 0.06, passes: 1 },
    },
  );
  const input = {
    ...{ map, levels: CHANCES, powersPercent, cells, colours, units: inCoreUnits },
    percentOf: (watts: number) => (watts > 50 ? null : watts * 2),
    wattsOf: (percent: number) => percent * 0.5,
    // As at high speed: heat falls with its root.
    heatOf: (speed: number) => speed ** -0.5,
    ...{ setting: null, next: null, intervalMm: 0.06, passes: 1, powerShare: 0.05 },
  };
  const option = (setting: { powerPercent: number; speedMmPerS: number } | null, units = inCoreUnits) =>
    windowChart({ ...input, setting, units }) as { series: { name: string; data: unknown[] }[] };
  const series = (name: string, of = option(null)) => of.series.find((found) => found.name === name)!;

  it('has a band for each level that is reached, its edge, and every cell under its outcome', () => {
    for (const level of [50, 80]) {
      expect(series(`from ${level}`).data).toHaveLength(1);
      expect(series(`edge of ${level}`).data.length).toBeGreaterThan(5);
    }
    const counted = ['holds', 'too little', 'too much'].map((name) =>
      option(null)
        .series.filter((found) => found.name === name)
        .reduce((sum, { data }) => Math.max(sum, data.length), 0),
    );
    expect(counted.reduce((sum, n) => sum + n, 0)).toBe(cells.length);
  });

  it('draws lines of equal heat: four times the speed asks for twice the power', () => {
    const lines = option(null).series.filter(({ name }) => name === 'same heat');
    expect(lines.length).toBeGreaterThan(1);
    for (const { data } of lines as { data: [number, number][] }[]) {
      const [first, last] = [data[0]!, data.at(-1)!];
      expect(Math.log(last[1] / first[1]) / Math.log(last[0] / first[0])).toBeCloseTo(0.5, 3);
    }
  });

  it('cuts along an axis: band below and above the chance, and the cells near', () => {
    const points = [60, 120, 240].map((speedMmPerS, i) => ({
      powerW: 30,
      speedMmPerS,
      mean: 0.9 - 0.3 * i,
      low: 0.5 - 0.2 * i,
      high: 1,
    }));
    const { series: drawn } = sectionChart({
      ...{ points, cells: cells.slice(0, 4), axis: 'speed, mm/s', colours },
      at: ({ speedMmPerS }) => speedMmPerS,
    }) as { series: { name: string; data: [number, number][] }[] };
    const of = (name: string) => drawn.find((one) => one.name === name)!.data;
    expect(of('holds')[0]).toEqual([60, 90]);
    expect(of('least')[1]![1] + of('nine times in ten')[1]![1]).toBeCloseTo(100, 9);
    expect(drawn.slice(3).reduce((sum, { data }) => sum + data.length, 0)).toBe(4);
  });

  it('shows a measure in round steps of what it ranges over, and the chance where none is asked for', () => {
    const contrast = map.holds.map((_, i) => -3 + (66 * i) / (map.holds.length - 1));
    const shown = shownMap(map, contrast);
    expect(shown.levels.map(({ word }) => word)).toEqual(['10', '30', '50']);
    expect(shown.map.holds).toBe(contrast);
    expect(shownMap(map, null)).toEqual({ map, levels: CHANCES });
    // All alike: one step, nothing to divide by.
    expect(
      shownMap(
        map,
        map.holds.map(() => 7),
      ).levels,
    ).toHaveLength(1);
  });

  it('rings the cells that disagree and draws the next coupon where there is one', () => {
    expect(series('look again').data).toHaveLength(0);
    expect(series('next coupon')).toBeUndefined();
    const odd = cells.map((cell, i) => ({ ...cell, odd: i === 3 }));
    const next = { powersPercent: [70, 95], speedsMmPerS: [100, 250] } as const;
    const marked = windowChart({ ...input, cells: odd, next }) as { series: { name: string; data: unknown[] }[] };
    expect(marked.series.find(({ name }) => name === 'look again')!.data).toEqual([[480, 40]]);
    expect(marked.series.some(({ name }) => name === 'next coupon')).toBe(true);
  });

  it('marks the setting with its tolerance box, and nothing where there is none', () => {
    const marked = series('setting', option({ powerPercent: 90, speedMmPerS: 150 })) as unknown as {
      markArea: { data: { coord: number[] }[][] };
    };
    expect(marked.markArea.data[0]!.map(({ coord }) => coord[1])).toEqual([85.5, 94.5]);
    expect(series('setting')).toBeUndefined();
  });

  it('reaches a little beyond what was tested, never beyond full power', () => {
    expect(powersPercent.at(-1)).toBeCloseTo(100, 9);
    expect(powersPercent[0]).toBeLessThan(40);
    expect(speedAxis(cells).at(-1)).toBeGreaterThan(480);
  });

  it('stands in the units of the panel, every point where it stood', () => {
    const dialTable = [
      { x: 1, y: 20 },
      { x: 5, y: 150 },
      { x: 9, y: 900 },
    ];
    const setting = { powerPercent: 90, speedMmPerS: 150 };
    const at = (units: object, scale: object) =>
      option(setting, unitsOf(shallowRef({ units: { ...CORE_READING.units, ...units }, scale }))) as unknown as {
        xAxis: { name: string; min: number };
        yAxis: { name: string }[];
        series: { name: string; data: number[][] }[];
      };
    const minutes = at({ speed: 'mm/min', power: '0-1000' }, {});
    expect([minutes.xAxis.name, minutes.yAxis[0]!.name]).toEqual(['speed, mm/min', 'power, of 1000']);
    expect(minutes.xAxis.min).toBeCloseTo(60 * speedAxis(cells)[0]!, 6);
    expect(minutes.series.find(({ name }) => name === 'setting')!.data[0]).toEqual([9000, 900]);
    const dial = at({ speed: 'dial' }, { dialTable });
    expect(dial.series.find(({ name }) => name === 'setting')!.data[0]![0]).toBeCloseTo(5, 6);
    // A dial that does not reach as far as the map leaves the whole axis in mm/s.
    const short = at({ speed: 'dial' }, { dialTable: dialTable.slice(0, 2) });
    expect(short.xAxis.name).toBe('speed, mm/s');
    expect(short.series.find(({ name }) => name === 'setting')!.data[0]).toEqual([150, 90]);
  });

  it('puts round numbers on a log axis', () => {
    expect(ticks(48, 620)).toEqual([50, 75, 100, 150, 200, 300, 500]);
    expect(ticks(0.9, 1.1)).toEqual([1]);
  });

  it('finds the percentage for watts on the head’s own curve', () => {
    const equipment = {
      head: { ratedW: 50, firingThresholdPercent: 0, usual: [] },
      calibration: {
        rows: [
          { percent: 0, watts: 0 },
          { percent: 50, watts: 30 },
          { percent: 100, watts: 50 },
        ],
      },
    } as never;
    expect(percentFor(30, equipment)).toBeCloseTo(50, 6);
    expect(percentFor(51, equipment)).toBeNull();
  });
});
