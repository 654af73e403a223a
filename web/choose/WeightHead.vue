<script setup lang="ts">
import { CRITERION_INFO, type Criterion } from '@unto/core';
import Slider from 'primevue/slider';

/** A criterion's column head with its weight, moved by pointer or arrow keys. */
const model = defineModel<number>({ required: true });
defineProps<{ criterion: Criterion }>();
</script>

<template>
  <div class="head" :title="CRITERION_INFO[criterion].means">
    <span class="label"
      >{{ CRITERION_INFO[criterion].label }} <span class="mono quiet">{{ model }}</span></span
    >
    <Slider
      v-model="model"
      :min="0"
      :max="10"
      :step="0.5"
      :aria-label="`how much ${CRITERION_INFO[criterion].label} counts, 0 to 10`"
      :pt="{ handle: { 'data-test-id': `weight-${criterion}` } }"
    />
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-direction: column;
  gap: 0.55rem;
  min-width: 0;
  padding: 0 0.5rem 0.55rem 0;
  font-size: 0.82rem;
}

.label {
  display: flex;
  justify-content: space-between;
  align-items: flex-end;
  gap: 0.2rem;
  line-height: 1.15;
}
</style>
