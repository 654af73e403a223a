<script setup lang="ts">
import InputText from 'primevue/inputtext';
import { computed, ref, watch } from 'vue';
import type { Quantity } from '@unto/core';
import { shareFromText, shareToText } from './share';
import FieldRow from './FieldRow.vue';
import UnitPick from './UnitPick.vue';
import { useNamedField, type FieldProps } from './useNamedField';
import { useTypedQuantity } from './useTypedQuantity';

/**
 * A number as typed, comma or point; what is no number becomes NaN and is refused at the field, never dropped. A quantity is typed in
 * the unit of the shop, the panel or this field, and handed on in the unit of the core; a share in percent or as a fraction. A bare one
 * has its unit said beside it.
 */
const model = defineModel<number | null>();
const props = defineProps<
  FieldProps & {
    unit?: string;
    quantity?: Quantity;
    share?: boolean;
    optional?: boolean;
    must?: boolean;
    bare?: boolean;
  }
>();
const emit = defineEmits<{ left: [] }>();
const { value, fault: shownFault, required, left } = useNamedField<number | null>(props, model);
const field = computed(() => props.testId ?? props.name ?? props.label);
const typedIn = useTypedQuantity(
  () => props.quantity,
  () => field.value,
);

const toText = (of: number | null | undefined) => (props.share ? shareToText(of) : typedIn.toText(of));
const text = ref(toText(value.value));
const unreadable = ref('');
const same = (a: unknown, b: unknown) => Object.is(a, b) || (a ?? null) === (b ?? null);
watch(value, (now) => {
  if (!same(now, meant(text.value).value)) text.value = toText(now);
});
watch(typedIn.unit, () => (text.value = toText(value.value)));

function meant(entry: string) {
  const plain = { typedUnit: null, fault: '' };
  if (props.optional && entry.trim() === '') return { ...plain, value: null };
  return props.share ? { ...plain, value: shareFromText(entry) } : typedIn.fromText(entry);
}

function typed(entry: string | undefined): void {
  text.value = entry ?? '';
  const found = meant(text.value);
  unreadable.value = found.fault;
  value.value = found.value;
}

function leave(): void {
  const { typedUnit, value: now } = meant(text.value);
  if (typedUnit) {
    typedIn.unit.value = typedUnit;
    text.value = toText(now);
  } else if (props.share && !Number.isNaN(now)) text.value = toText(now);
  left();
  emit('left');
}
</script>

<template>
  <FieldRow
    v-slot="{ id, described, invalid }"
    :label="label"
    :fault="unreadable || shownFault"
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
      <UnitPick
        v-if="quantity && !bare && typedIn.units.value.length > 1"
        v-model="typedIn.unit.value"
        :units="typedIn.units.value"
        :of="label"
        :test-id="testId"
      />
      <span v-else-if="unit || share" class="unit">{{ share ? '%' : unit }}</span>
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
