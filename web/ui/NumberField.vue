<script setup lang="ts">
import InputText from 'primevue/inputtext';
import { ref, watch } from 'vue';
import FieldRow from './FieldRow.vue';
import { parseNumber } from './format';

/** A number as typed, comma or point; what is no number becomes NaN and is refused at the field, never dropped. */
const model = defineModel<number | null>({ required: true });
const props = defineProps<{
  label: string;
  unit?: string;
  fault?: string | undefined;
  hint?: string | undefined;
  optional?: boolean;
  testId?: string;
}>();
defineEmits<{ left: [] }>();

const text = ref(show(model.value));
watch(model, (value) => {
  const typed = parseNumber(text.value);
  if (value !== typed && !(Number.isNaN(value) && Number.isNaN(typed))) text.value = show(value);
});

function show(value: number | null | undefined): string {
  return value === null || value === undefined || Number.isNaN(value) ? '' : String(Number(value.toPrecision(8)));
}

function typed(entry: string | undefined): void {
  text.value = entry ?? '';
  model.value = props.optional && text.value.trim() === '' ? null : parseNumber(text.value);
}
</script>

<template>
  <FieldRow v-slot="{ id, described, invalid }" :label="label" :fault="fault" :hint="hint">
    <span class="with-unit">
      <InputText
        :id="id"
        class="mono"
        inputmode="decimal"
        autocomplete="off"
        :model-value="text"
        :invalid="invalid"
        :aria-invalid="invalid"
        :aria-describedby="described"
        :data-test-id="testId"
        @update:model-value="typed"
        @blur="$emit('left')"
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
