<script setup lang="ts">
import { BLOCK_POWERS, BLOCK_SPEEDS } from '@unto/core';
import { useUnits } from '../ui/useUnits';
import type { useNextCoupon } from './useNextCoupon';

/** The coupon that would tell most, in words: its cells, what it is likely to bring, and from when it pays. */
defineProps<{ next: ReturnType<typeof useNextCoupon>; proven: boolean }>();
const units = useUnits();
</script>

<template>
  <section v-if="next.next.value" data-test-id="next-coupon">
    <h2>The next coupon</h2>
    <p>
      {{ BLOCK_POWERS.count * BLOCK_SPEEDS.count }} cells at
      <b class="mono">{{ next.next.value.powersPercent.map((power) => units.text('power', power)).join(' to ') }}</b>,
      <b class="mono">{{ next.next.value.speedsMmPerS.map((speed) => units.text('speed', speed)).join(' to ') }}</b>,
      {{ units.text('interval', next.next.value.rest.intervalMm) }} interval, would tell most. {{ next.gain.value }}
    </p>
    <p v-if="next.pays.value" class="quiet">{{ next.pays.value }}</p>
  </section>
  <p v-else-if="proven" class="small" data-test-id="next-coupon">
    Nothing that was tried is likely to hold quicker: another coupon is not worth its blank.
  </p>
</template>
