<script setup lang="ts" generic="U extends string">
import Select from 'primevue/select';
import { computed } from 'vue';
import { choicesOf } from './choices';
import NumberField from './NumberField.vue';
import { useNamedField, type FieldProps } from './useNamedField';

/** A value in a unit of the operator's choice; both are kept as entered. */
const model = defineModel<{ value: number; unit: U }>();
const props = defineProps<FieldProps & { units: readonly U[] }>();
const emit = defineEmits<{ left: [] }>();
const { value: entered, fault: shownFault, required, left } = useNamedField(props, model, '.value');

const value = computed({
  get: () => entered.value.value,
  set: (entry: number | null | undefined) => (entered.value = { ...entered.value, value: entry ?? Number.NaN }),
});
const unit = computed({
  get: () => entered.value.unit,
  set: (entry: U) => (entered.value = { ...entered.value, unit: entry }),
});

function leave(): void {
  left();
  emit('left');
}
const options = computed(() => choicesOf(props.units));
</script>

<template>
  <NumberField
    v-model="value"
    :label="label"
    :must="required"
    :fault="shownFault"
    :hint="hint"
    :test-id="testId"
    @left="leave"
  >
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
