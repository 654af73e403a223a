import type { TrendMeasure } from '@unto/core';
import type { LedgerTrendAnswer } from '@unto/contract';
import type { EChartsCoreOption } from 'echarts/core';
import { chartAxis, chartFrame, chartTip } from '../theme/chart-frame';
import type { ChartColours } from '../theme/colours';
import { formatDay } from '../ui/format';

type Point = LedgerTrendAnswer['points'][number];

interface MeasureWords {
  readonly title: string;
  readonly axis: string;
  /** What stands for one of it on the axis. */
  readonly times: number;
  readonly least: number;
  readonly most: number | null;
  /** What it is called when it goes up, and down. */
  readonly ways: readonly [up: string, down: string];
}

export const TREND_WORDS: Readonly<Record<TrendMeasure, MeasureWords>> = {
  contrast: {
    ...{ title: 'Contrast, by eye', axis: 'step of 5', times: 1, least: 1, most: 5 },
    ways: ['Contrast goes up', 'Contrast goes down'],
  },
  good: {
    ...{ title: 'Pieces that came out good', axis: 'of 100', times: 100, least: 0, most: 100 },
    ways: ['More pieces come out good', 'Fewer pieces come out good'],
  },
  minutes: {
    ...{ title: 'Minutes of a piece, measured', axis: 'min', times: 1, least: 0, most: null },
    ways: ['Pieces take longer', 'Pieces go quicker'],
  },
};

/** Chances below which a way is told as seen. */
const SEEN = 0.05;

/** Which way a measure goes, in words that say how likely chance alone does as much. */
export function wayWords(measure: TrendMeasure, ways: LedgerTrendAnswer['ways']): string {
  const way = ways.find((one) => one.measure === measure);
  if (!way) return 'Too few runs to tell a way.';
  const times = way.chance < 0.01 ? 'less than once' : `${Math.round(100 * way.chance)} times`;
  const chance = `chance alone does as much ${times} in 100`;
  if (way.chance >= SEEN) return `No way seen over ${way.runs} runs: ${chance}.`;
  return `${TREND_WORDS[measure].ways[way.tau > 0 ? 0 : 1]} over ${way.runs} runs: ${chance}.`;
}

/** How the axis names its days: a year stands out by being one. */
const DAYS = { year: '{yyyy}', month: '{MMM}', day: '{d} {MMM}', hour: '{HH}:00' };

/** A figure as precise as it can be read. */
export const shown = (measure: TrendMeasure, value: number) =>
  String(Number((value * TREND_WORDS[measure].times).toPrecision(3)));

/** A mean with where it lies nine times in ten. */
export function valueWords(measure: TrendMeasure, value: Point[TrendMeasure]): string {
  if (!value) return '–';
  const { axis } = TREND_WORDS[measure];
  const within =
    value.low === null || value.high === null
      ? 'one run'
      : `${shown(measure, value.low)} to ${shown(measure, value.high)}`;
  return `${shown(measure, value.value)} ${axis} (${within})`;
}

/** One measure over time: means with their intervals as bars, each while's runs in the tip. */
export function trendChart(measure: TrendMeasure, points: readonly Point[], colours: ChartColours): EChartsCoreOption {
  const { axis, times, least, most } = TREND_WORDS[measure];
  const told = points.flatMap((point) => {
    const value = point[measure];
    return value ? [{ point, value, middle: (Date.parse(point.from) + Date.parse(point.to)) / 2 }] : [];
  });
  const style = chartAxis(colours, 12);
  return {
    ...chartFrame,
    grid: { left: 52, right: 24, top: 28, bottom: 28 },
    tooltip: {
      trigger: 'item',
      ...chartTip(colours),
      formatter: (item: unknown) => {
        const { point, value } = told[(item as { dataIndex: number }).dataIndex]!;
        return `${formatDay(point.from)} on: ${valueWords(measure, value)}<br>${value.runs} of ${point.runs} runs tell`;
      },
    },
    xAxis: {
      ...style,
      axisLabel: { ...style.axisLabel, hideOverlap: true, formatter: DAYS },
      type: 'time',
      min: points[0]?.from,
      max: points.at(-1)?.to,
    },
    yAxis: { ...style, type: 'value', name: axis, min: least, minInterval: least, ...(most ? { max: most } : {}) },
    series: [
      {
        type: 'custom',
        silent: true,
        data: told.map(({ middle, value }) => [middle, (value.low ?? NaN) * times, (value.high ?? NaN) * times]),
        encode: { x: 0, y: [1, 2] },
        renderItem: bar(colours),
      },
      {
        type: 'line',
        symbol: 'circle',
        symbolSize: 9,
        showAllSymbol: true,
        lineStyle: { color: colours.rule, width: 1 },
        itemStyle: { color: colours.bonded },
        data: told.map(({ middle, value }) => [middle, value.value * times]),
      },
    ],
  };
}

interface Drawing {
  value(dimension: number): number;
  coord(place: readonly [number, number]): [number, number];
}

/** The interval of a mean: an upright with a foot at either end. */
function bar(colours: ChartColours) {
  return (_: unknown, api: Drawing) => {
    const ends = [1, 2].map((dimension) => api.coord([api.value(0), api.value(dimension)]));
    const [[x, low], [, high]] = ends as [[number, number], [number, number]];
    const line = (x1: number, y1: number, x2: number, y2: number) => ({
      type: 'line',
      shape: { x1, y1, x2, y2 },
      style: { stroke: colours.ink, lineWidth: 1.5 },
    });
    if (![low, high].every(Number.isFinite)) return { type: 'group', children: [] };
    const FOOT = 5;
    const feet = [low, high].map((y) => line(x - FOOT, y, x + FOOT, y));
    return { type: 'group', children: [line(x, low, x, high), ...feet] };
  };
}
