<script setup lang="ts">
import type { CouponSummary } from '@unto/contract';
import { onMounted, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { request } from '../api/client';
import { useShop } from '../stores/shop';
import { formatDay } from '../ui/format';
import PageHead from '../ui/PageHead.vue';

const coupons = ref<CouponSummary[] | null>(null);
const shop = useShop();
const WORDS = { designed: 'to burn', burnt: 'to rinse', rinsed: 'to scrub', scrubbed: 'scrubbed' } as const;
onMounted(async () => {
  coupons.value = await request<CouponSummary[]>('GET', '/api/coupons');
});
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
    <table v-else-if="coupons" class="plain">
      <thead>
        <tr>
          <th>Coupon</th>
          <th>Stage</th>
          <th>Compound</th>
          <th>Substrate</th>
          <th>Head</th>
          <th class="number">Cells</th>
          <th class="number">Hold</th>
          <th>For</th>
          <th>Made</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="coupon in coupons" :key="coupon.id">
          <td>
            <RouterLink :to="`/coupons/${coupon.id}`"
              ><strong>{{ coupon.code }}</strong></RouterLink
            >
          </td>
          <td>{{ WORDS[coupon.stage] }}</td>
          <td>{{ shop.nameOf(coupon.compoundId) || 'none' }}</td>
          <td>{{ shop.nameOf(coupon.substrateId) }}</td>
          <td>{{ shop.nameOf(coupon.headId) }}</td>
          <td class="number">{{ coupon.cells }}</td>
          <td class="number">{{ coupon.stage === 'scrubbed' ? coupon.holds : '–' }}</td>
          <td>{{ coupon.ticketTitle }}</td>
          <td>{{ formatDay(coupon.createdAt) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.body {
  padding: 1rem 1.5rem;
  overflow-x: auto;
}
</style>
