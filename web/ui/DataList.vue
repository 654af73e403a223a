<script setup lang="ts" generic="Row extends { readonly id: string }">
import { FilterMatchMode } from '@primevue/core/api';
import { useLocalStorage, useMediaQuery } from '@vueuse/core';
import Button from 'primevue/button';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import InputText from 'primevue/inputtext';
import MultiSelect from 'primevue/multiselect';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { writeCsv } from '@unto/core';
import { formatNumber } from './format';
import type { ListColumn } from './list-column';
import { saveFile } from './save-file';

/** A list as every page shows it: sorted and searched by anything, its columns chosen and kept, saved as CSV, walked with the keys. */
const props = defineProps<{
  /** Names the list where its columns are kept. */
  name: string;
  rows: readonly Row[];
  columns: readonly ListColumn<Row>[];
  /** What Enter or a press on a row opens. */
  to?: (row: Row) => string | null;
  rowTestId?: string;
  rowClass?: (row: Row) => object | string | undefined;
  /** Long lists draw only what is looked at; then more rows are asked for near the end. */
  scrollHeight?: string;
  /** The page searches by itself, over more than the rows that are here. */
  searched?: 'elsewhere';
}>();
const emit = defineEmits<{ nearEnd: [] }>();
const router = useRouter();
const hidden = useLocalStorage<string[]>(`unto-columns-${props.name}`, []);
/** Columns in the order somebody drew them into; those that nobody moved stay where they were. */
const order = useLocalStorage<string[]>(`unto-order-${props.name}`, []);
const placeOf = (key: string) => (order.value.includes(key) ? order.value.indexOf(key) : Infinity);
const shown = computed(() =>
  [...props.columns]
    .filter(({ key }) => !hidden.value.includes(key))
    .sort((a, b) => {
      const [at, other] = [placeOf(a.key), placeOf(b.key)];
      return at === other ? 0 : at - other;
    }),
);
function moved({ dragIndex, dropIndex }: { dragIndex: number; dropIndex: number }): void {
  const keys = shown.value.map(({ key }) => key);
  keys.splice(dropIndex, 0, ...keys.splice(dragIndex, 1));
  order.value = keys;
}
const chosen = computed({
  get: () => shown.value.map(({ key }) => key),
  set: (keys: string[]) => (hidden.value = props.columns.map(({ key }) => key).filter((key) => !keys.includes(key))),
});
const typed = ref('');

/** What is searched, sorted and saved: every column's value beside its row. */
const entries = computed(() =>
  props.rows.map((row) => ({
    id: row.id,
    row,
    ...Object.fromEntries(props.columns.map(({ key, value }) => [key, value(row)])),
  })),
);
type Entry = { readonly id: string; readonly row: Row } & Readonly<Record<string, unknown>>;
const filters = computed(() => ({
  global: { value: typed.value || null, matchMode: FilterMatchMode.CONTAINS },
}));
/** On paper every row that is here is drawn, in a table as high as it is. */
const printed = useMediaQuery('print');
const scrolls = computed(() => props.scrollHeight !== undefined && !printed.value);
const virtual = computed(() =>
  scrolls.value
    ? {
        itemSize: ROW_PX,
        lazy: true,
        onLazyLoad: ({ last }: { last: number }) => last >= props.rows.length - 10 && emit('nearEnd'),
      }
    : undefined,
);
/** Rows of a list that draws only what is looked at are all as high as this, two lines of text. */
const ROW_PX = 58;

function shownValue({ unit }: ListColumn<Row>, value: unknown): string {
  if (value === null || value === undefined || value === '') return '–';
  return typeof value === 'number' ? `${formatNumber(value)}${unit ? `\u202f${unit}` : ''}` : String(value);
}

function open({ row }: Entry): void {
  const address = props.to?.(row);
  if (address) void router.push(address);
}

function save(): void {
  const heading = (column: ListColumn<Row>) => (column.unit ? `${column.label} [${column.unit}]` : column.label);
  const rows = props.rows.map((row) =>
    Object.fromEntries(shown.value.map((column) => [heading(column), column.value(row)])),
  );
  saveFile(`${props.name}.csv`, 'text/csv', writeCsv(shown.value.map(heading), rows));
}
</script>

<template>
  <div class="list" :class="scrolls ? 'even' : 'plain'">
    <div class="tools no-print">
      <InputText
        v-if="!searched"
        v-model="typed"
        class="search"
        placeholder="Search the list"
        aria-label="Search the list"
      />
      <MultiSelect
        v-model="chosen"
        :options="columns.map(({ key, label }) => ({ value: key, label }))"
        option-label="label"
        option-value="value"
        :show-toggle-all="false"
        :selected-items-label="`${chosen.length} columns`"
        :max-selected-labels="0"
        aria-label="Columns shown"
        class="columns"
      />
      <Button outlined severity="secondary" label="Save as CSV" :data-test-id="`${name}-save`" @click="save" />
      <slot name="tools" />
    </div>
    <DataTable
      :value="entries"
      data-key="id"
      :filters="filters"
      :global-filter-fields="shown.map(({ key }) => key)"
      sort-mode="single"
      removable-sort
      reorderable-columns
      :row-hover="to !== undefined"
      :row-class="(entry: Entry) => rowClass?.(entry.row)"
      :scrollable="scrolls"
      :scroll-height="scrolls ? scrollHeight : undefined"
      :virtual-scroller-options="virtual"
      :pt="{
        bodyRow: ({ props: of }: any) => ({
          'data-test-id': rowTestId,
          tabindex: to ? 0 : undefined,
          onKeydown: (event: KeyboardEvent) =>
            event.key === 'Enter' && event.target === event.currentTarget && open(of.rowData),
        }),
      }"
      @row-dblclick="({ data }: any) => open(data)"
      @column-reorder="moved"
    >
      <template #empty><slot name="empty">Nothing matches.</slot></template>
      <Column
        v-for="column in shown"
        :key="column.key"
        :field="column.key"
        :header="column.unit ? `${column.label}, ${column.unit}` : column.label"
        sortable
        :pt="{
          columnHeaderContent: { class: column.numeric ? 'numeric' : undefined },
          bodyCell: { 'data-label': column.label },
        }"
        :class="column.numeric ? 'numeric' : undefined"
      >
        <template #body="{ data }: { data: Entry }">
          <slot :name="`cell-${column.key}`" :row="data.row">
            <span :class="column.numeric ? 'mono' : undefined">{{
              shownValue({ ...column, unit: undefined }, data[column.key])
            }}</span>
          </slot>
        </template>
      </Column>
    </DataTable>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  padding-bottom: 0.5rem;
}

.search {
  flex: 0 1 16rem;
}

.columns {
  min-height: 44px;
  align-items: center;
}

.list {
  min-width: 0;
}

.list :deep(.p-datatable-table-container) {
  overflow-x: auto;
}

.list :deep(.p-datatable-thead > tr > th) {
  padding: 0.35rem 0.6rem;
  font-size: 0.82rem;
  font-weight: 400;
  color: var(--unto-quiet);
  white-space: nowrap;
}

.list :deep(.p-datatable-tbody > tr > td) {
  padding: 0.45rem 0.6rem;
  vertical-align: top;
}

/* Which way a list is sorted shows on its own column; on others only while one is about to sort by it. */
.list :deep(th:not(.p-datatable-column-sorted, :hover, :focus-visible) .p-datatable-sort-icon) {
  visibility: hidden;
}

.list :deep(td.numeric) {
  text-align: right;
  white-space: nowrap;
}

.list :deep(.numeric .p-datatable-column-header-content),
.list :deep(.p-datatable-column-header-content.numeric) {
  flex-direction: row-reverse;
  justify-content: flex-start;
}

.even :deep(.p-datatable-tbody > tr) {
  height: v-bind('`${ROW_PX}px`');
}

.even :deep(.p-datatable-tbody > tr > td > :is(span:not(:has(*)), a)) {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}

@media (max-width: 1100px) {
  .list {
    font-size: 0.88rem;
  }

  .list :deep(:is(.p-datatable-thead > tr > th, .p-datatable-tbody > tr > td)) {
    padding-inline: 0.35rem;
  }

  .plain :deep(td.numeric) {
    white-space: normal;
  }
}

/* On a phone a row is a note of its own: each value behind its name. */
@media screen and (max-width: 640px) {
  .plain :deep(.p-datatable-thead) {
    display: none;
  }

  .plain :deep(.p-datatable-tbody > tr) {
    display: block;
    padding: 0.5rem 0;
    border-bottom: 1px solid var(--unto-rule);
  }

  .plain :deep(.p-datatable-tbody > tr > td) {
    display: flex;
    gap: 0.8rem;
    padding: 0.15rem 0;
    border: 0;
    text-align: left;
  }

  .plain :deep(.p-datatable-tbody > tr > td[data-label]::before) {
    content: attr(data-label);
    flex: 0 0 6.5rem;
    color: var(--unto-quiet);
    font-size: 0.82rem;
  }
}

@media print {
  /* As many columns as were chosen: on the long side of the paper, in as many lines as they take. */
  .list {
    page: across;
    font-size: 0.72rem;
  }

  .list :deep(:is(.p-datatable-thead > tr > th, .p-datatable-tbody > tr > td)) {
    padding: 0.2rem 0.25rem;
    font-size: 0.72rem;
    white-space: normal;
  }

  .list :deep(.p-datatable-sort-icon) {
    display: none;
  }

  .list :deep(.p-datatable-tbody > tr) {
    break-inside: avoid;
  }
}
</style>
