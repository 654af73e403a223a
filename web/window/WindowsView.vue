<script setup lang="ts">
import type { CouponSummary, Ticket } from '@unto/contract';
import { computed, onMounted, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { request } from '../api/client';
import { useShop } from '../stores/shop';
import PageHead from '../ui/PageHead.vue';
import { formatDay } from '../ui/format';

/** One window for each pairing of compound, substrate, head and lens that has scrubbed cells. */
const coupons = ref<CouponSummary[] | null>(null);
const tickets = ref<Ticket[]>([]);
const shop = useShop();
onMounted(async () => {
  tickets.value = await request<Ticket[]>('GET', '/api/tickets');
  coupons.value = await request<CouponSummary[]>('GET', '/api/coupons?stage=scrubbed');
});
const pairings = computed(() => {
  const groups = new Map<string, CouponSummary[]>();
  for (const coupon of coupons.value ?? []) {
    const key = [coupon.substrateId, coupon.compoundId, coupon.headId, coupon.lensId].join('|');
    groups.set(key, [...(groups.get(key) ?? []), coupon]);
  }
  return [...groups.entries()].map(([key, group]) => {
    const first = group[0]!;
    const own = tickets.value.filter(
      (ticket) =>
        ticket.substrateId === first.substrateId &&
        ticket.compoundId === first.compoundId &&
        ticket.headId === first.headId &&
        ticket.lensId === first.lensId,
    );
    const sum = (pick: (coupon: CouponSummary) => number) => group.reduce((total, coupon) => total + pick(coupon), 0);
    return {
      key,
      first,
      to: own[0]?.id ?? null,
      codes: group.map(({ code }) => code).join(', '),
      cells: sum(({ scrubbedCells }) => scrubbedCells),
      holds: sum(({ holds }) => holds),
    };
  });
});
</script>

<template>
  <PageHead title="Windows" about="What holds, for each pairing of compound, substrate, head and lens" />
  <div class="body">
    <p v-if="coupons && !coupons.length">
      No scrubbed coupon yet. Scrub one and enter its cells: the window is fitted at once.
    </p>
    <table v-else class="plain">
      <thead>
        <tr>
          <th>Window</th>
          <th>Head and lens</th>
          <th>Coupons</th>
          <th class="number">Cells</th>
          <th class="number">Hold</th>
          <th>Newest</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ key, first, to, codes, cells, holds } in pairings" :key="key">
          <td>
            <component :is="to ? RouterLink : 'span'" :to="`/windows/${to}`"
              ><strong
                >{{ shop.nameOf(first.compoundId) || 'No compound' }} on {{ shop.nameOf(first.substrateId) }}</strong
              ></component
            >
          </td>
          <td>{{ shop.nameOf(first.headId) }}, {{ shop.nameOf(first.lensId) }}</td>
          <td>{{ codes }}</td>
          <td class="number">{{ cells }}</td>
          <td class="number">{{ holds }}</td>
          <td>{{ formatDay(first.createdAt) }}</td>
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
