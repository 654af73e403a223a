<script setup lang="ts">
import { SWITCH_STATES, type SwitchState } from '@unto/core';
import PickOne from '../ui/PickOne.vue';

/** Air and extraction while it fires, asked of whoever stands there: part of what is proved. */
const air = defineModel<SwitchState | null>('air', { required: true });
const extraction = defineModel<SwitchState | null>('extraction', { required: true });
const states = SWITCH_STATES.map((value) => ({ value, label: value }));
</script>

<template>
  <div class="notes">
    <PickOne v-model="air" label="Air assist" :options="states" test-id="fire-air" />
    <PickOne v-model="extraction" label="Extraction" :options="states" test-id="fire-extraction" />
  </div>
</template>

<style scoped>
.notes {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem 1.6rem;
}
</style>
