<script setup lang="ts">
import { DIRECTIONS, FILLS, POWER_MODES, SWITCH_STATES, restWords, type SettingRest } from '@unto/core';
import { computed, inject } from 'vue';
import ChoiceField from '../ui/ChoiceField.vue';
import NumberField from '../ui/NumberField.vue';
import { FORM } from '../ui/useForm';
import { useUnits } from '../ui/useUnits';
import { FILL_WORDS, POWER_MODE_WORDS } from './setting-names';

/** All of a setting besides power, speed and interval: what is seldom touched stays folded, its values said in the fold. */
const props = defineProps<{
  /** What a pulsed head lets set; fields of a head that has none stay away. */
  pulsed: { readonly frequency: boolean; readonly pulse: boolean };
  /** Whether air and extraction are asked here. */
  fired?: boolean;
  /** Air may stay not noted: somebody else stated it. */
  unsure?: boolean;
  /** The fold stands open. */
  open?: boolean;
}>();
const form = inject(FORM)!;
const units = useUnits();
const rest = computed(() => form.values.value as SettingRest);
const said = computed(() => {
  const { hatches, angleDeg, fill, directions, powerMode } = rest.value;
  return restWords({ hatches, angleDeg, fill, directions, powerMode }, units.reading.value).join(', ') || 'plain';
});
const plain = <T extends string>(values: readonly T[]) => values.map((value) => ({ value, label: value }));
const orNone = <T extends string>(options: readonly { value: T; label: string }[]) => [
  { value: null, label: 'not noted' },
  ...options,
];
const hatches = [
  { value: 1, label: 'one way' },
  { value: 2, label: 'crossed at a right angle' },
];
const worded = <T extends string>(values: readonly T[], words: Record<T, string>) =>
  values.map((value) => ({ value, label: words[value] }));
</script>

<template>
  <NumberField name="passes" label="Passes" test-id="passes" />
  <NumberField
    v-if="props.pulsed.frequency"
    name="frequencyKHz"
    optional
    label="Frequency"
    unit="kHz"
    test-id="frequency"
  />
  <NumberField v-if="props.pulsed.pulse" name="pulseNs" optional label="Pulse length" unit="ns" test-id="pulse" />
  <NumberField name="focusOffsetMm" label="Focus offset" quantity="length" test-id="focus-offset" />
  <template v-if="fired">
    <ChoiceField
      name="air"
      label="Air assist"
      :options="unsure ? orNone(plain(SWITCH_STATES)) : plain(SWITCH_STATES)"
      test-id="air"
    />
    <ChoiceField
      name="extraction"
      label="Extraction"
      placeholder="not noted"
      :options="orNone(plain(SWITCH_STATES))"
      test-id="extraction"
    />
  </template>
  <details class="wide fold" :open="open">
    <summary data-test-id="setting-more">
      Hatch and rows <span class="quiet small">{{ said }}</span>
    </summary>
    <div class="form-grid">
      <ChoiceField name="hatches" label="Crossing" :options="hatches" test-id="hatches" />
      <NumberField name="angleDeg" label="Hatch angle" unit="°" test-id="angle" />
      <ChoiceField name="fill" label="Fill" :options="worded(FILLS, FILL_WORDS)" test-id="fill" />
      <ChoiceField
        name="directions"
        label="Row directions"
        placeholder="not noted"
        :options="orNone(plain(DIRECTIONS))"
        test-id="directions"
      />
      <ChoiceField
        name="powerMode"
        label="Power at turns"
        placeholder="not noted"
        :options="orNone(worded(POWER_MODES, POWER_MODE_WORDS))"
        test-id="power-mode"
      />
    </div>
  </details>
</template>

<style scoped>
.fold summary {
  cursor: pointer;
  padding: 0.35rem 0;
}
</style>
