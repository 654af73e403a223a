<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import { watchDebounced } from '@vueuse/core';
import type { LedgerQuery } from '@unto/contract';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import ChoiceField from '../ui/ChoiceField.vue';
import DateField from '../ui/DateField.vue';
import TextField from '../ui/TextField.vue';
import { GRADE_WORDS } from '../ui/format';
import NamedFilters from './NamedFilters.vue';

/** What the ledger is filtered by; it stands in the address. */
const props = defineProps<{ asked: LedgerQuery }>();
const shop = useShop();
const route = useRoute();
const router = useRouter();
const ALL = 'all';
type Filter = keyof LedgerQuery & string;
const any = computed(() => Object.keys(props.asked).length > 0);
/** How the runs are looked at stays as filters change. */
const shownBy = computed(() => ('show' in route.query ? { show: route.query['show'] } : {}));

function filterBy(name: Filter) {
  return computed<string>({
    get: () => (typeof route.query[name] === 'string' ? (route.query[name] as string) : ALL),
    set: (value) => void router.replace({ query: { ...route.query, [name]: value === ALL ? undefined : value } }),
  });
}
const substrate = filterBy('substrateId');
const compound = filterBy('compoundId');
const head = filterBy('headId');
const grade = filterBy('grade');
const judged = filterBy('judged');
const operator = filterBy('operatorId');
const canLot = filterBy('canLot');
const blankLot = filterBy('blankLot');
const from = filterBy('from');
const to = filterBy('to');
const dayOf = (of: typeof from) =>
  computed<string | null>({
    get: () => (of.value === ALL ? null : of.value),
    set: (day) => (of.value = day ?? ALL),
  });
const fromDay = dayOf(from);
const toDay = dayOf(to);
/** What is typed is asked for once nobody types for a moment. */
const words = ref(typeof route.query['text'] === 'string' ? route.query['text'] : '');
const text = filterBy('text');
watchDebounced(words, (now) => (text.value = now.trim() || ALL), { debounce: 250 });
const MORE = ['operatorId', 'canLot', 'blankLot', 'grade', 'from', 'to'];
const more = ref(MORE.some((name) => name in route.query));
const { data: lots } = useQuery({
  key: KEYS.ledgerChoices,
  query: () => api.call('ledgerChoices', {}),
  enabled: () => more.value,
});
const lotChoices = (all: readonly string[] | undefined) => [
  { value: ALL, label: 'all' },
  ...(all ?? []).map((lot) => ({ value: lot, label: lot })),
];
const people = computed(() => [
  { value: ALL, label: 'all' },
  ...shop.operators.map(({ id, name }) => ({ value: id, label: name })),
]);

const choices = (kind: 'substrate' | 'compound' | 'head') => [
  { value: ALL, label: 'all' },
  ...shop.items.filter((item) => item.kind === kind).map((item) => ({ value: item.id, label: item.body.name })),
];
const grades = [
  { value: ALL, label: 'all' },
  ...(['proved', 'proved by eye', 'carried', 'stated', 'guess'] as const).map((value) => ({
    value,
    label: GRADE_WORDS[value].word,
  })),
];
const judgedChoices = [
  { value: ALL, label: 'all' },
  { value: 'yes', label: 'judged' },
  { value: 'no', label: 'not yet' },
  { value: 'faulty', label: 'faulty' },
];
</script>

<template>
  <div class="filters no-print">
    <TextField v-model="words" label="Words in it" test-id="ledger-text" />
    <ChoiceField v-model="substrate" label="Substrate" :options="choices('substrate')" test-id="filter-substrate" />
    <ChoiceField v-model="compound" label="Compound" :options="choices('compound')" test-id="filter-compound" />
    <ChoiceField v-model="head" label="Head" :options="choices('head')" />
    <ChoiceField v-model="judged" label="Judgement" :options="judgedChoices" test-id="filter-judged" />
    <Button
      text
      class="more"
      :label="more ? 'Fewer filters' : 'More filters'"
      :aria-expanded="more"
      data-test-id="more-filters"
      @click="more = !more"
    />
    <template v-if="more">
      <ChoiceField v-model="operator" label="Run by" :options="people" test-id="filter-operator" />
      <ChoiceField v-model="canLot" label="Lot of the can" :options="lotChoices(lots?.canLots)" test-id="filter-can" />
      <ChoiceField v-model="blankLot" label="Lot of the blanks" :options="lotChoices(lots?.blankLots)" />
      <ChoiceField v-model="grade" label="Grade" :options="grades" />
      <DateField v-model="fromDay" label="From" test-id="filter-from" />
      <DateField v-model="toDay" label="Before" />
    </template>
    <NamedFilters
      class="named"
      :chosen="asked"
      :any="any"
      @take="(query) => router.replace({ query: { ...shownBy, ...query } })"
    />
  </div>
</template>

<style scoped>
.filters {
  flex: none;
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  align-items: end;
  gap: 0.8rem;
  padding: 0.5rem 1.5rem 0.7rem;
  background: var(--unto-surface);
  border-bottom: 1px solid var(--unto-rule);
}

.named {
  grid-column: 1 / -1;
}

@media (max-width: 900px) {
  .filters {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
