<script setup lang="ts">
import InputText from 'primevue/inputtext';
import { ref, watch } from 'vue';
import FieldRow from './FieldRow.vue';
import { parseNumber } from './format';
import { useNamedField, type FieldProps } from './useNamedField';

/** A number as typed, comma or point; what is no number becomes NaN and is refused at the field, never dropped. */
const model = defineModel<number | null>();
const props = defineProps<FieldProps & { unit?: string; optional?: boolean; must?: boolean }>();
const emit = defineEmits<{ left: [] }>();
const { value, fault: shownFault, required, left } = useNamedField<number | null>(props, model);

const text = ref(show(value.value));
watch(value, (now) => {
  const typed = parseNumber(text.value);
  if (now !== typed && !(Number.isNaN(now) && Number.isNaN(typed))) text.value = show(now);
});

function show(number: number | null | undefined): string {
  return number === null || number === undefined || Number.isNaN(number) ? '' : String(Number(number.toPrecision(8)));
}

function typed(entry: string | undefined): void {
  text.value = entry ?? '';
  value.value = props.optional && text.value.trim() === '' ? null : parseNumber(text.value);
}

function leave(): void {
  left();
  emit('left');
}
</script>

<template>
  <FieldRow
    v-slot="{ id, described, invalid }"
    :label="label"
    :fault="shownFault"
    :hint="hint"
    :required="required || must"
  >
    <span class="with-unit">
      <InputText
        :id="id"
        class="mono"
        inputmode="decimal"
        autocomplete="off"
        :model-value="text"
        :invalid="invalid"
        :aria-invalid="invalid"
        :aria-required="required || must || undefined"
        :aria-describedby="described"
        :data-test-id="testId"
        @update:model-value="typed"
        @blur="leave"
      />
      <span v-if="unit" class="unit">{{ unit }}</span>
      <slot />
    </span>
  </FieldRow>
</template>

<style scoped>
.with-unit {
  display: flex;
  align-items: center;
  gap: 0.4rem;
}

.with-unit :deep(input) {
  flex: 1;
  width: 100%;
  min-width: 3.5rem;
  text-align: right;
}

.unit {
  color: var(--unto-quiet);
  font-size: 0.9rem;
  white-space: nowrap;
}
</style>
