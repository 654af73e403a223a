<script setup lang="ts">
import { CAUSE_WORDS } from '@unto/core';
import { useQuery } from '@pinia/colada';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import ChoiceField from '../ui/ChoiceField.vue';
import PageHead from '../ui/PageHead.vue';
import { formatDay } from '../ui/format';
import QuestionsPanel from './QuestionsPanel.vue';

/** What was behind the faults of this shop, the commonest first; and what it asks at its stations since. */
const shop = useShop();
const ALL = 'all';
const compoundId = ref(ALL);
const substrateId = ref(ALL);
const operatorId = ref(ALL);
const asked = computed(() => ({
  ...(compoundId.value === ALL ? {} : { compoundId: compoundId.value }),
  ...(substrateId.value === ALL ? {} : { substrateId: substrateId.value }),
  ...(operatorId.value === ALL ? {} : { operatorId: operatorId.value }),
}));
const { data } = useQuery({
  key: () => KEYS.foundCauses(compoundId.value, substrateId.value, operatorId.value),
  query: () => api.call('faultCauses', { query: asked.value }),
});
const causes = computed(() => data.value?.causes ?? []);
const total = computed(() => causes.value.reduce((sum, { cases }) => sum + cases, 0));
/** Share of all causes so far down the list. */
const rows = computed(() => {
  let sum = 0;
  return causes.value.map((one) => {
    sum += one.cases;
    return { ...one, upTo: sum / total.value };
  });
});
/** Where the columns over time begin, and what one of them is. */
const overHead = computed(() => {
  const first = data.value?.whiles[0];
  return first ? `By the ${data.value!.by}, ${formatDay(first.from)} to now` : '';
});
/** The busiest while of any cause: what a full bar is. */
const most = computed(() => Math.max(1, ...causes.value.flatMap(({ over }) => over)));
const overWords = (over: readonly number[]) =>
  over
    .map((cases, i) => ({ cases, from: data.value!.whiles[i]!.from }))
    .filter(({ cases }) => cases)
    .map(({ cases, from }) => `${cases} from ${formatDay(from)}`)
    .join(', ');
const choices = (kind: 'compound' | 'substrate') => [
  { value: ALL, label: 'all' },
  ...shop.items.filter((item) => item.kind === kind).map((item) => ({ value: item.id, label: item.body.name })),
];
const people = computed(() => [
  { value: ALL, label: 'all' },
  ...shop.operators.map(({ id, name }) => ({ value: id, label: name })),
]);
</script>

<template>
  <PageHead title="What went wrong" about="Causes that were found here, and what is asked since"
    ><RouterLink to="/ledger">Ledger</RouterLink></PageHead
  >
  <div class="filters no-print">
    <ChoiceField v-model="compoundId" label="Compound" :options="choices('compound')" test-id="causes-compound" />
    <ChoiceField v-model="substrateId" label="Substrate" :options="choices('substrate')" />
    <ChoiceField
      v-model="operatorId"
      label="Runs made by"
      :options="people"
      hint="What the runs met with, not who met it"
    />
  </div>
  <div class="body">
    <section data-test-id="found-causes">
      <p v-if="data && !causes.length">
        No fault was traced to its cause here yet. <RouterLink to="/ledger">Open a run with a fault</RouterLink> and
        press “Find the fault”.
      </p>
      <template v-else-if="data">
        <p class="quiet">
          {{ data.cases }} fault{{ data.cases === 1 ? '' : 's' }} traced to a cause<template v-if="data.open"
            >, {{ data.open }} looked for and not settled</template
          >. What is likely at the next one learns from these.
        </p>
        <table class="plain pareto">
          <thead>
            <tr>
              <th>Cause</th>
              <th class="number">Cases</th>
              <th class="bars"></th>
              <th class="number">With those above</th>
              <th class="over">{{ overHead }}</th>
              <th>Last seen as</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in rows" :key="one.cause">
              <td>
                <strong>{{ CAUSE_WORDS[one.cause] }}</strong>
              </td>
              <td class="number mono">{{ one.cases }}</td>
              <td class="bars" aria-hidden="true">
                <span :style="{ width: `${(100 * one.cases) / rows[0]!.cases}%` }"></span>
              </td>
              <td class="number mono">{{ Math.round(100 * one.upTo) }} %</td>
              <td class="over">
                <span class="columns" role="img" :aria-label="overWords(one.over)" :title="overWords(one.over)">
                  <i v-for="(cases, i) in one.over" :key="i" :style="{ height: `${(100 * cases) / most}%` }"></i>
                </span>
              </td>
              <td>
                {{ one.faults.join(', ') }},
                <RouterLink :to="`/faults/${one.subject.kind}/${one.subject.id}`">{{ one.subject.title }}</RouterLink>
                <span class="quiet">{{ `, ${formatDay(one.newest)}` }}</span>
              </td>
            </tr>
          </tbody>
        </table>
      </template>
    </section>
    <QuestionsPanel />
  </div>
</template>

<style scoped>
.filters {
  flex: none;
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 16rem));
  gap: 0.8rem;
  padding: 0.5rem 1.5rem 0.7rem;
  background: var(--unto-surface);
  border-bottom: 1px solid var(--unto-rule);
}

.body {
  display: flex;
  flex-direction: column;
  gap: 1.2rem;
  padding: 0.8rem 1.5rem 1.5rem;
  overflow-x: auto;
}

.pareto td {
  vertical-align: middle;
}

.bars {
  width: 20%;
}

.bars span {
  display: block;
  height: 14px;
  background: var(--unto-action);
}

.over {
  white-space: nowrap;
}

.columns {
  display: inline-flex;
  align-items: flex-end;
  gap: 2px;
  height: 26px;
  border-bottom: 1px solid var(--unto-ink);
}

.columns i {
  width: 9px;
  background: var(--unto-ink);
}

@media (max-width: 900px) {
  .filters {
    grid-template-columns: 1fr;
  }

  .over,
  .bars {
    display: none;
  }
}
</style>
