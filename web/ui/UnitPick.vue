<script setup lang="ts" generic="U extends string">
import { UNIT_WORDS } from '@unto/core';
import Select from 'primevue/select';
import { computed } from 'vue';

/** The unit behind a field, changed in place. */
const unit = defineModel<U>({ required: true });
const props = defineProps<{ units: readonly U[]; of: string; testId?: string | undefined }>();
const options = computed(() =>
  props.units.map((value) => ({ value, label: value, words: UNIT_WORDS[value] ?? value })),
);
</script>

<template>
  <Select
    v-model="unit"
    class="unit-pick"
    :options="options"
    option-label="label"
    option-value="value"
    :aria-label="`Unit of ${of.toLowerCase()}`"
    :pt="{ label: { 'data-test-id': testId ? `${testId}-unit` : undefined } }"
  >
    <template #option="{ option }">
      <span class="mono">{{ option.label }}</span>
      <span v-if="option.words !== option.label" class="quiet small words">{{ option.words }}</span>
    </template>
  </Select>
</template>

<style scoped>
.unit-pick {
  flex: none;
  width: auto;
  min-width: 0;
  border-color: transparent;
  background: transparent;
  box-shadow: none;
}

.unit-pick :deep(.p-select-label) {
  flex: none;
  width: auto;
  padding-inline: 0.35rem 0.1rem;
  color: var(--unto-quiet);
  font-size: 0.9rem;
}

.unit-pick :deep(.p-select-dropdown) {
  width: 1.1rem;
}

.unit-pick :deep(.p-select-dropdown svg) {
  width: 0.7rem;
}

.words {
  margin-left: 0.6rem;
}
</style>
