import { chartAxis, chartFrame, chartTip, LETTERS } from '../theme/chart-frame';
import type { ChartColours } from '../theme/colours';
import { unitName, windowBands, type WindowBand, type WindowCell } from '@unto/core';
import type { EChartsCoreOption } from 'echarts/core';
import { withUnit } from '../ui/format';
import type { Point } from './label-spots';
import { labelSeries, type LabelledLine } from './map-labels';
import type { MapLevel } from './map-shown';
import type { Axes, MarkedBlock, MarkedSetting, WindowInput } from './window-input';

/** The window over speed and power: chance of holding in steps of tint, cells by shape, the setting with its box, the next coupon. */
export function windowChart(input: WindowInput): EChartsCoreOption {
  const { colours } = input;
  const axes = axesOf(input);
  const { x, y } = axes;
  const powers = ticks(y.from, y.to);
  const of = (outcome: WindowCell['outcome']) =>
    input.cells
      .filter((cell) => cell.outcome === outcome)
      .map((cell) => [x.at(cell.speedMmPerS), y.at(cell.powerPercent)]);
  const axis = {
    type: 'log' as const,
    ...chartAxis(colours),
  };
  const tints = input.levels.map((level) => levelTint(input, level, axes));
  const edges = tints.flatMap((tint) => tint.edges);
  const doses = doseLines(input, axes);
  return {
    ...chartFrame,
    grid: { left: 64, right: 66, top: 18, bottom: 56 },
    tooltip: {
      trigger: 'item',
      formatter: (item: unknown) => tooltip(item as { seriesName: string; data: number[] }, axes),
      ...chartTip(colours),
    },
    xAxis: {
      ...axis,
      name: `speed, ${x.unit}`,
      nameLocation: 'middle',
      nameGap: 34,
      min: x.from,
      max: x.to,
      logBase: 2,
      axisTick: { customValues: ticks(x.from, x.to) },
      ...{ axisLabel: { ...axis.axisLabel, customValues: ticks(x.from, x.to) } },
    },
    yAxis: [
      {
        ...axis,
        name: `power, ${unitName(y.unit)}`,
        nameLocation: 'middle',
        nameGap: 44,
        min: y.from,
        max: y.to,
        logBase: 2,
        axisTick: { customValues: powers },
        ...{ axisLabel: { ...axis.axisLabel, customValues: powers } },
      },
      wattAxis(input, axis, axes, powers),
    ],
    dataZoom: [
      { type: 'inside', xAxisIndex: 0, filterMode: 'none', zoomOnMouseWheel: 'ctrl' },
      { type: 'inside', yAxisIndex: [0, 1], filterMode: 'none', zoomOnMouseWheel: 'ctrl' },
    ],
    series: [
      ...tints.flatMap(({ series }) => series),
      ...doses.map(({ data }) => doseSeries(data, colours)),
      ...heatLines(input, axes),
      {
        name: 'holds',
        type: 'scatter',
        symbol: 'circle',
        symbolSize: 10,
        data: of('holds'),
        itemStyle: { color: colours.ink, borderColor: colours.surface, borderWidth: 1 },
      },
      {
        name: 'too little',
        type: 'scatter',
        symbol: 'circle',
        symbolSize: 10,
        data: of('under'),
        itemStyle: { color: colours.surface, borderColor: colours.ink, borderWidth: 1.6 },
      },
      {
        name: 'too much',
        type: 'scatter',
        symbol: 'path://M1 0 L5 4 L9 0 L10 1 L6 5 L10 9 L9 10 L5 6 L1 10 L0 9 L4 5 L0 1 Z',
        symbolSize: 11,
        data: of('over'),
        itemStyle: { color: colours.danger },
      },
      oddRings(input, axes),
      ...(input.next ? [nextSeries(input.next, colours, axes)] : []),
      ...(input.setting ? [settingSeries(input.setting, input.powerShare, colours, axes)] : []),
      labelSeries(input, axes, { edges, doses }),
    ],
  };
}

/** Speed and power as they read here, from the first of the map to the last. */
function axesOf({ map, powersPercent, units }: WindowInput): Axes {
  const axis = (quantity: 'speed' | 'power', values: readonly number[]) => {
    const [low, high] = [values[0]!, values.at(-1)!];
    const found = units.axis(quantity, low, high);
    return { ...found, from: found.at(low), to: found.at(high) };
  };
  return { x: axis('speed', map.speedsMmPerS), y: axis('power', powersPercent) };
}

/** Watts at the part beside the panel's power, at the same places; an axis without a series of its own needs its ends said. */
function wattAxis(
  { wattsOf, powersPercent, colours }: WindowInput,
  axis: object,
  { y }: Axes,
  powers: readonly number[],
) {
  // The panel's unit may not be percent: watts are looked up by where their percentage reads.
  const watts = new Map(powers.map((read) => [read, nearest(powersPercent, (percent) => y.at(percent), read)]));
  return {
    ...axis,
    name: 'W at the part',
    nameLocation: 'middle' as const,
    nameGap: 44,
    position: 'right' as const,
    min: y.from,
    max: y.to,
    logBase: 2,
    axisTick: { customValues: powers },
    axisLabel: {
      color: colours.quiet,
      fontFamily: LETTERS.figures,
      fontSize: 12,
      customValues: powers,
      formatter: (read: number) => {
        const percent = watts.get(read);
        return percent === undefined ? '' : wattsOf(percent).toFixed(1);
      },
    },
  };
}

/** Of a rising row of percentages the place, between two of them, that reads so. */
function nearest(percents: readonly number[], read: (percent: number) => number, wanted: number): number {
  let [low, high] = [percents[0]!, percents.at(-1)!];
  for (let i = 0; i < 40; i += 1) {
    const middle = (low + high) / 2;
    if (read(middle) < wanted) low = middle;
    else high = middle;
  }
  return high;
}

/** What reaches a level, filled, with its edge drawn. */
function levelTint(
  { map, percentOf, powersPercent, colours, levels }: WindowInput,
  { level, opacity, word }: MapLevel,
  { x, y }: Axes,
) {
  const top = powersPercent.at(-1)!;
  const power = (watts: number) => y.at(Math.min(top, percentOf(watts) ?? top));
  const outline = (band: WindowBand) => [
    ...band.map(({ speedMmPerS, lowW }) => [x.at(speedMmPerS), power(lowW)]),
    ...[...band].reverse().map(({ speedMmPerS, highW }) => [x.at(speedMmPerS), power(highW)]),
  ];
  const bands = windowBands(map, level).filter((band) => band.length > 1);
  const edges = bands.map((band): LabelledLine => ({
    word,
    data: band.map(({ speedMmPerS, lowW }): Point => [x.at(speedMmPerS), power(lowW)]),
  }));
  const series = [
    {
      name: `from ${word}`,
      type: 'custom',
      silent: true,
      clip: true,
      data: bands.map((_, i) => [i]),
      renderItem: (_params: unknown, api: { value: (i: number) => number; coord: (p: number[]) => number[] }) => ({
        type: 'polygon',
        shape: { points: outline(bands[api.value(0)]!).map((point) => api.coord(point)) },
        style: { fill: colours.bonded, opacity },
      }),
    },
    ...edges.map(({ data }) => ({
      name: `edge of ${word}`,
      type: 'line' as const,
      showSymbol: false,
      silent: true,
      data: [...data],
      lineStyle: { color: colours.bonded, width: level === levels[0]!.level ? 2.4 : 1.2 },
    })),
  ];
  return { series, edges };
}

/** Lines of equal heat stand twice as hot from one to the next, about the middle of the map. */
const HEATS = [0.25, 0.5, 1, 2, 4];

/** Lines on which every setting heats the surface alike: it is an index, and no temperature. */
function heatLines({ map, percentOf, heatOf, colours, powersPercent }: WindowInput, { x, y }: Axes) {
  const [least, most] = [powersPercent[0]!, powersPercent.at(-1)!];
  const { speedsMmPerS, powersW } = map;
  const middle = Math.sqrt(powersW[0]! * powersW.at(-1)!) * heatOf(Math.sqrt(speedsMmPerS[0]! * speedsMmPerS.at(-1)!));
  return HEATS.flatMap((times) => {
    const data = speedsMmPerS.flatMap((speed) => {
      const percent = percentOf((times * middle) / heatOf(speed));
      return percent === null || percent < least || percent > most ? [] : [[x.at(speed), y.at(percent)]];
    });
    if (data.length < 4) return [];
    return [
      {
        ...{ name: 'same heat', type: 'line' as const, showSymbol: false, silent: true, data },
        lineStyle: { color: colours.quiet, width: 1, type: [6, 5], opacity: 0.6 },
      },
    ];
  });
}

const DOSES = [0.5, 1, 2, 4, 8, 16, 32];

/** Lines on which every setting lays down the same energy a square millimetre. */
function doseLines({ map, percentOf, intervalMm, passes, powersPercent }: WindowInput, { x, y }: Axes): LabelledLine[] {
  const [least, most] = [powersPercent[0]!, powersPercent.at(-1)!];
  return DOSES.flatMap((dose) => {
    const data = map.speedsMmPerS.flatMap((speed): Point[] => {
      const percent = percentOf((dose * speed * intervalMm) / passes);
      return percent === null || percent < least || percent > most ? [] : [[x.at(speed), y.at(percent)]];
    });
    return data.length < 4 ? [] : [{ word: `${dose} J/mm²`, data }];
  });
}

const doseSeries = (data: readonly Point[], { quiet }: ChartColours) => ({
  ...{ name: 'same dose', type: 'line' as const, showSymbol: false, silent: true, data: [...data] },
  lineStyle: { color: quiet, width: 1, type: 'dotted' as const },
});

/** A ring about each cell that the others do not bear out. */
function oddRings({ cells, colours }: WindowInput, { x, y }: Axes) {
  return {
    name: 'look again',
    type: 'scatter' as const,
    silent: true,
    symbol: 'circle',
    symbolSize: 20,
    data: cells.filter(({ odd }) => odd).map((cell) => [x.at(cell.speedMmPerS), y.at(cell.powerPercent)]),
    itemStyle: { color: 'transparent', borderColor: colours.danger, borderWidth: 2 },
  };
}

/** Where the next coupon would try, dashed. */
function nextSeries({ powersPercent, speedsMmPerS }: MarkedBlock, colours: ChartColours, { x, y }: Axes) {
  const [low, high] = [0, 1].map((end) => [x.at(speedsMmPerS[end]!), y.at(powersPercent[end]!)]);
  return {
    name: 'next coupon',
    type: 'scatter' as const,
    silent: true,
    data: [],
    markArea: {
      silent: true,
      itemStyle: { color: 'transparent', borderColor: colours.ink, borderWidth: 1.5, borderType: 'dashed' as const },
      data: [[{ coord: low }, { coord: high }]],
    },
  };
}

function settingSeries(setting: MarkedSetting, powerShare: number, colours: ChartColours, { x, y }: Axes) {
  const { speedMmPerS, powerPercent } = setting;
  return {
    name: 'setting',
    type: 'scatter' as const,
    symbol: 'diamond',
    symbolSize: 16,
    data: [[x.at(speedMmPerS), y.at(powerPercent)]],
    itemStyle: { color: colours.action, borderColor: colours.surface, borderWidth: 1 },
    markArea: {
      silent: true,
      itemStyle: { color: 'transparent', borderColor: colours.action, borderWidth: 2 },
      data: [
        [
          { coord: [x.at(speedMmPerS / 1.035), y.at(powerPercent * (1 - powerShare))] },
          { coord: [x.at(speedMmPerS * 1.035), y.at(Math.min(100, powerPercent * (1 + powerShare)))] },
        ],
      ],
    },
  };
}

function tooltip({ seriesName, data }: { seriesName: string; data: number[] }, { x, y }: Axes): string {
  const [speed, power] = data;
  return `${seriesName}<br>${withUnit(power!, y.unit, 3)} · ${withUnit(speed!, x.unit, 3)}`;
}

const NICE = [1, 1.5, 2, 3, 5, 7.5];

/** Round numbers between two ends, evenly spread on a log axis. */
export function ticks(low: number, high: number): number[] {
  const found: number[] = [];
  for (let decade = 10 ** Math.floor(Math.log10(low)); decade <= high; decade *= 10) {
    for (const nice of NICE) {
      const value = Number((nice * decade).toPrecision(3));
      if (value >= low * 0.999 && value <= high * 1.001) found.push(value);
    }
  }
  return found;
}
