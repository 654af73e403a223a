<script setup lang="ts">
import type { TicketWindow } from '@unto/contract';
import type { CouponWindowCell } from '@unto/domain';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { formatDay } from '../ui/format';

/** The coupons that a window is fitted to, with what became of their cells. */
const props = defineProps<{ coupons: TicketWindow['coupons']; cells: readonly CouponWindowCell[] }>();
const seen = computed(() =>
  props.coupons.map(({ id, code, burntAt, sameRevisions }) => {
    const own = props.cells.filter(({ couponId }) => couponId === id);
    const of = (outcome: CouponWindowCell['outcome']) => own.filter((cell) => cell.outcome === outcome).length;
    const byEye = own.filter((cell) => cell.byEye).length;
    return {
      ...{ id, code, burntAt, count: own.length },
      ...{ under: of('under'), holds: of('holds'), over: of('over') },
      about: [
        ...(byEye ? [`${byEye === own.length ? 'all' : byEye} judged by eye: counted as more often misread`] : []),
        ...(sameRevisions ? [] : ['fired on other revisions']),
      ].join('; '),
    };
  }),
);
</script>

<template>
  <table class="coupons small">
    <thead>
      <tr>
        <th>Coupon</th>
        <th>Fired</th>
        <th class="n">Cells</th>
        <th>After the scrub</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="coupon in seen" :key="coupon.id">
        <td>
          <RouterLink :to="`/coupons/${coupon.id}`">{{ coupon.code }}</RouterLink>
        </td>
        <td>{{ coupon.burntAt ? formatDay(coupon.burntAt) : '' }}</td>
        <td class="n mono">{{ coupon.count }}</td>
        <td class="mono outcomes">○ {{ coupon.under }} ● {{ coupon.holds }} ✕ {{ coupon.over }}</td>
        <td>{{ coupon.about }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.coupons {
  border-collapse: collapse;
  border-top: 1px solid var(--unto-rule);
}

th,
td {
  padding: 0.25rem 0.5rem;
  border-bottom: 1px solid var(--unto-rule);
  text-align: left;
}

.n {
  text-align: right;
}

.outcomes {
  white-space: nowrap;
}
</style>
