import type { WindowBand } from '@unto/core';
import type { EChartsCoreOption } from 'echarts/core';
import { chartAxis, chartFrame, chartTip } from '../theme/chart-frame';
import type { ChartColours } from '../theme/colours';
import { ticks } from '../window/window-chart';

/** Where a window holds, and the quickest setting in it that is proven. */
export interface Outline {
  readonly letter: string;
  readonly bands: readonly WindowBand[];
  readonly setting: { readonly powerW: number; readonly speedMmPerS: number } | null;
}

/** Line of each window: told by its letter first, by the dashes second, by colour last. */
const DASHES = ['solid', [8, 4], [2, 3], [12, 4, 2, 4], [5, 2], [1, 5]] as const;

/** Windows on the same axes, W at the part over mm/s: the outline of where 80 of 100 hold, each with its letter. */
export function compareChart(outlines: readonly Outline[], colours: ChartColours): EChartsCoreOption {
  const spots = outlines.flatMap(({ bands }) => bands.flat());
  const [slow, fast] = ends(spots.map(({ speedMmPerS }) => speedMmPerS));
  const [weak, strong] = ends(spots.flatMap(({ lowW, highW }) => [lowW, highW]));
  const tints = [colours.action, colours.danger, colours.bonded, colours.ink, colours.quiet, colours.action];
  const axis = {
    type: 'log' as const,
    logBase: 2,
    ...chartAxis(colours),
    nameLocation: 'middle' as const,
  };
  const scale = (low: number, high: number) => {
    const customValues = ticks(low, high);
    return {
      ...{ min: low, max: high, axisTick: { customValues } },
      axisLabel: { ...axis.axisLabel, customValues },
    };
  };
  return {
    ...chartFrame,
    grid: { left: 60, right: 24, top: 18, bottom: 52 },
    tooltip: {
      trigger: 'item',
      ...chartTip(colours),
      formatter: (item: unknown) => {
        const { seriesName, data } = item as { seriesName: string; data: number[] };
        return `${seriesName}: ${Number(data[0]!.toPrecision(3))} mm/s, ${Number(data[1]!.toPrecision(3))} W`;
      },
    },
    xAxis: { ...axis, name: 'speed, mm/s', nameGap: 32, ...scale(slow / 1.1, fast * 1.1) },
    yAxis: { ...axis, name: 'W at the part', nameGap: 42, ...scale(weak / 1.08, strong * 1.08) },
    dataZoom: [{ type: 'inside', xAxisIndex: 0, filterMode: 'none', zoomOnMouseWheel: 'ctrl' }],
    series: outlines.flatMap(({ letter, bands, setting }, i) => {
      const [color, type] = [tints[i]!, DASHES[i]!];
      return [
        ...bands.map((band) => ({
          ...{ name: letter, type: 'line', symbol: 'none' },
          lineStyle: { color, type, width: 2.5 },
          data: [
            ...band.map(({ speedMmPerS, highW }) => [speedMmPerS, highW]),
            ...band.toReversed().map(({ speedMmPerS, lowW }) => [speedMmPerS, lowW]),
            [band[0]!.speedMmPerS, band[0]!.highW],
          ],
        })),
        {
          ...{ name: `${letter}, holds`, type: 'scatter', symbolSize: 1, itemStyle: { color } },
          label: {
            show: true,
            formatter: letter,
            color,
            fontSize: 18,
            fontWeight: 'bold',
            textBorderColor: colours.surface,
            textBorderWidth: 3,
          },
          data: bands.flatMap((band) => [middleOf(band)]),
        },
        ...(setting
          ? [
              {
                ...{ name: `${letter}, its quickest proven`, type: 'scatter', symbol: 'diamond', symbolSize: 13 },
                itemStyle: { color, borderColor: colours.surface, borderWidth: 1.5 },
                data: [[setting.speedMmPerS, setting.powerW]],
              },
            ]
          : []),
      ];
    }),
  };
}

function ends(values: readonly number[]): [number, number] {
  return values.length ? [Math.min(...values), Math.max(...values)] : [50, 500];
}

/** Where the letter of a stretch stands: at a third of its speeds, in the middle of its powers. */
function middleOf(band: WindowBand): [number, number] {
  const { speedMmPerS, lowW, highW } = band[Math.floor(band.length / 3)]!;
  return [speedMmPerS, Math.sqrt(lowW * highW)];
}
