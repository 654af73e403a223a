<script setup lang="ts" generic="U extends string">
import { computed } from 'vue';
import NumberField from './NumberField.vue';
import UnitPick from './UnitPick.vue';
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
    <UnitPick v-model="unit" :units="units" :of="label" :test-id="testId" />
  </NumberField>
</template>
