<script setup lang="ts" generic="U extends string">
import Select from 'primevue/select';
import { computed } from 'vue';
import { choicesOf } from './choices';
import NumberField from './NumberField.vue';

/** A value in a unit of the operator's choice; both are kept as entered. */
const model = defineModel<{ value: number; unit: U }>({ required: true });
const props = defineProps<{
  label: string;
  units: readonly U[];
  fault?: string | undefined;
  hint?: string | undefined;
  testId?: string;
}>();
defineEmits<{ left: [] }>();

const value = computed({
  get: () => model.value.value,
  set: (entry: number | null) => (model.value = { ...model.value, value: entry ?? Number.NaN }),
});
const unit = computed({
  get: () => model.value.unit,
  set: (entry: U) => (model.value = { ...model.value, unit: entry }),
});
const options = computed(() => choicesOf(props.units));
</script>

<template>
  <NumberField v-model="value" :label="label" :fault="fault" :hint="hint" :test-id="testId" @left="$emit('left')">
    <Select
      v-model="unit"
      class="unit-choice"
      :options="options"
      option-label="label"
      option-value="value"
      :aria-label="`Unit of ${label.toLowerCase()}`"
      :pt="{ label: { 'data-test-id': testId ? `${testId}-unit` : undefined } }"
    />
  </NumberField>
</template>

<style scoped>
.unit-choice {
  min-width: 6.2rem;
}
</style>
