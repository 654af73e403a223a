<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import type { WindowSummary } from '@unto/contract';
import { RouterLink } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import DataList from '../ui/DataList.vue';
import { formatDay } from '../ui/format';
import type { ListColumn } from '../ui/list-column';
import PageHead from '../ui/PageHead.vue';
import { windowAddress } from './address';

/** One window for each pairing of compound, substrate, head and lens that has scrubbed cells. */
const shop = useShop();
const { data: windows } = useQuery({
  key: [...KEYS.windows(), 'list'],
  query: async () => (await api.all('listWindows', {})).map((row) => ({ ...row, id: windowAddress(row) })),
});
type Row = WindowSummary & { readonly id: string };
const COLUMNS: readonly ListColumn<Row>[] = [
  {
    key: 'window',
    label: 'Window',
    value: ({ compoundId, substrateId }) =>
      `${shop.nameOf(compoundId) || 'No compound'} on ${shop.nameOf(substrateId)}`,
  },
  {
    key: 'head',
    label: 'Head and lens',
    value: ({ headId, lensId }) => `${shop.nameOf(headId)}, ${shop.nameOf(lensId)}`,
  },
  { key: 'coupons', label: 'Coupons', numeric: true, value: ({ coupons }) => coupons },
  { key: 'cells', label: 'Cells', numeric: true, value: ({ cells }) => cells },
  { key: 'hold', label: 'Hold', numeric: true, value: ({ holds }) => holds },
  {
    key: 'recipe',
    label: 'Recipe',
    value: ({ recipe }) => (recipe ? `v${recipe.number}${recipe.suspended ? ', suspended' : ''}` : ''),
  },
  { key: 'newest', label: 'Newest', value: ({ newestAt }) => newestAt },
];
</script>

<template>
  <PageHead title="Windows" about="What holds, for each pairing of compound, substrate, head and lens">
    <RouterLink to="/compare" data-test-id="to-compare">Compare</RouterLink>
  </PageHead>
  <div class="body">
    <p v-if="windows && !windows.length">
      No scrubbed coupon yet. Scrub one and enter its cells: the window is fitted at once.
    </p>
    <DataList v-else name="windows" :rows="windows ?? []" :columns="COLUMNS" :to="({ id }) => id">
      <template #cell-window="{ row }">
        <RouterLink :to="row.id"
          ><strong>{{ COLUMNS[0]!.value(row) }}</strong></RouterLink
        >
      </template>
      <template #cell-recipe="{ row }">
        <RouterLink v-if="row.recipe" :to="`/recipes/${row.recipe.id}`">{{ COLUMNS[5]!.value(row) }}</RouterLink>
      </template>
      <template #cell-newest="{ row }">{{ formatDay(row.newestAt) }}</template>
    </DataList>
  </div>
</template>

<style scoped>
.body {
  padding: 1rem 1.5rem;
}
</style>
