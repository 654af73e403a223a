import type { ChartColours } from '../theme/colours';
import { unitName, type WindowCell, type WindowMap } from '@unto/core';
import type { EChartsCoreOption } from 'echarts/core';
import { withUnit } from '../ui/format';
import type { Axis, Units } from '../ui/useUnits';

/** A setting to be marked on the map with its tolerance box. */
export interface MarkedSetting {
  readonly powerPercent: number;
  readonly speedMmPerS: number;
  readonly label: string;
}

interface WindowInput {
  readonly map: WindowMap;
  readonly powersPercent: readonly number[];
  readonly lowerPercent: readonly (number | null)[];
  readonly upperPercent: readonly (number | null)[];
  readonly cells: readonly (WindowCell & { readonly powerPercent: number })[];
  readonly setting: MarkedSetting | null;
  readonly powerShare: number;
  readonly colours: ChartColours;
  readonly units: Units;
}

/** The window over speed and power: chance of holding as tint, boundaries, cells by shape, the setting with its box. */
export function windowChart(input: WindowInput): EChartsCoreOption {
  const { colours } = input;
  const axes = axesOf(input);
  const { x, y } = axes;
  const of = (outcome: WindowCell['outcome']) =>
    input.cells
      .filter((cell) => cell.outcome === outcome)
      .map((cell) => [x.at(cell.speedMmPerS), y.at(cell.powerPercent)]);
  const axis = {
    type: 'log' as const,
    axisLine: { lineStyle: { color: colours.ink } },
    axisLabel: { color: colours.ink, fontFamily: 'JetBrains Mono', fontSize: 13 },
    splitLine: { show: false },
    nameTextStyle: { color: colours.quiet, fontSize: 14 },
  };
  return {
    animation: false,
    textStyle: { fontFamily: 'Atkinson Hyperlegible' },
    grid: { left: 64, right: 22, top: 18, bottom: 56 },
    tooltip: {
      trigger: 'item',
      formatter: (item: unknown) => tooltip(item as { seriesName: string; data: number[] }, axes),
      backgroundColor: colours.surface,
      borderColor: colours.rule,
      textStyle: { color: colours.ink },
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
    yAxis: {
      ...axis,
      name: `power, ${unitName(y.unit)}`,
      nameLocation: 'middle',
      nameGap: 44,
      min: y.from,
      max: y.to,
      logBase: 2,
      axisTick: { customValues: ticks(y.from, y.to) },
      ...{ axisLabel: { ...axis.axisLabel, customValues: ticks(y.from, y.to) } },
    },
    dataZoom: [{ type: 'inside', xAxisIndex: 0, filterMode: 'none', zoomOnMouseWheel: 'ctrl' }],
    series: [
      {
        name: 'chance of holding',
        type: 'custom',
        data: tilesOf(input, axes),
        clip: true,
        progressive: 120,
        progressiveThreshold: 120,
        renderItem: (_params: unknown, api: { value: (i: number) => number; coord: (p: number[]) => number[] }) => {
          const chance = api.value(2);
          const [x0, y0] = api.coord([api.value(3), api.value(6)]);
          const [x1, y1] = api.coord([api.value(5), api.value(4)]);
          const [left, top] = [Math.round(x0!), Math.round(y0!)];
          return {
            type: 'rect',
            shape: { x: left, y: top, width: Math.round(x1!) - left, height: Math.round(y1!) - top },
            style: { fill: colours.bonded, opacity: chance ** 1.4 * 0.72 },
          };
        },
      },
      line('even bet: too little', input.map.speedsMmPerS, input.lowerPercent, colours.bonded, axes),
      line('even bet: too much', input.map.speedsMmPerS, input.upperPercent, colours.danger, axes),
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
      ...words(input, axes),
      ...(input.setting ? [settingSeries(input.setting, input.powerShare, colours, axes)] : []),
    ],
  };
}

interface Axes {
  readonly x: Axis & { readonly from: number; readonly to: number };
  readonly y: Axis & { readonly from: number; readonly to: number };
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

/** Speed, power, chance, and the corners of the tile halfway to its neighbours. */
function tilesOf({ map, powersPercent }: WindowInput, { x, y }: Axes): number[][] {
  const speeds = map.speedsMmPerS;
  const halfSpeed = Math.sqrt(speeds[1]! / speeds[0]!);
  const halfPower = Math.sqrt(powersPercent[1]! / powersPercent[0]!);
  return powersPercent.flatMap((power, i) =>
    speeds.map((speed, j) => [
      x.at(speed),
      y.at(power),
      map.holds[i * speeds.length + j]!,
      x.at(speed / halfSpeed),
      y.at(power / halfPower),
      x.at(speed * halfSpeed),
      y.at(power * halfPower),
    ]),
  );
}

function line(
  name: string,
  speeds: readonly number[],
  powers: readonly (number | null)[],
  color: string,
  { x, y }: Axes,
) {
  return {
    name,
    type: 'line' as const,
    showSymbol: false,
    data: speeds.map((speed, i) => [x.at(speed), typeof powers[i] === 'number' ? y.at(powers[i]) : '-']),
    lineStyle: { color, width: 2 },
    silent: true,
    connectNulls: false,
  };
}

/** Words where the map turns into them, so that nobody needs a legend. */
function words({ map, powersPercent, upperPercent, colours }: WindowInput, { x, y }: Axes) {
  const last = map.speedsMmPerS.length - 1;
  const word = (text: string, speed: number, power: number, color: string) => ({
    name: text,
    type: 'scatter' as const,
    silent: true,
    symbolSize: 1,
    tooltip: { show: false },
    data: [[x.at(speed), y.at(power)]],
    itemStyle: { color: 'transparent' },
    label: {
      show: true,
      formatter: text,
      color,
      fontSize: 17,
      fontWeight: 'bold' as const,
      textBorderColor: colours.ground,
      textBorderWidth: 4,
    },
  });
  const tooMuch = upperPercent[2];
  return [
    word('too little', map.speedsMmPerS[Math.round(last * 0.86)]!, powersPercent[4]!, colours.quiet),
    ...(tooMuch && tooMuch < powersPercent.at(-1)! * 0.92
      ? [word('too much', map.speedsMmPerS[5]!, powersPercent.at(-2)!, colours.danger)]
      : []),
  ];
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
    label: {
      show: true,
      formatter: setting.label,
      position: 'bottom' as const,
      color: colours.action,
      fontWeight: 'bold' as const,
      fontSize: 14,
      textBorderColor: colours.surface,
      textBorderWidth: 4,
      distance: 12,
    },
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
  const [speed, power, chance] = data;
  const at = `${withUnit(power!, y.unit, 3)} · ${withUnit(speed!, x.unit, 3)}`;
  return chance === undefined ? `${seriesName}<br>${at}` : `${Math.round(chance * 100)} of 100 hold<br>${at}`;
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
