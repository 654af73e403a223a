<script setup lang="ts" generic="T extends string | null">
import SelectButton from 'primevue/selectbutton';
import { computed, useId } from 'vue';

/** One of a few, all of them in sight. */
const model = defineModel<T>({ required: true });
const props = defineProps<{
  label: string;
  options: readonly { readonly value: NonNullable<T>; readonly label: string }[];
  /** Names each choice as well: `stage` gives `stage-rinsed`. */
  testId: string;
  /** The label stands for itself and is only read out. */
  bare?: boolean;
}>();
const id = useId();
const choices = computed(() => [...props.options]);
</script>

<template>
  <div class="pick">
    <span :id="id" :class="bare ? 'visually-hidden' : 'quiet small'">{{ label }}</span>
    <SelectButton
      v-model="model"
      :options="choices"
      option-label="label"
      option-value="value"
      :allow-empty="false"
      :aria-labelledby="id"
    >
      <template #option="{ option }">
        <span :data-test-id="`${testId}-${option.value}`">{{ option.label }}</span>
      </template>
    </SelectButton>
  </div>
</template>

<style scoped>
.pick {
  display: flex;
  flex-direction: column;
  gap: 0.25rem;
}

.pick :deep(.p-togglebutton-content) {
  min-height: 42px;
}
</style>
