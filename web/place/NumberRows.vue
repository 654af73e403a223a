<script setup lang="ts">
import { quantityOfUnit } from '@unto/core';
import InputText from 'primevue/inputtext';
import { nextTick, useTemplateRef } from 'vue';
import { formatNumber, parseNumber } from '../ui/format';
import { useUnits } from '../ui/useUnits';
import { brokenRows, emptyRow, pastedRows, type NumberColumn, type NumberRow } from './rows';

/** A short table of readings: Enter goes on to the next row, several lines can be pasted at once. */
const rows = defineModel<NumberRow[]>({ required: true });
const props = defineProps<{
  columns: readonly NumberColumn[];
  testId: string;
  name: string;
  marked?: number | undefined;
  /** As many rows as there are, no more and no fewer. */
  fixed?: boolean;
}>();
const units = useUnits();
const table = useTemplateRef<HTMLElement>('table');

const shown = (entry: number | undefined, unit: string) => {
  if (!Number.isFinite(entry)) return '';
  const { value } = units.plain(entry!, unit);
  return formatNumber(value, 6).replace(/\s/g, '');
};

function typed(row: number, { key, unit }: NumberColumn, text: string | undefined): void {
  const quantity = quantityOfUnit(unit);
  const entry = parseNumber(text ?? '');
  const value = quantity ? units.toCore(quantity, entry) : entry;
  rows.value = rows.value.map((entry, i) => (i === row ? { ...entry, [key]: value } : entry));
}

async function add(): Promise<void> {
  rows.value = [...rows.value, emptyRow(props.columns)];
  await nextTick();
  table.value?.querySelector<HTMLInputElement>('tbody tr:last-child input')?.focus();
}

async function next(row: number): Promise<void> {
  if (row === rows.value.length - 1) return props.fixed ? undefined : add();
  table.value?.querySelectorAll<HTMLElement>('tbody tr')[row + 1]?.querySelector('input')?.focus();
}

function paste(event: ClipboardEvent, row: number): void {
  const found = pastedRows(props.columns, event.clipboardData?.getData('text') ?? '');
  if (!found) return;
  event.preventDefault();
  rows.value = [...rows.value.slice(0, row), ...found, ...rows.value.slice(row + found.length)];
}

function remove(row: number): void {
  rows.value = rows.value.filter((_, i) => i !== row);
}
</script>

<template>
  <table ref="table" class="rows">
    <thead>
      <tr>
        <th></th>
        <th v-for="column in columns" :key="column.key">
          {{ column.label }} <span class="quiet">{{ units.plain(0, column.unit).unit }}</span>
        </th>
        <th v-if="!fixed"></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(row, i) in rows" :key="i" :class="{ marked: marked === i }">
        <td class="quiet mono">{{ i + 1 }}</td>
        <td v-for="column in columns" :key="column.key">
          <InputText
            class="mono"
            inputmode="decimal"
            autocomplete="off"
            :default-value="shown(row[column.key], column.unit)"
            :aria-label="`${column.label} of ${name} ${i + 1}`"
            :data-test-id="`${testId}-${i}-${column.key}`"
            @update:model-value="typed(i, column, $event)"
            @keydown.enter.prevent="next(i)"
            @paste="paste($event, i)"
          />
        </td>
        <td v-if="!fixed">
          <button type="button" class="link" :aria-label="`Leave out ${name} ${i + 1}`" @click="remove(i)">out</button>
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="brokenRows(columns, rows).length" class="quiet small">
    Not counted yet: {{ name }}
    {{
      brokenRows(columns, rows)
        .map((i) => i + 1)
        .join(', ')
    }}, a number is missing.
  </p>
  <button v-if="!fixed" type="button" class="link" :data-test-id="`${testId}-add`" @click="add">
    Add a {{ name }}
  </button>
</template>

<style scoped>
.rows {
  width: 100%;
  border-collapse: collapse;
}

th {
  padding: 0 0.3rem 0.1rem 0;
  font-size: 0.82rem;
  font-weight: 400;
  text-align: left;
}

td {
  padding: 0.12rem 0.3rem 0.12rem 0;
}

td :deep(input) {
  width: 100%;
  min-width: 3rem;
  text-align: right;
}

.marked td {
  background: var(--unto-danger-tint);
}

.link {
  min-height: 32px;
  text-align: left;
}
</style>
