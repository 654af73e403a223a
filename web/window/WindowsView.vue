<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import type { CouponSummary } from '@unto/contract';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import DataList from '../ui/DataList.vue';
import { formatDay } from '../ui/format';
import type { ListColumn } from '../ui/list-column';
import PageHead from '../ui/PageHead.vue';
import { pairingsOf, type Pairing } from './pairings';

/** One window for each pairing of compound, substrate, head and lens that has scrubbed cells. */
const shop = useShop();
const { data: tickets } = useQuery({ key: KEYS.tickets(), query: () => api.all('listTickets', {}) });
const { data: coupons } = useQuery({
  key: [...KEYS.coupons(), 'scrubbed'],
  query: (): Promise<CouponSummary[]> => api.all('listCoupons', { stage: 'scrubbed' }),
});
const pairings = computed(() => pairingsOf(coupons.value ?? [], tickets.value ?? []));
const COLUMNS: readonly ListColumn<Pairing>[] = [
  {
    key: 'window',
    label: 'Window',
    value: ({ first }) => `${shop.nameOf(first.compoundId) || 'No compound'} on ${shop.nameOf(first.substrateId)}`,
  },
  {
    key: 'head',
    label: 'Head and lens',
    value: ({ first }) => `${shop.nameOf(first.headId)}, ${shop.nameOf(first.lensId)}`,
  },
  { key: 'coupons', label: 'Coupons', value: ({ codes }) => codes },
  { key: 'cells', label: 'Cells', numeric: true, value: ({ cells }) => cells },
  { key: 'hold', label: 'Hold', numeric: true, value: ({ holds }) => holds },
  { key: 'newest', label: 'Newest', value: ({ first }) => first.createdAt },
];
const address = ({ ticketId }: Pairing) => (ticketId ? `/windows/${ticketId}` : null);
</script>

<template>
  <PageHead title="Windows" about="What holds, for each pairing of compound, substrate, head and lens" />
  <div class="body">
    <p v-if="coupons && !coupons.length">
      No scrubbed coupon yet. Scrub one and enter its cells: the window is fitted at once.
    </p>
    <DataList v-else name="windows" :rows="pairings" :columns="COLUMNS" :to="address">
      <template #cell-window="{ row }">
        <component :is="address(row) ? RouterLink : 'span'" :to="address(row)"
          ><strong>{{ COLUMNS[0]!.value(row) }}</strong></component
        >
      </template>
      <template #cell-newest="{ row }">{{ formatDay(row.first.createdAt) }}</template>
    </DataList>
  </div>
</template>

<style scoped>
.body {
  padding: 1rem 1.5rem;
}
</style>
