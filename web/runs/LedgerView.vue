<script setup lang="ts">
import { CONTRAST_STEPS, type ImportReport, type LedgerPage, type LedgerRecord } from '@unto/contract';
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { request } from '../api/client';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { bringFile, type FileFault } from '../ui/bring-file';
import FileLabel from '../ui/FileLabel.vue';
import ChoiceField from '../ui/ChoiceField.vue';
import { formatFigure, formatMoment, GRADE_WORDS, withUnit } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import PageHead from '../ui/PageHead.vue';

/** The record of runs: filter, open, export, bring back. The filters are in the address. */
const shop = useShop();
const route = useRoute();
const router = useRouter();
const notices = useNotices();
const records = ref<LedgerRecord[]>([]);
const next = ref<string | null>(null);
const loaded = ref(false);
const problems = ref<readonly FileFault[]>([]);
const FILTERS = ['substrateId', 'compoundId', 'headId', 'grade', 'judged'] as const;
const ALL = 'all';
type Filter = (typeof FILTERS)[number];

const query = computed(() => {
  const chosen = FILTERS.flatMap((name) =>
    typeof route.query[name] === 'string' ? [[name, route.query[name] as string]] : [],
  );
  return new URLSearchParams(chosen).toString();
});

async function load(more = false): Promise<void> {
  const page = await request<LedgerPage>(
    'GET',
    `/api/ledger?${query.value}${more && next.value ? `&cursor=${next.value}` : ''}`,
  );
  records.value = more ? [...records.value, ...page.records] : [...page.records];
  next.value = page.next;
  loaded.value = true;
}
watch(query, () => load(), { immediate: true });

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
const choices = (kind: 'substrate' | 'compound' | 'head') => [
  { value: ALL, label: 'all' },
  ...shop.items.filter((item) => item.kind === kind).map((item) => ({ value: item.id, label: item.body.name })),
];
const grades = [
  { value: ALL, label: 'all' },
  ...(['proved', 'carried', 'stated', 'guess'] as const).map((value) => ({ value, label: GRADE_WORDS[value].word })),
];
const judgedChoices = [
  { value: ALL, label: 'all' },
  { value: 'yes', label: 'judged' },
  { value: 'no', label: 'not yet' },
];

async function bringBack(file: File): Promise<void> {
  const brought = await bringFile(file, (format, text) =>
    request<ImportReport>('POST', '/api/ledger/import', { format, text }, shop.operatorId ?? ''),
  );
  problems.value = 'faults' in brought ? brought.faults : [];
  if ('faults' in brought) return;
  const { created, unchanged } = brought.report;
  notices.say(`${created} run${created === 1 ? '' : 's'} brought in, ${unchanged} here already and unchanged.`);
  await load();
}
</script>

<template>
  <PageHead title="Ledger" about="Every run: setting, coat, cleaning, judgement">
    <span class="files no-print">
      <a :href="`/api/ledger.csv?${query}`" download="ledger.csv" data-test-id="ledger-csv">CSV</a>
      <a :href="`/api/ledger.json?${query}`" download="ledger.json" data-test-id="ledger-json">JSON</a>
      <FileLabel label="Bring a file back" accept=".csv,.json" test-id="ledger-import" @brought="bringBack" />
    </span>
  </PageHead>
  <div class="filters no-print">
    <ChoiceField v-model="substrate" label="Substrate" :options="choices('substrate')" test-id="filter-substrate" />
    <ChoiceField v-model="compound" label="Compound" :options="choices('compound')" test-id="filter-compound" />
    <ChoiceField v-model="head" label="Head" :options="choices('head')" />
    <ChoiceField v-model="grade" label="Grade" :options="grades" />
    <ChoiceField v-model="judged" label="Judgement" :options="judgedChoices" />
  </div>
  <div v-if="problems.length" class="problems" role="alert" data-test-id="import-problems">
    <p><strong>Nothing was imported.</strong></p>
    <p v-for="(problem, i) in problems.slice(0, 12)" :key="i">{{ problem.message }}</p>
    <p v-if="problems.length > 12" class="quiet">and {{ problems.length - 12 }} more</p>
  </div>
  <div class="body">
    <p v-if="loaded && !records.length">No run matches. Take a filter off, or log the first run at Mark.</p>
    <table v-else class="plain">
      <thead>
        <tr>
          <th>When</th>
          <th>Ticket</th>
          <th>Substrate</th>
          <th>Compound</th>
          <th class="number">Power</th>
          <th class="number">Speed</th>
          <th class="number">Interval</th>
          <th class="number">Dose</th>
          <th>Rests on</th>
          <th>Judged</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="record in records"
          :key="record.id"
          :class="{ corrected: record.correctedById }"
          data-test-id="ledger-row"
        >
          <td class="nowrap">
            <RouterLink :to="`/ledger/${record.id}`">{{ formatMoment(record.at) }}</RouterLink>
          </td>
          <td>
            {{ record.ticketTitle }} <span class="quiet small nowrap">{{ record.pieces }} pcs</span>
          </td>
          <td>{{ record.substrateName }}</td>
          <td>{{ record.compoundName ?? 'none' }}</td>
          <td class="number nowrap">{{ withUnit(record.power.value, record.power.unit) }}</td>
          <td class="number nowrap">{{ withUnit(record.speed.value, record.speed.unit) }}</td>
          <td class="number nowrap">{{ withUnit(record.interval.value, record.interval.unit) }}</td>
          <td class="number nowrap">{{ record.dose ? `${formatFigure(record.dose.value)} J/mm²` : '–' }}</td>
          <td><GradeMark :grade="record.grade" /></td>
          <td>
            <template v-if="record.correctedById">corrected since</template>
            <template v-else-if="record.judgement"
              >{{ record.judgement.contrastStep }} {{ CONTRAST_STEPS[record.judgement.contrastStep - 1]?.word
              }}<span v-if="record.judgement.faults.length" class="fault"
                >, {{ record.judgement.faults.join(', ') }}</span
              ></template
            >
            <span v-else class="quiet">not yet</span>
          </td>
        </tr>
      </tbody>
    </table>
    <Button v-if="next" outlined label="Show older runs" @click="load(true)" />
  </div>
</template>

<style scoped>
.files {
  display: flex;
  align-items: center;
  gap: 1rem;
}

.filters {
  display: grid;
  grid-template-columns: 1.6fr 1.2fr 1.2fr 0.8fr 0.8fr;
  gap: 0.8rem;
  padding: 0.5rem 1.5rem 0.7rem;
  background: var(--unto-surface);
  border-bottom: 1px solid var(--unto-rule);
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
