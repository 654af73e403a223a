import type { ChartColours } from '../theme/colours';
import type { WindowCell, WindowMap } from '@unto/core';
import type { EChartsCoreOption } from 'echarts/core';

/** A setting to be marked on the map with its tolerance box. */
export interface MarkedSetting {
  readonly powerPercent: number;
  readonly speedMmPerS: number;
  readonly label: string;
}

/** The window over speed and power: chance of holding as tint, boundaries, cells by shape, the setting with its box. */
export function windowChart(input: {
  readonly map: WindowMap;
  readonly powersPercent: readonly number[];
  readonly lowerPercent: readonly (number | null)[];
  readonly upperPercent: readonly (number | null)[];
  readonly cells: readonly (WindowCell & { readonly powerPercent: number })[];
  readonly setting: MarkedSetting | null;
  readonly powerShare: number;
  readonly colours: ChartColours;
}): EChartsCoreOption {
  const { map, powersPercent, colours } = input;
  const speeds = map.speedsMmPerS;
  const tiles: [number, number, number][] = [];
  powersPercent.forEach((power, i) =>
    speeds.forEach((speed, j) => tiles.push([speed, power, map.holds[i * speeds.length + j]!])),
  );
  const halfSpeed = Math.sqrt(speeds[1]! / speeds[0]!);
  const halfPower = Math.sqrt(powersPercent[1]! / powersPercent[0]!);
  const of = (outcome: WindowCell['outcome']) =>
    input.cells.filter((cell) => cell.outcome === outcome).map((cell) => [cell.speedMmPerS, cell.powerPercent]);
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
      formatter: (item: unknown) => tooltip(item as { seriesName: string; data: number[] }),
      backgroundColor: colours.surface,
      borderColor: colours.rule,
      textStyle: { color: colours.ink },
    },
    xAxis: {
      ...axis,
      name: 'speed, mm/s',
      nameLocation: 'middle',
      nameGap: 34,
      min: speeds[0],
      max: speeds.at(-1),
      logBase: 2,
      axisTick: { customValues: ticks(speeds[0]!, speeds.at(-1)!) },
      ...{ axisLabel: { ...axis.axisLabel, customValues: ticks(speeds[0]!, speeds.at(-1)!) } },
    },
    yAxis: {
      ...axis,
      name: 'power, %',
      nameLocation: 'middle',
      nameGap: 44,
      min: powersPercent[0],
      max: powersPercent.at(-1),
      logBase: 2,
      axisTick: { customValues: ticks(powersPercent[0]!, powersPercent.at(-1)!) },
      ...{ axisLabel: { ...axis.axisLabel, customValues: ticks(powersPercent[0]!, powersPercent.at(-1)!) } },
    },
    dataZoom: [{ type: 'inside', xAxisIndex: 0, filterMode: 'none', zoomOnMouseWheel: 'ctrl' }],
    series: [
      {
        name: 'chance of holding',
        type: 'custom',
        data: tiles,
        clip: true,
        progressive: 0,
        renderItem: (_params: unknown, api: { value: (i: number) => number; coord: (p: number[]) => number[] }) => {
          const [speed, power, chance] = [api.value(0), api.value(1), api.value(2)];
          const [x0, y0] = api.coord([speed / halfSpeed, power * halfPower]);
          const [x1, y1] = api.coord([speed * halfSpeed, power / halfPower]);
          const [left, top] = [Math.round(x0!), Math.round(y0!)];
          return {
            type: 'rect',
            shape: { x: left, y: top, width: Math.round(x1!) - left, height: Math.round(y1!) - top },
            style: { fill: colours.bonded, opacity: chance ** 1.4 * 0.72 },
          };
        },
      },
      line('even bet: too little', speeds, input.lowerPercent, colours.bonded),
      line('even bet: too much', speeds, input.upperPercent, colours.danger),
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
      ...words(input),
      ...(input.setting ? [settingSeries(input.setting, input.powerShare, colours)] : []),
    ],
  };
}

function line(name: string, speeds: readonly number[], powers: readonly (number | null)[], color: string) {
  return {
    name,
    type: 'line' as const,
    showSymbol: false,
    data: speeds.map((speed, i) => [speed, powers[i] ?? '-']),
    lineStyle: { color, width: 2 },
    silent: true,
    connectNulls: false,
  };
}

/** Words where the map turns into them, so that nobody needs a legend. */
function words({ map, powersPercent, upperPercent, colours }: Parameters<typeof windowChart>[0]) {
  const last = map.speedsMmPerS.length - 1;
  const word = (text: string, speed: number, power: number, color: string) => ({
    name: text,
    type: 'scatter' as const,
    silent: true,
    symbolSize: 1,
    tooltip: { show: false },
    data: [[speed, power]],
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

function settingSeries(setting: MarkedSetting, powerShare: number, colours: ChartColours) {
  const { speedMmPerS, powerPercent } = setting;
  return {
    name: 'setting',
    type: 'scatter' as const,
    symbol: 'diamond',
    symbolSize: 16,
    data: [[speedMmPerS, powerPercent]],
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
          { coord: [speedMmPerS / 1.035, powerPercent * (1 - powerShare)] },
          { coord: [speedMmPerS * 1.035, Math.min(100, powerPercent * (1 + powerShare))] },
        ],
      ],
    },
  };
}

function tooltip({ seriesName, data }: { seriesName: string; data: number[] }): string {
  const [speed, power, chance] = data;
  const at = `${Number(power!.toPrecision(3))} % · ${Number(speed!.toPrecision(3))} mm/s`;
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
