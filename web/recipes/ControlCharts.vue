<script setup lang="ts">
import type { DriftChart } from '@unto/contract';
import Button from 'primevue/button';
import { computed, defineAsyncComponent, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { useShop } from '../stores/shop';
import { themeColours } from '../theme/colours';
import { formatMoment } from '../ui/format';
import { controlChart, isOut, MEASURE_WORDS } from './control-chart';

/** How the judged runs of a recipe went, one chart a measure, or all of them as a table. */
const props = defineProps<{ charts: readonly DriftChart[] }>();
const Chart = defineAsyncComponent(() => import('../window/WindowChart.vue'));
const shop = useShop();
const asTable = ref(false);
const drawn = computed(() => {
  void shop.theme;
  const colours = themeColours();
  return props.charts.map((chart) => ({
    chart,
    option: controlChart(chart, colours),
    ...MEASURE_WORDS[chart.measure],
  }));
});
const steady = ({ alarm, points }: DriftChart) =>
  alarm ? `Went down at run ${alarm.index + 1}, ${formatMoment(points[alarm.index]!.at)}: ${alarm.words}.` : 'Steady.';
</script>

<template>
  <section data-test-id="control-charts">
    <div class="row">
      <h2>How its runs went</h2>
      <Button text size="small" :label="asTable ? 'Show the charts' : 'Show as a table'" @click="asTable = !asTable" />
    </div>
    <template v-for="{ chart, option, title, axis } in drawn" :key="chart.measure">
      <h3>{{ title }}</h3>
      <p class="small" :class="{ out: chart.alarm }" :data-test-id="`drift-${chart.measure}`">{{ steady(chart) }}</p>
      <table v-if="asTable" class="plain">
        <thead>
          <tr>
            <th class="number">Run</th>
            <th>Judged run of</th>
            <th class="number">{{ axis }}</th>
            <th>Out by</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(point, i) in chart.points" :key="point.runId">
            <td class="number">{{ i + 1 }}</td>
            <td>
              <RouterLink :to="`/ledger/${point.runId}`">{{ formatMoment(point.at) }}</RouterLink>
            </td>
            <td class="number">
              {{ Number((chart.measure === 'contrast' ? point.value : point.value * 100).toPrecision(3)) }}
            </td>
            <td>{{ isOut(point) ? point.rules.join(', ') || 'sum of what fell short' : '' }}</td>
          </tr>
        </tbody>
      </table>
      <div v-else class="plot">
        <Chart least="190px" :option="option" :label="`${title}: ${chart.points.length} runs. ${steady(chart)}`" />
      </div>
    </template>
  </section>
</template>

<style scoped>
.row {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}

h3 {
  margin: 0.8rem 0 0;
}

.out {
  color: var(--unto-danger);
  font-weight: 700;
}

.plot {
  height: 190px;
}
</style>
