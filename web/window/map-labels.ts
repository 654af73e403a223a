import type { ChartColours } from '../theme/colours';
import { labelSpots, type Point } from './label-spots';
import type { Axes, MarkedBlock, MarkedSetting, WindowInput } from './window-input';

/** A label of the map: its words, its places from the best on, and whether it must stand somewhere. */
interface MapLabel {
  readonly text: string;
  readonly places: readonly Point[];
  readonly needed: boolean;
  readonly style: { readonly color: string; readonly fontSize: number; readonly fontWeight?: 'bold' };
}

/** A line as it is drawn, from its slow end, and the words beside it. */
export interface LabelledLine {
  readonly word: string;
  readonly data: readonly Point[];
}

/** What a point of the chart takes about it, px. */
const REACH_PX = { cell: 7, odd: 12, setting: 10 };

/** Words on the map, so that nobody needs a legend: edges, corners, the next coupon, doses; clear of every point and of one another. */
export function labelSeries(
  input: WindowInput,
  axes: Axes,
  lines: { readonly edges: readonly LabelledLine[]; readonly doses: readonly LabelledLine[] },
) {
  const { cells, setting, colours } = input;
  const at = ({ speedMmPerS, powerPercent }: MarkedSetting): Point => [axes.x.at(speedMmPerS), axes.y.at(powerPercent)];
  const spots = labelSpots(axes, [
    ...cells.map((cell) => ({ at: at(cell), reachPx: cell.odd ? REACH_PX.odd : REACH_PX.cell })),
    ...(setting ? [{ at: at(setting), reachPx: REACH_PX.setting }] : []),
  ]);
  const labels = [
    ...edgeLabels(lines.edges, colours),
    ...cornerLabels(input, axes, spots.at),
    ...(input.next ? [nextLabel(input.next, colours, axes)] : []),
    ...doseLabels(lines.doses, colours),
  ];
  return {
    name: 'labels',
    type: 'scatter' as const,
    silent: true,
    symbolSize: 1,
    z: 3,
    tooltip: { show: false },
    itemStyle: { color: 'transparent', opacity: 1 },
    data: labels.flatMap(({ text, places, needed, style }) => {
      const value = spots.place(text, style.fontSize, places, needed);
      const label = { show: true, formatter: text, ...style, textBorderColor: colours.ground, textBorderWidth: 3 };
      return value ? [{ name: text, value, label }] : [];
    }),
  };
}

/** Along each edge from its quick end. */
const edgeLabels = (lines: readonly LabelledLine[], { bonded }: ChartColours): MapLabel[] =>
  lines.map(({ word, data }) => ({
    ...{ text: word, places: [...data].reverse(), needed: true },
    style: { color: bonded, fontSize: 12, fontWeight: 'bold' },
  }));

/** Along each line of equal dose from its slow end, where there is room. */
const doseLabels = (lines: readonly LabelledLine[], { quiet }: ChartColours): MapLabel[] =>
  lines.map(({ word, data }) => ({
    ...{ text: word, places: data, needed: false },
    style: { color: quiet, fontSize: 11 },
  }));

/** Too little lies where it is quick and weak, too much where it is slow and strong. */
function cornerLabels(
  { map, percentOf, colours }: WindowInput,
  { y }: Axes,
  at: (across: number, up: number) => Point,
): MapLabel[] {
  const places = (across: readonly number[], up: readonly number[], good: (place: Point, across: number) => boolean) =>
    across.flatMap((a) => up.flatMap((u) => (good(at(a, u), a) ? [at(a, u)] : [])));
  const upper = (across: number) => percentOf(map.upperW[Math.round(across * (map.upperW.length - 1))]!);
  const style = (color: string) => ({ color, fontSize: 17, fontWeight: 'bold' as const });
  const low = places([0.84, 0.76, 0.68, 0.6], [0.08, 0.13, 0.18, 0.23, 0.28], () => true);
  const high = places([0.16, 0.2, 0.26, 0.32, 0.4], [0.94, 0.88, 0.82, 0.76, 0.7], ([, power], across) => {
    const most = upper(across);
    return most !== null && power > 1.05 * y.at(most);
  });
  return [
    { text: 'too little', places: low, needed: true, style: style(colours.quiet) },
    { text: 'too much', places: high, needed: true, style: style(colours.danger) },
  ];
}

/** Below, above or inside the edges of the block. */
function nextLabel({ powersPercent, speedsMmPerS }: MarkedBlock, { ink }: ChartColours, { x, y }: Axes): MapLabel {
  const [left, right] = [0, 1].map((end) => x.at(speedsMmPerS[end]!)) as [number, number];
  const [low, high] = [0, 1].map((end) => y.at(powersPercent[end]!)) as [number, number];
  const across = [0.5, 0.35, 0.65].map((part) => left * (right / left) ** part);
  const up = [low * 0.955, high * 1.045, low * 1.045, high * 0.955, Math.sqrt(low * high)];
  return {
    ...{ text: 'next coupon', places: up.flatMap((power) => across.map((speed): Point => [speed, power])) },
    ...{ needed: true, style: { color: ink, fontSize: 13, fontWeight: 'bold' } },
  };
}
