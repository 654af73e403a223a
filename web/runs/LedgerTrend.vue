<script setup lang="ts">
import { TREND_MEASURES } from '@unto/core';
import { MOST_TREND_RUNS, type LedgerQuery } from '@unto/contract';
import { useQuery } from '@pinia/colada';
import Button from 'primevue/button';
import { computed, defineAsyncComponent, ref } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import { themeColours } from '../theme/colours';
import { formatDay } from '../ui/format';
import { TREND_WORDS, trendChart, valueWords, wayWords } from './trend-chart';

/** The runs that the filters let through, followed over time: contrast, good pieces, minutes. */
const props = defineProps<{ query: string; asked: LedgerQuery }>();
const Chart = defineAsyncComponent(() => import('../window/WindowChart.vue'));
const shop = useShop();
const asTable = ref(false);
const { data } = useQuery({
  key: () => KEYS.ledger('trend', props.query),
  query: () => api.call('ledgerTrend', { query: props.asked }),
});
const charts = computed(() => {
  void shop.theme;
  const [told, colours] = [data.value, themeColours()];
  if (!told) return [];
  return TREND_MEASURES.filter((measure) => told.points.some((point) => point[measure])).map((measure) => ({
    ...{ measure, title: TREND_WORDS[measure].title, words: wayWords(measure, told.ways) },
    option: trendChart(measure, told.points, colours),
  }));
});
</script>

<template>
  <section v-if="data" data-test-id="ledger-trend">
    <div class="row">
      <p class="quiet">
        {{ data.whole ? `${data.runs} runs` : `The newest ${MOST_TREND_RUNS} runs` }} by the {{ data.by }}. A bar is
        where the mean lies 9 times in 10; runs weigh alike, whatever their pieces.<template v-if="data.pairings > 1">
          They are of {{ data.pairings }} pairings of compound and substrate: what changes may be the work, not how it
          comes out. Filter by both to see one.</template
        >
      </p>
      <Button
        class="way"
        text
        size="small"
        :label="asTable ? 'Show the charts' : 'Show as a table'"
        @click="asTable = !asTable"
      />
    </div>
    <p v-if="!charts.length">None of these runs was judged or timed yet.</p>
    <table v-else-if="asTable" class="plain">
      <thead>
        <tr>
          <th>From</th>
          <th class="number">Runs</th>
          <th class="number">Pieces</th>
          <th v-for="{ measure, title } in charts" :key="measure">{{ title }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="point in data.points" :key="point.from">
          <td>{{ formatDay(point.from) }}</td>
          <td class="number mono">{{ point.runs }}</td>
          <td class="number mono">{{ point.pieces }}</td>
          <td v-for="{ measure } in charts" :key="measure" class="mono">{{ valueWords(measure, point[measure]) }}</td>
        </tr>
      </tbody>
    </table>
    <div v-for="{ measure, title, words, option } in asTable ? [] : charts" :key="measure">
      <h3>{{ title }}</h3>
      <p class="small" :data-test-id="`trend-${measure}`">{{ words }}</p>
      <div class="plot"><Chart least="200px" :option="option" :label="`${title}. ${words}`" /></div>
    </div>
  </section>
</template>

<style scoped>
.row {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 1rem;
}

.way {
  flex: none;
}

h3 {
  margin: 0.8rem 0 0;
}

p {
  margin: 0.2rem 0;
}

.plot {
  height: 200px;
}
</style>
