<script setup lang="ts">
import { COUPON_PARAMETERS, PARAMETER_UNITS, type CouponLimits, type CouponParameter } from '@unto/core';
import { computed } from 'vue';
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
const parameters = computed(() =>
  COUPON_PARAMETERS.filter(
    (value) =>
      (props.sprayed || (value !== 'coats' && value !== 'compound')) &&
      (value !== 'frequency' || props.limits.frequencyKHz) &&
      (value !== 'pulse' || props.limits.pulseNs),
  ).map((value) => ({
    value,
    label: [WORDS[value] ?? value, PARAMETER_UNITS[value]].filter(Boolean).join(', '),
  })),
);
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
      v-model="axis.list"
      class="wide"
      label="Values, parted by commas"
      :test-id="`${name}-list`"
    />
    <template v-else>
      <NumberField v-model="axis.from" label="From" :test-id="`${name}-from`" />
      <NumberField v-model="axis.to" label="To" :test-id="`${name}-to`" />
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
