<script setup lang="ts">
import { computed } from 'vue';
import type { FittedEquipment } from '@unto/domain';
import GradeMark from '../evidence/GradeMark.vue';
import { formatFigure } from '../ui/format';
import { useUnits } from '../ui/useUnits';
import type { StartingDraft } from './starting-draft';

/** Where the axes of a first coupon come from, in numbers, and on which blank it is drawn. */
const props = defineProps<{ start: StartingDraft; equipment: FittedEquipment }>();
const units = useUnits();
/** So many points are said; the rest lie among them. */
const MOST = 3;
const range = computed(() => props.start.range);
const speed = ({ low, high }: { low: number; high: number }) =>
  low === high ? units.text('speed', low) : units.span('speed', low, high);
/** Speeds that a point comes to here, as far as this head runs. */
function reached({ low, high }: { low: number; high: number }): string {
  const top = props.equipment.machine.topSpeedMmPerS;
  if (low > top) return 'beyond its top speed';
  return high > top ? `from ${units.text('speed', low)} to beyond its top speed` : speed({ low, high });
}
const said = computed(() =>
  (range.value?.from ?? [])
    .slice(0, MOST)
    .map(({ source, powerW, speedMmPerS }) => `${source}, ${formatFigure(powerW, 2)} W at ${speed(speedMmPerS)}`),
);
const carried = computed(() => {
  const { carried: found, carriedW } = range.value ?? {};
  if (!found || !carriedW) return '';
  return `At ${formatFigure(carriedW, 2)} W here the same dose is ${reached(found.byDose)}, the same heat ${reached(found.byHeat)}; the axes reach beyond both.`;
});
</script>

<template>
  <p class="starting small" data-test-id="starting-note">
    <template v-if="start.because">{{ start.because }}</template>
    <template v-else-if="said.length"
      ><strong>Starts from</strong> {{ said.join('; ') }}. {{ carried }} <GradeMark :grade="range!.grade"
    /></template>
    <template v-else
      >Nothing is known of this pairing: the axes span what the head can do. <GradeMark grade="guess"
    /></template>
    <span v-if="start.blank" class="quiet"> Cut to {{ start.blank.name }}.</span>
  </p>
</template>

<style scoped>
.starting {
  margin: 0;
  padding: 0.4rem 0.7rem;
  border-left: 4px solid var(--unto-rule);
  background: var(--unto-surface);
}
</style>
