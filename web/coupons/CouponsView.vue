<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import type { CouponSummary } from '@unto/contract';
import { RouterLink } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import DataList from '../ui/DataList.vue';
import { formatDay } from '../ui/format';
import type { ListColumn } from '../ui/list-column';
import PageHead from '../ui/PageHead.vue';

/** Every coupon, newest first, and what it waits for. */
const { data: coupons } = useQuery({ key: KEYS.coupons(), query: () => api.all('listCoupons', {}) });
const shop = useShop();
const WORDS = { designed: 'to burn', burnt: 'to rinse', rinsed: 'to scrub', scrubbed: 'scrubbed' } as const;
const COLUMNS: readonly ListColumn<CouponSummary>[] = [
  { key: 'code', label: 'Coupon', value: ({ code }) => code },
  { key: 'stage', label: 'Stage', value: ({ stage }) => WORDS[stage] },
  { key: 'compound', label: 'Compound', value: ({ compoundId }) => shop.nameOf(compoundId) || 'none' },
  { key: 'substrate', label: 'Substrate', value: ({ substrateId }) => shop.nameOf(substrateId) },
  { key: 'head', label: 'Head', value: ({ headId }) => shop.nameOf(headId) },
  { key: 'cells', label: 'Cells', numeric: true, value: ({ cells }) => cells },
  { key: 'hold', label: 'Hold', numeric: true, value: ({ stage, holds }) => (stage === 'scrubbed' ? holds : null) },
  { key: 'for', label: 'For', value: ({ ticketTitle }) => ticketTitle },
  { key: 'made', label: 'Made', value: ({ createdAt }) => createdAt },
];
</script>

<template>
  <PageHead
    title="Coupons"
    :about="
      coupons ? `${coupons.length}, ${coupons.filter(({ stage }) => stage === 'scrubbed').length} of them scrubbed` : ''
    "
  />
  <div class="body">
    <p v-if="coupons && !coupons.length">No coupon yet. Open a ticket and go to Prove to design the first.</p>
    <DataList v-else-if="coupons" name="coupons" :rows="coupons" :columns="COLUMNS" :to="({ id }) => `/coupons/${id}`">
      <template #cell-code="{ row }">
        <RouterLink :to="`/coupons/${row.id}`"
          ><strong>{{ row.code }}</strong></RouterLink
        >
      </template>
      <template #cell-made="{ row }">{{ formatDay(row.createdAt) }}</template>
    </DataList>
  </div>
</template>

<style scoped>
.body {
  padding: 1rem 1.5rem;
}
</style>
