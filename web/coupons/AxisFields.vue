<script setup lang="ts">
import {
  COUPON_PARAMETERS,
  PARAMETER_QUANTITIES,
  PARAMETER_UNITS,
  unitName,
  type CouponLimits,
  type CouponParameter,
} from '@unto/core';
import { computed, ref, watch } from 'vue';
import { parseNumber } from '../ui/format';
import { useUnits } from '../ui/useUnits';
import ChoiceField from '../ui/ChoiceField.vue';
import NumberField from '../ui/NumberField.vue';
import TextField from '../ui/TextField.vue';
import type { AxisDraft } from './design-form';

/** One axis of a coupon: what it varies and through which values. */
const axis = defineModel<AxisDraft>({ required: true });
const props = defineProps<{ title: string; name: string; limits: CouponLimits; sprayed?: boolean }>();
const WORDS: Partial<Record<CouponParameter, string>> = {
  pulse: 'pulse length',
  focus: 'focus offset',
  angle: 'hatch angle',
  hatches: 'hatches: 1, or 2 crossed',
  compound: 'compound: 1, 2 …',
};
const units = useUnits();
function unitOf(parameter: CouponParameter): string {
  const quantity = PARAMETER_QUANTITIES[parameter];
  const unit = quantity ? units.unit(quantity) : PARAMETER_UNITS[parameter];
  return unitName(unit);
}
const parameters = computed(() =>
  COUPON_PARAMETERS.filter(
    (value) =>
      (props.sprayed || (value !== 'coats' && value !== 'compound')) &&
      (value !== 'frequency' || props.limits.frequencyKHz) &&
      (value !== 'pulse' || props.limits.pulseNs),
  ).map((value) => ({
    value,
    label: [WORDS[value] ?? value, unitOf(value)].filter(Boolean).join(', '),
  })),
);
const quantity = computed(() => PARAMETER_QUANTITIES[axis.value.parameter]);

/** The list as it reads here; the axis keeps it as the core counts. */
const listed = ref(listAsRead(axis.value.list));
watch(
  () => [axis.value.list, axis.value.parameter] as const,
  ([now]) => listInCore(listed.value) !== now && (listed.value = listAsRead(now)),
);
function typedList(text: string | null | undefined): void {
  listed.value = text ?? '';
  axis.value.list = listInCore(listed.value);
}
function listAsRead(text: string): string {
  return eachNumber(text, (value) => (quantity.value ? units.read(quantity.value, value).value : value), 5);
}
function listInCore(text: string): string {
  return eachNumber(text, (value) => (quantity.value ? units.toCore(quantity.value, value) : value), 8);
}
/** Every number of a list through a change; what is none stays as it is typed. */
function eachNumber(text: string, change: (value: number) => number, significant: number): string {
  return text.replace(/[^\s,;]+/g, (typed) => {
    const value = parseNumber(typed);
    return Number.isNaN(value) || value <= 0 ? typed : String(Number(change(value).toPrecision(significant)));
  });
}
const spacings = [
  { value: 'linear', label: 'even steps' },
  { value: 'log', label: 'equal ratios' },
  { value: 'list', label: 'a list' },
] as const;
</script>

<template>
  <fieldset>
    <legend>{{ title }}</legend>
    <ChoiceField v-model="axis.parameter" label="Varies" :options="parameters" :test-id="`${name}-parameter`" />
    <ChoiceField v-model="axis.spacing" label="In" :options="spacings" :test-id="`${name}-spacing`" />
    <TextField
      v-if="axis.spacing === 'list'"
      :model-value="listed"
      class="wide"
      :label="`Values, ${unitOf(axis.parameter)} parted by commas`.replace('  ', ' ')"
      :test-id="`${name}-list`"
      @update:model-value="typedList"
    />
    <template v-else>
      <NumberField v-model="axis.from" label="From" bare :quantity="quantity" :test-id="`${name}-from`" />
      <NumberField v-model="axis.to" label="To" bare :quantity="quantity" :test-id="`${name}-to`" />
      <NumberField v-model="axis.count" label="Steps" :test-id="`${name}-count`" />
    </template>
  </fieldset>
</template>

<style scoped>
fieldset {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 0.4rem;
  margin: 0;
  padding: 0 0.5rem 0.5rem;
  border: 1px solid var(--unto-rule);
}

legend {
  font-size: 0.88rem;
  font-weight: 700;
  padding: 0 0.3rem;
}

fieldset > :deep(*) {
  grid-column: span 2;
}

fieldset > :deep(:nth-child(2)),
fieldset > :deep(:nth-child(3)) {
  grid-column: span 3;
}

fieldset > .wide {
  grid-column: 1 / -1;
}
</style>
