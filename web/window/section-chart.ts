import type { SectionPoint, WindowCell } from '@unto/core';
import type { EChartsCoreOption } from 'echarts/core';
import { chartAxis, chartFrame, chartTip } from '../theme/chart-frame';
import type { ChartColours } from '../theme/colours';
import { ticks } from './window-chart';

/** Along what a window is cut: one of its axes, the other standing at the setting. */
export type CutAlong = 'speed' | 'power';

interface SectionInput {
  readonly points: readonly SectionPoint[];
  /** Where a point stands on the axis, in its unit. */
  readonly at: (point: Pick<SectionPoint, 'powerW' | 'speedMmPerS'>) => number;
  readonly axis: string;
  readonly cells: readonly WindowCell[];
  readonly colours: ChartColours;
}

const HEIGHTS: Record<WindowCell['outcome'], number> = { under: 4, holds: 96, over: 4 };

/** The chance of holding along one axis, with the band in which it lies nine times in ten, and the cells near the cut. */
export function sectionChart({ points, at, axis, cells, colours }: SectionInput): EChartsCoreOption {
  const style = {
    ...chartAxis(colours, 12),
    nameLocation: 'middle' as const,
  };
  const xs = points.map(at);
  const [from, to] = [Math.min(...xs), Math.max(...xs)];
  const customValues = ticks(from, to);
  const line = (of: (point: SectionPoint) => number) => points.map((point) => [at(point), 100 * of(point)]);
  const spots = (outcome: WindowCell['outcome'], symbol: string, fill: string, border: string) => ({
    ...{ name: outcome, type: 'scatter' as const, symbol, symbolSize: 9, silent: true },
    itemStyle: { color: fill, borderColor: border, borderWidth: 1.4 },
    data: cells.filter((cell) => cell.outcome === outcome).map((cell) => [at(cell), HEIGHTS[outcome]]),
  });
  return {
    ...chartFrame,
    grid: { left: 52, right: 20, top: 14, bottom: 44 },
    tooltip: {
      trigger: 'axis',
      ...chartTip(colours),
      formatter: (items: unknown) =>
        pointWords(points[(items as { dataIndex: number }[])[0]?.dataIndex ?? 0], at, axis),
    },
    xAxis: {
      ...style,
      ...{ type: 'log', logBase: 2, min: from, max: to, name: axis, nameGap: 26 },
      axisTick: { customValues },
      axisLabel: { ...style.axisLabel, customValues },
    },
    yAxis: { ...style, type: 'value', min: 0, max: 100, name: 'of 100 hold', nameGap: 34 },
    series: [
      {
        name: 'least',
        type: 'line',
        stack: 'band',
        symbol: 'none',
        lineStyle: { opacity: 0 },
        data: line(({ low }) => low),
      },
      {
        ...{ name: 'nine times in ten', type: 'line', stack: 'band', symbol: 'none', lineStyle: { opacity: 0 } },
        areaStyle: { color: colours.bonded, opacity: 0.25 },
        data: line(({ low, high }) => high - low),
      },
      {
        name: 'holds',
        type: 'line',
        symbol: 'none',
        lineStyle: { color: colours.bonded, width: 2.5 },
        data: line(({ mean }) => mean),
      },
      spots('holds', 'circle', colours.ink, colours.surface),
      spots('under', 'circle', colours.surface, colours.ink),
      spots('over', 'diamond', colours.danger, colours.surface),
    ],
  };
}

function pointWords(point: SectionPoint | undefined, at: SectionInput['at'], axis: string): string {
  if (!point) return '';
  const of = (share: number) => Math.round(100 * share);
  return `${axis} ${Number(at(point).toPrecision(3))}: ${of(point.mean)} of 100 hold, ${of(point.low)} to ${of(point.high)}`;
}
