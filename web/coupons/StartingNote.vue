<script setup lang="ts">
import { computed } from 'vue';
import { assumedKey, type Assumed, type FittedEquipment } from '@unto/domain';
import GradeMark from '../evidence/GradeMark.vue';
import { formatFigure } from '../ui/format';
import NumberField from '../ui/NumberField.vue';
import { useUnits } from '../ui/useUnits';
import type { StartingDraft } from './starting-draft';

/** Where the axes of a first coupon come from, in numbers, and on which blank it is drawn. */
const props = defineProps<{
  start: StartingDraft;
  equipment: FittedEquipment;
  /** What notes leave out. */
  assumed: readonly Assumed[];
  /** What held under other beams, and why none of it is carried over. */
  refused: readonly string[];
}>();
/** What was typed for it. */
const typed = defineModel<ReadonlyMap<string, number>>('typed', { required: true });
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
/** Notes that the axes rest on, and what they leave out: typed, the coupon gets narrower. */
const asked = computed(() => {
  const from = range.value?.from ?? [];
  return props.assumed.filter(
    ({ title, source }) => from.some((point) => point.source.startsWith(`${title}: ${source}`)) || typed.value.size,
  );
});
const LABELS = { topSpeedMmPerS: 'Top speed of that head', ratedW: 'Power of that head' } as const;
function type(of: Assumed, value: number | null | undefined): void {
  const now = new Map(typed.value);
  if (value && value > 0) now.set(assumedKey(of), value);
  else now.delete(assumedKey(of));
  typed.value = now;
}
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
  <div v-for="one in asked" :key="assumedKey(one)" class="asked no-print" data-test-id="assumed">
    <NumberField
      class="typed"
      :model-value="typed.get(assumedKey(one)) ?? null"
      :label="LABELS[one.part]"
      :unit="one.part === 'ratedW' ? 'W' : 'mm/s'"
      :test-id="`assumed-${one.part}`"
      @update:model-value="type(one, $event)"
    />
    <span class="quiet small"
      >“{{ one.title }}” ({{ one.source }}) leaves it out: taken as {{ one.low }} to {{ one.high }}
      {{ one.part === 'ratedW' ? 'W' : 'mm/s' }}, as is usual of its beam. Type it, and the coupon gets narrower.</span
    >
  </div>
  <p v-for="why in refused" :key="why" class="refused small" data-test-id="not-carried">
    <strong>Not carried over:</strong> {{ why }}
  </p>
</template>

<style scoped>
.starting {
  margin: 0;
  padding: 0.4rem 0.7rem;
  border-left: 4px solid var(--unto-rule);
  background: var(--unto-surface);
}
.asked {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.4rem 1rem;
  padding: 0.3rem 0.7rem;
}

.typed {
  width: 11rem;
}

.asked .small {
  flex: 1 1 16rem;
}

.refused {
  margin: 0;
  padding: 0.3rem 0.7rem;
}
</style>
