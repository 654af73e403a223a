<script setup lang="ts">
import { settingWords, SETTING_PART_NAMES } from '@unto/core';
import type { WindowFamily } from '@unto/domain';
import { computed } from 'vue';
import ChoiceField from '../ui/ChoiceField.vue';
import { useUnits } from '../ui/useUnits';
import { MAP_PARTS, type MapPart, type MapRest } from './useWindow';

/** Where the map is cut: one value of everything its cells vary besides power and speed, and what they all share. */
const rest = defineModel<MapRest>({ required: true });
const props = defineProps<{ family: WindowFamily }>();
const units = useUnits();
const values = (part: MapPart) =>
  [...new Set(props.family.cells.map((cell) => cell[part]))].filter((value) => value !== null).sort((a, b) => a - b);
const varied = computed(() => MAP_PARTS.filter((part) => values(part).length > 1));

function said(part: MapPart, value: number): string {
  if (part === 'intervalMm') return units.text('interval', value);
  if (part === 'focusOffsetMm') return units.text('length', value);
  if (part === 'angleDeg') return `${value}°`;
  if (part === 'frequencyKHz') return `${value} kHz`;
  if (part === 'pulseNs') return `${value} ns`;
  return part === 'hatches' ? (value > 1 ? 'crossed' : 'one direction') : String(value);
}
/** What all cells share, power and speed left out. */
const shared = computed(() => {
  const own = Object.fromEntries(
    MAP_PARTS.filter((part) => !varied.value.includes(part)).map((p) => [p, rest.value[p]]),
  );
  return settingWords({ ...own, ...props.family.fixed, coats: props.family.coats || 1 }, units.reading.value);
});
const set = (part: MapPart, value: number | undefined) =>
  value !== undefined && (rest.value = { ...rest.value, [part]: value });
</script>

<template>
  <ChoiceField
    v-for="part in varied"
    :key="part"
    class="part"
    :model-value="rest[part]!"
    :label="`Shown: ${part === 'coats' ? part : SETTING_PART_NAMES[part]}`"
    :options="values(part).map((value) => ({ value, label: said(part, value) }))"
    :test-id="`map-${part}`"
    @update:model-value="set(part, $event)"
  />
  <span class="mono small shared" data-test-id="family-shared">{{ shared }}</span>
</template>

<style scoped>
.part {
  width: 10rem;
}
</style>
