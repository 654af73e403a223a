<script setup lang="ts">
import type { OddCell } from '@unto/core';
import type { PairingWindow } from '@unto/contract';
import type { CouponWindowCell } from '@unto/domain';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';

/** Cells that the others do not bear out, by coupon: to be looked at again before they cost a setting. */
const props = defineProps<{
  coupons: PairingWindow['coupons'];
  cells: readonly CouponWindowCell[];
  odd: readonly OddCell[];
}>();
const found = computed(() =>
  props.coupons.flatMap(({ id, code }) => {
    const own = props.odd.map(({ index }) => props.cells[index]!).filter(({ couponId }) => couponId === id);
    return own.length ? [{ id, code, cells: own.map(({ cell }) => cell + 1).sort((a, b) => a - b) }] : [];
  }),
);
</script>

<template>
  <p v-if="odd.length" class="small" data-test-id="odd-cells">
    Look again at
    <template v-for="(one, i) in found" :key="one.id"
      >{{ i ? '; ' : '' }}cell{{ one.cells.length === 1 ? '' : 's' }} {{ one.cells.join(', ') }} of
      <RouterLink :to="`/coupons/${one.id}`">{{ one.code }}</RouterLink></template
    >, ringed: {{ odd.length === 1 ? 'it disagrees' : 'they disagree' }} with the cells around.
  </p>
</template>
