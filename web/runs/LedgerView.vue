<script setup lang="ts">
import { useInfiniteQuery } from '@pinia/colada';
import type { LedgerPage, LedgerQuery, LedgerRecord } from '@unto/contract';
import { computed, defineAsyncComponent, ref } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useNotices } from '../stores/notices';
import { useBringing } from '../stores/useBringing';
import { bringFile, type FileFault } from '../ui/bring-file';
import FileLabel from '../ui/FileLabel.vue';
import PageHead from '../ui/PageHead.vue';
import PickOne from '../ui/PickOne.vue';
import LedgerFilters from './LedgerFilters.vue';
import LedgerList from './LedgerList.vue';
import LedgerPictures from './LedgerPictures.vue';

/** The record of runs: filter, look at it as a list, by its pictures or over time, open, export, bring back. All of it is in the address. */
const LedgerTrend = defineAsyncComponent(() => import('./LedgerTrend.vue'));
const route = useRoute();
const router = useRouter();
const notices = useNotices();
const brings = useBringing();
const problems = ref<readonly FileFault[]>([]);
const FILTERS = [
  ...(['substrateId', 'compoundId', 'headId', 'grade', 'judged'] as const),
  ...(['operatorId', 'canLot', 'blankLot', 'from', 'to', 'text', 'ticketId'] as const),
] as const;
const SHOWN = [
  { value: 'list', label: 'List' },
  { value: 'pictures', label: 'Pictures' },
  { value: 'trend', label: 'Over time' },
] as const;
type Shown = (typeof SHOWN)[number]['value'];
const show = computed<Shown>({
  get: () => SHOWN.find(({ value }) => value === route.query['show'])?.value ?? 'list',
  set: (value) => void router.replace({ query: { ...route.query, show: value === 'list' ? undefined : value } }),
});

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
      <a href="/api/schemas/ledger" download="ledger.schema.json" title="What each field of the JSON is">its schema</a>
      <FileLabel label="Bring a file back" accept=".csv,.json" test-id="ledger-import" @brought="bringBack" />
    </span>
  </PageHead>
  <LedgerFilters :asked="asked" />
  <div v-if="problems.length" class="problems" role="alert" data-test-id="import-problems">
    <p><strong>Nothing was imported.</strong></p>
    <p v-for="(problem, i) in problems.slice(0, 12)" :key="i">{{ problem.message }}</p>
    <p v-if="problems.length > 12" class="quiet">and {{ problems.length - 12 }} more</p>
  </div>
  <div class="body">
    <PickOne v-model="show" label="Look at the runs as" :options="SHOWN" test-id="ledger-as" bare class="no-print" />
    <p v-if="data && !records.length">No run matches. Take a filter off, or log the first run at Mark.</p>
    <LedgerTrend v-else-if="show === 'trend'" :query="query" :asked="asked" />
    <LedgerPictures
      v-else-if="show === 'pictures'"
      :records="records"
      :more="hasNextPage ?? false"
      @older="loadNextPage()"
    />
    <LedgerList v-else :records="records" :more="hasNextPage ?? false" @older="loadNextPage()" />
  </div>
</template>

<style scoped>
.files {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
}

.problems {
  padding: 0.6rem 1.5rem;
  background: var(--unto-danger-tint);
  border-bottom: 1px solid var(--unto-danger);
}

.body {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  padding: 0.6rem 1.5rem 1.5rem;
  overflow-x: auto;
  font-size: 0.94rem;
}
</style>
