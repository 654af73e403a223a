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
import VChart from 'vue-echarts';

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
withDefaults(defineProps<{ option: EChartsCoreOption; label: string; least?: string }>(), { least: '420px' });
</script>

<template>
  <VChart class="chart" :option="option" autoresize role="img" :aria-label="label" tabindex="0" />
</template>

<style scoped>
.chart {
  width: 100%;
  height: 100%;
  min-height: v-bind('least');
}
</style>
