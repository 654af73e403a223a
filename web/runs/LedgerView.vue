<script setup lang="ts">
import { useInfiniteQuery, useQuery } from '@pinia/colada';
import { watchDebounced } from '@vueuse/core';
import { CONTRAST_STEPS, type LedgerPage, type LedgerQuery, type LedgerRecord } from '@unto/contract';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import GradeMark from '../evidence/GradeMark.vue';
import { useNotices } from '../stores/notices';
import { useShop } from '../stores/shop';
import { useBringing } from '../stores/useBringing';
import { bringFile, type FileFault } from '../ui/bring-file';
import ChoiceField from '../ui/ChoiceField.vue';
import DateField from '../ui/DateField.vue';
import TextField from '../ui/TextField.vue';
import NamedFilters from './NamedFilters.vue';
import DataList from '../ui/DataList.vue';
import FileLabel from '../ui/FileLabel.vue';
import { formatFigure, formatMoment, GRADE_WORDS, withUnit } from '../ui/format';
import type { ListColumn } from '../ui/list-column';
import PageHead from '../ui/PageHead.vue';

/** The record of runs: filter, open, export, bring back. The filters are in the address. */
const shop = useShop();
const route = useRoute();
const router = useRouter();
const notices = useNotices();
const brings = useBringing();
const problems = ref<readonly FileFault[]>([]);
const FILTERS = [
  ...(['substrateId', 'compoundId', 'headId', 'grade', 'judged'] as const),
  ...(['operatorId', 'canLot', 'blankLot', 'from', 'to', 'text'] as const),
] as const;
const ALL = 'all';
type Filter = (typeof FILTERS)[number];

const chosen = computed(() =>
  FILTERS.flatMap((name) => (typeof route.query[name] === 'string' ? [[name, route.query[name] as string]] : [])),
);
const query = computed(() => new URLSearchParams(chosen.value).toString());
const asked = computed(() => Object.fromEntries(chosen.value) as LedgerQuery);

const { data, loadNextPage, hasNextPage } = useInfiniteQuery({
  key: () => KEYS.ledger(query.value),
  query: ({ pageParam }: { pageParam: string | null }): Promise<LedgerPage> =>
    api.call('ledger', { query: { ...asked.value, ...(pageParam ? { cursor: pageParam } : {}) } }),
  initialPageParam: null as string | null,
  getNextPageParam: ({ next }: LedgerPage) => next,
});
const records = computed<LedgerRecord[]>(() => data.value?.pages.flatMap((page) => page.records) ?? []);

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

/** Runs that are held against one another. */
const compared = ref<string[]>([]);
const MOST_COMPARED = 5;
function compare(id: string): void {
  const on = compared.value.includes(id);
  compared.value = on ? compared.value.filter((one) => one !== id) : [...compared.value, id].slice(-MOST_COMPARED);
}
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

const entered = ({ value, unit }: { readonly value: number; readonly unit: string }) => withUnit(value, unit);
const COLUMNS: readonly ListColumn<LedgerRecord>[] = [
  { key: 'at', label: 'When', value: ({ at }) => at },
  { key: 'ticket', label: 'Ticket', value: ({ ticketTitle }) => ticketTitle },
  { key: 'pieces', label: 'Pieces', numeric: true, value: ({ pieces }) => pieces },
  { key: 'substrate', label: 'Substrate', value: ({ substrateName }) => substrateName },
  { key: 'compound', label: 'Compound', value: ({ compoundName }) => compoundName ?? 'none' },
  { key: 'power', label: 'Power', numeric: true, value: ({ power }) => entered(power) },
  { key: 'speed', label: 'Speed', numeric: true, value: ({ speed }) => entered(speed) },
  { key: 'interval', label: 'Interval', numeric: true, value: ({ interval }) => entered(interval) },
  { key: 'dose', label: 'Dose', unit: 'J/mm²', numeric: true, value: ({ dose }) => dose?.value ?? null },
  { key: 'grade', label: 'Rests on', value: (record) => GRADE_WORDS[record.grade].word },
  { key: 'judged', label: 'Judged', value: judgedWords },
];

function judgedWords({ correctedById, judgement }: LedgerRecord): string {
  if (correctedById) return 'corrected since';
  if (!judgement) return 'not yet';
  const step = CONTRAST_STEPS[judgement.contrastStep - 1]?.word ?? '';
  return [`${judgement.contrastStep} ${step}`, ...judgement.faults].join(', ');
}

async function bringBack(file: File): Promise<void> {
  const brought = await bringFile(file, (format) => brings.bring('importLedger', { query: { format }, body: file }));
  problems.value = 'faults' in brought ? brought.faults : [];
  if ('faults' in brought) return;
  const { created, unchanged } = brought.report;
  notices.say(`${created} run${created === 1 ? '' : 's'} brought in, ${unchanged} here already and unchanged.`);
}
</script>

<template>
  <PageHead title="Ledger" about="Every run: setting, coat, cleaning, judgement">
    <RouterLink to="/causes" class="no-print" data-test-id="to-causes">What went wrong</RouterLink>
    <RouterLink to="/practice" class="no-print">Runs of before</RouterLink>
    <span class="files no-print">
      <a :href="`/api/ledger.csv?${query}`" download="ledger.csv" data-test-id="ledger-csv">CSV</a>
      <a :href="`/api/ledger.json?${query}`" download="ledger.json" data-test-id="ledger-json">JSON</a>
      <FileLabel label="Bring a file back" accept=".csv,.json" test-id="ledger-import" @brought="bringBack" />
    </span>
  </PageHead>
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
    <NamedFilters class="named" :chosen="asked" :any="chosen.length > 0" @take="(query) => router.replace({ query })" />
  </div>
  <div v-if="problems.length" class="problems" role="alert" data-test-id="import-problems">
    <p><strong>Nothing was imported.</strong></p>
    <p v-for="(problem, i) in problems.slice(0, 12)" :key="i">{{ problem.message }}</p>
    <p v-if="problems.length > 12" class="quiet">and {{ problems.length - 12 }} more</p>
  </div>
  <div class="body">
    <p v-if="data && !records.length">No run matches. Take a filter off, or log the first run at Mark.</p>
    <DataList
      v-else
      name="ledger"
      :rows="records"
      :columns="COLUMNS"
      :to="({ id }) => `/ledger/${id}`"
      row-test-id="ledger-row"
      :row-class="({ correctedById }) => ({ corrected: correctedById })"
      scroll-height="calc(100vh - 16rem)"
      searched="elsewhere"
      @near-end="hasNextPage && loadNextPage()"
    >
      <template #cell-at="{ row }">
        <RouterLink class="nowrap" :to="`/ledger/${row.id}`">{{ formatMoment(row.at) }}</RouterLink>
        <span class="nowrap">
          <RouterLink
            class="again"
            :to="`/tickets/new?like=${row.ticketId}&compound`"
            title="Repeat this"
            aria-label="Repeat this"
            data-test-id="repeat"
            ><svg viewBox="0 0 16 16" width="15" height="15" aria-hidden="true">
              <path d="M13 8a5 5 0 1 1-1.6-3.7M12 1.5v3.2H8.8" /></svg
          ></RouterLink>
          <button
            type="button"
            class="hold"
            :aria-pressed="compared.includes(row.id)"
            title="Hold it against others"
            aria-label="Hold it against others"
            data-test-id="compare-run"
            @click="compare(row.id)"
          >
            {{ compared.includes(row.id) ? '✓' : '+' }}
          </button>
        </span>
      </template>
      <template #cell-dose="{ row }">
        <span class="mono">{{ row.dose ? formatFigure(row.dose.value) : '–' }}</span>
      </template>
      <template #cell-grade="{ row }"><GradeMark :grade="row.grade" /></template>
      <template #cell-judged="{ row }">
        <span :class="row.judgement?.faults.length ? 'fault' : row.judgement ? '' : 'quiet'">{{
          judgedWords(row)
        }}</span>
      </template>
      <template #tools>
        <RouterLink
          v-if="compared.length > 1"
          class="side"
          :to="`/ledger/side-by-side?runs=${compared.join(',')}`"
          data-test-id="side-by-side"
          >{{ compared.length }} runs side by side</RouterLink
        >
        <Button v-if="hasNextPage" outlined label="Show older runs" data-test-id="older-runs" @click="loadNextPage()" />
      </template>
    </DataList>
  </div>
</template>

<style scoped>
.again {
  display: inline-block;
  padding: 0.2rem 0.3rem;
}

.again path {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.5;
}

.files {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
}

.filters {
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

.hold {
  width: 22px;
  height: 20px;
  line-height: 1;
  vertical-align: middle;
  padding: 0;
  font: inherit;
  color: inherit;
  background: none;
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
  cursor: pointer;
}

.hold[aria-pressed='true'] {
  color: var(--unto-on-action);
  background: var(--unto-action);
  border-color: var(--unto-action);
}

.problems {
  padding: 0.6rem 1.5rem;
  background: var(--unto-danger-tint);
  border-bottom: 1px solid var(--unto-danger);
}

.body {
  padding: 0.5rem 1.5rem 1.5rem;
  overflow-x: auto;
  font-size: 0.94rem;
}

.nowrap {
  white-space: nowrap;
}

.corrected {
  opacity: 0.6;
  text-decoration: line-through;
}

@media (max-width: 900px) {
  .filters {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
