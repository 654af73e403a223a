<script setup lang="ts">
import type { LedgerRecord } from '@unto/contract';
import Button from 'primevue/button';
import { ref } from 'vue';
import { RouterLink } from 'vue-router';
import GradeMark from '../evidence/GradeMark.vue';
import DataList from '../ui/DataList.vue';
import { formatFigure, formatMoment, GRADE_WORDS, withUnit } from '../ui/format';
import type { ListColumn } from '../ui/list-column';
import { judgedWords } from './judged-words';

/** Runs as a list, a row each; some can be held against one another. */
defineProps<{ records: readonly LedgerRecord[]; more: boolean }>();
const emit = defineEmits<{ older: [] }>();

/** Runs that are held against one another. */
const compared = ref<string[]>([]);
const MOST_COMPARED = 5;
function compare(id: string): void {
  const on = compared.value.includes(id);
  compared.value = on ? compared.value.filter((one) => one !== id) : [...compared.value, id].slice(-MOST_COMPARED);
}
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
</script>

<template>
  <DataList
    name="ledger"
    :rows="records"
    :columns="COLUMNS"
    :to="({ id }) => `/ledger/${id}`"
    row-test-id="ledger-row"
    :row-class="({ correctedById }) => ({ corrected: correctedById })"
    scroll-height="calc(100vh - 19.5rem)"
    searched="elsewhere"
    @near-end="more && emit('older')"
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
      <span :class="row.judgement?.faults.length ? 'fault' : row.judgement ? '' : 'quiet'">{{ judgedWords(row) }}</span>
    </template>
    <template #tools>
      <RouterLink
        v-if="compared.length > 1"
        class="side"
        :to="`/ledger/side-by-side?runs=${compared.join(',')}`"
        data-test-id="side-by-side"
        >{{ compared.length }} runs side by side</RouterLink
      >
      <Button v-if="more" outlined label="Show older runs" data-test-id="older-runs" @click="emit('older')" />
    </template>
  </DataList>
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

.nowrap {
  white-space: nowrap;
}

.corrected {
  opacity: 0.6;
  text-decoration: line-through;
}
</style>
