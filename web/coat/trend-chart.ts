import type { EChartsCoreOption } from 'echarts/core';
import type { Units } from '../ui/useUnits';
import { chartAxis, chartFrame, chartTip } from '../theme/chart-frame';
import type { ChartColours } from '../theme/colours';

/** One weighed coat on the trend: moment (ms), film with its interval, who laid it. */
export interface TrendPoint {
  readonly atMs: number;
  readonly filmUm: number;
  readonly lowUm: number;
  readonly highUm: number;
  readonly who: string;
  readonly ticket: string;
}

/** Shape of each person's points: told by shape first, by colour second. */
const SHAPES = ['circle', 'diamond', 'triangle', 'rect'] as const;

/** Films over time against the band, one shape a person, each with its interval. */
export function trendChart(input: {
  readonly points: readonly TrendPoint[];
  readonly band: { readonly lowUm: number; readonly highUm: number };
  readonly colours: ChartColours;
  readonly units: Units;
}): EChartsCoreOption {
  const { points, band, colours, units } = input;
  const um = (value: number) => units.read('film', value).value;
  const people = [...new Set(points.map(({ who }) => who))];
  const axis = chartAxis(colours);
  const tints = [colours.ink, colours.action, colours.danger, colours.quiet];
  return {
    ...chartFrame,
    grid: { left: 56, right: 20, top: 40, bottom: 40 },
    legend: { data: people, top: 4, left: 0, textStyle: { color: colours.ink, fontSize: 14 } },
    tooltip: {
      trigger: 'item',
      formatter: (item: unknown) => words((item as { data: { point: TrendPoint } }).data.point, units),
      ...chartTip(colours),
    },
    xAxis: { ...axis, type: 'time' },
    yAxis: { ...axis, type: 'value', name: `dry film, ${units.unit('film')}`, min: 0 },
    dataZoom: [{ type: 'inside', xAxisIndex: 0, filterMode: 'none', zoomOnMouseWheel: 'ctrl' }],
    series: people.map((who, i) => ({
      name: who,
      type: 'scatter',
      symbol: SHAPES[i % SHAPES.length],
      symbolSize: 11,
      itemStyle: { color: tints[i % tints.length], borderColor: colours.surface, borderWidth: 1 },
      data: points
        .filter((point) => point.who === who)
        .map((point) => ({ value: [point.atMs, um(point.filmUm)], point })),
      ...(i === 0
        ? {
            markArea: {
              silent: true,
              itemStyle: { color: colours.bonded, opacity: 0.16 },
              label: { position: 'insideTopRight', color: colours.bonded, fontSize: 13 },
              data: [
                [
                  { name: `band ${units.span('film', band.lowUm, band.highUm)}`, yAxis: um(band.lowUm) },
                  { yAxis: um(band.highUm) },
                ],
              ],
            },
          }
        : {}),
    })),
  };
}

function words({ filmUm, lowUm, highUm, who, ticket, atMs }: TrendPoint, units: Units): string {
  return `${units.figure('film', filmUm)} (${units.figures('film', lowUm, highUm)})<br>${escape(ticket)}, ${escape(who)}<br>${new Date(atMs).toLocaleDateString('en-GB')}`;
}

function escape(text: string): string {
  return text.replace(/[&<>"]/g, (letter) => `&#${letter.charCodeAt(0)};`);
}
