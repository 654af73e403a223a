<script setup lang="ts">
import { CustomChart, LineChart, ScatterChart } from 'echarts/charts';
import {
  AriaComponent,
  DataZoomInsideComponent,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
} from 'echarts/components';
import { use, type EChartsCoreOption } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { ref, useTemplateRef } from 'vue';
import VChart from 'vue-echarts';
import { LETTERS } from '../theme/chart-frame';

/** ECharts with the parts that the window needs; loaded only with this view. */
use([
  CustomChart,
  LineChart,
  ScatterChart,
  GridComponent,
  TooltipComponent,
  DataZoomInsideComponent,
  MarkAreaComponent,
  MarkLineComponent,
  AriaComponent,
  CanvasRenderer,
]);
/** A canvas does not draw itself anew once a letter has come: nothing is drawn before. */
const lettered = ref(!('fonts' in document));
if (!lettered.value)
  void Promise.allSettled(Object.values(LETTERS).map((font) => document.fonts.load(`12px "${font}"`))).then(
    () => (lettered.value = true),
  );
const chart = useTemplateRef<InstanceType<typeof VChart>>('chart');
/** What each axis shows of its whole, in hundredths, by keys; pointer and wheel move the same. */
type Span = readonly [from: number, to: number];
const ZOOM = 0.8;
const PAN = 0.1;
const LEAST = 8;
const KEYS: Record<string, (x: Span, y: Span) => readonly [Span, Span]> = {
  '+': (x, y) => [zoomed(x, ZOOM), zoomed(y, ZOOM)],
  '-': (x, y) => [zoomed(x, 1 / ZOOM), zoomed(y, 1 / ZOOM)],
  '0': () => [WHOLE, WHOLE],
  ArrowLeft: (x, y) => [moved(x, -PAN), y],
  ArrowRight: (x, y) => [moved(x, PAN), y],
  ArrowUp: (x, y) => [x, moved(y, PAN)],
  ArrowDown: (x, y) => [x, moved(y, -PAN)],
};
const WHOLE: Span = [0, 100];

function zoomed([from, to]: Span, by: number): Span {
  const half = Math.max(LEAST, (to - from) * by) / 2;
  const middle = (from + to) / 2;
  return [Math.max(0, middle - half), Math.min(100, middle + half)];
}

function moved([from, to]: Span, by: number): Span {
  const step = Math.max(-from, Math.min(100 - to, by * (to - from)));
  return [from + step, to + step];
}

/** Zooms by + and −, moves by arrows, whole again by 0; only a map that may be zoomed. */
function pressed(event: KeyboardEvent): void {
  const turn = KEYS[event.key === '=' ? '+' : event.key];
  const zooms =
    (chart.value?.getOption() as { dataZoom?: { start: number; end: number }[] } | undefined)?.dataZoom ?? [];
  if (!turn || !zooms.length || event.ctrlKey || event.metaKey || event.altKey) return;
  event.preventDefault();
  const [x = WHOLE, y = WHOLE] = zooms.map(({ start, end }): Span => [start, end]);
  turn(x, y)
    .slice(0, zooms.length)
    .forEach(([start, end], dataZoomIndex) =>
      chart.value!.dispatchAction({ type: 'dataZoom', dataZoomIndex, start, end }),
    );
}
withDefaults(defineProps<{ option: EChartsCoreOption; label: string; least?: string }>(), { least: '420px' });
</script>

<template>
  <div v-if="!lettered" class="chart"></div>
  <VChart
    v-else
    ref="chart"
    class="chart"
    :option="option"
    autoresize
    role="img"
    :aria-label="label"
    tabindex="0"
    @native:keydown="pressed"
  />
</template>

<style scoped>
.chart {
  width: 100%;
  height: 100%;
  min-height: v-bind('least');
}
</style>
