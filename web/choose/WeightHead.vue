<script setup lang="ts">
import { CRITERION_INFO, type Criterion } from '@unto/core';

/** A criterion's column head with its weight, moved by pointer or arrow keys. */
const model = defineModel<number>({ required: true });
defineProps<{ criterion: Criterion }>();
</script>

<template>
  <label class="head" :title="CRITERION_INFO[criterion].means">
    <span class="label"
      >{{ CRITERION_INFO[criterion].label }} <span class="mono quiet">{{ model }}</span></span
    >
    <input
      v-model.number="model"
      type="range"
      min="0"
      max="10"
      step="0.5"
      :aria-label="`how much ${CRITERION_INFO[criterion].label} counts, 0 to 10`"
      :data-test-id="`weight-${criterion}`"
    />
  </label>
</template>

<style scoped>
.head {
  display: flex;
  flex-direction: column;
  min-width: 0;
  font-size: 0.82rem;
}

.label {
  display: flex;
  justify-content: space-between;
  gap: 0.2rem;
  overflow: hidden;
  white-space: nowrap;
}

input {
  width: 100%;
  min-width: 0;
  height: 24px;
  margin: 0;
  accent-color: var(--unto-action);
  cursor: pointer;
}
</style>
