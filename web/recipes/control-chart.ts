import { USUAL_CUSUM } from '@unto/core';
import type { DriftChart } from '@unto/contract';
import type { EChartsCoreOption } from 'echarts/core';
import { chartAxis, chartFrame, chartTip } from '../theme/chart-frame';
import type { ChartColours } from '../theme/colours';
import { formatMoment } from '../ui/format';

export const MEASURE_WORDS: Record<DriftChart['measure'], { title: string; axis: string }> = {
  contrast: { title: 'Contrast, by eye', axis: 'step of 5' },
  kept: { title: 'What the scrub left', axis: 'of 100' },
  'hold rate': { title: 'Pieces that came out good', axis: 'of 100' },
};

const shown = (measure: DriftChart['measure'], value: number) => (measure === 'contrast' ? value : value * 100);

/** A control chart: each judged run against what was usual of the first ones; a run that is out has another shape. */
export function controlChart(
  { measure, centre, spread, baseline, points }: DriftChart,
  colours: ChartColours,
): EChartsCoreOption {
  const [middle, wide] = [shown(measure, centre), 3 * shown(measure, spread)];
  const most = measure === 'contrast' ? 5 : 100;
  const line = (value: number, name: string, type: 'solid' | 'dashed') => ({
    ...{ yAxis: value, lineStyle: { color: colours.quiet, type, width: 1 } },
    label: { formatter: name, color: colours.quiet, fontSize: 12, position: 'end' as const },
  });
  const low = middle - wide;
  const bottom = Math.min(low, ...points.map(({ value }) => shown(measure, value)));
  const axis = chartAxis(colours, 12);
  return {
    ...chartFrame,
    grid: { left: 48, right: 78, top: 28, bottom: 36 },
    tooltip: {
      trigger: 'item',
      ...chartTip(colours),
      formatter: (item: unknown) => pointWords(measure, points[(item as { data: { index: number } }).data.index]),
    },
    dataZoom: [{ type: 'inside', xAxisIndex: 0, zoomOnMouseWheel: 'ctrl' }],
    xAxis: {
      ...axis,
      axisLabel: { ...axis.axisLabel, showMinLabel: false, showMaxLabel: false },
      type: 'value',
      min: 0.5,
      max: points.length + 0.5,
      minInterval: 1,
      name: 'run',
      nameLocation: 'middle',
      nameGap: 22,
    },
    yAxis: {
      ...axis,
      type: 'value',
      name: MEASURE_WORDS[measure].axis,
      min: Math.max(0, Math.floor(bottom)),
      max: most,
      ...(measure === 'contrast' ? { interval: 1 } : {}),
    },
    series: [
      {
        type: 'line',
        symbolSize: (_: unknown, { dataIndex }: { dataIndex: number }) => (isOut(points[dataIndex]!) ? 13 : 8),
        symbol: (_: unknown, { dataIndex }: { dataIndex: number }) =>
          isOut(points[dataIndex]!) ? 'diamond' : 'circle',
        showAllSymbol: true,
        lineStyle: { color: colours.rule, width: 1 },
        data: points.map((point, index) => ({
          ...{ value: [index + 1, shown(measure, point.value)], index },
          itemStyle: { color: isOut(point) ? colours.danger : colours.bonded },
        })),
        markLine: {
          silent: true,
          symbol: 'none',
          data: [line(middle, 'usual', 'solid'), ...(low > 0 ? [line(low, '3 σ below', 'dashed')] : [])],
        },
        markArea: {
          silent: true,
          itemStyle: { color: colours.rule, opacity: 0.35 },
          label: { color: colours.quiet, fontSize: 12, position: 'insideBottom' },
          data: [[{ xAxis: 0.5, name: 'first runs' }, { xAxis: baseline + 0.5 }]],
        },
      },
    ],
  };
}

type Point = DriftChart['points'][number];
/** The sum of what fell short passed its limit. */
const isSummedOut = ({ low }: Point) => low > USUAL_CUSUM.limit;
export const isOut = (point: Point) => point.rules.length > 0 || isSummedOut(point);

function pointWords(measure: DriftChart['measure'], point: Point | undefined): string {
  if (!point) return '';
  const value = Number(shown(measure, point.value).toPrecision(3));
  const why = [...point.rules, ...(isSummedOut(point) ? ['the sum of what fell short passed its limit'] : [])];
  return [`${formatMoment(point.at)}: ${value} ${MEASURE_WORDS[measure].axis}`, ...why].join('<br>');
}
