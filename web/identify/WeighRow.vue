<script setup lang="ts">
import { DENSITY_TEST, MASS_UNITS, type NextTest } from '@unto/core';
import { computed } from 'vue';
import EnteredField from '../ui/EnteredField.vue';
import NumberField from '../ui/NumberField.vue';
import { withUnit } from '../ui/format';
import { densityOf, type Sighting } from './observations';
import TestFrame from './TestFrame.vue';
import PickOne from '../ui/PickOne.vue';

/** Weight against volume, by ruler or by water. */
const sighting = defineModel<Sighting>({ required: true });
defineProps<{ next: NextTest | undefined; leads: boolean }>();
const found = computed(() => densityOf(sighting.value));
const said = computed(() => {
  if (!found.value) return '';
  if ('fault' in found.value) return found.value.fault;
  const { value, error } = found.value.density;
  return `${withUnit(value, 'g/cm³', 3)} ± ${Math.max(1, Math.round(100 * error))} %`;
});
const set = (change: Partial<Sighting>) => (sighting.value = { ...sighting.value, weigh: true, ...change });
const VOLUME_BY = [
  { value: 'sheet', label: 'ruler' },
  { value: 'water', label: 'water' },
] as const;
const MEASURES = [
  { key: 'lengthMm', label: 'Length' },
  { key: 'widthMm', label: 'Width' },
  { key: 'thicknessMm', label: 'Thickness' },
] as const;
</script>

<template>
  <TestFrame
    :name="DENSITY_TEST.name"
    :how="DENSITY_TEST.how"
    :harm="DENSITY_TEST.harm"
    :next="next"
    :leads="leads"
    data-test-id="test-density"
  >
    <div class="row">
      <EnteredField
        :model-value="sighting.mass"
        label="Weight"
        :units="MASS_UNITS"
        test-id="weigh-mass"
        @update:model-value="set({ mass: $event })"
      />
      <PickOne
        class="by"
        label="Volume by"
        :model-value="sighting.by"
        :options="VOLUME_BY"
        test-id="weigh-by"
        @update:model-value="set({ by: $event })"
      />
      <template v-if="sighting.by === 'sheet'">
        <NumberField
          v-for="measure in MEASURES"
          :key="measure.key"
          :model-value="sighting[measure.key]"
          :label="measure.label"
          quantity="length"
          :test-id="`weigh-${measure.key}`"
          @update:model-value="set({ [measure.key]: $event ?? Number.NaN })"
        />
      </template>
      <NumberField
        v-else
        :model-value="sighting.displacedMl"
        label="Water pushed away"
        unit="mL"
        test-id="weigh-displacedMl"
        @update:model-value="set({ displacedMl: $event ?? Number.NaN })"
      />
    </div>
    <p class="mono" :class="{ fault: found && 'fault' in found }" data-test-id="density">{{ said }}</p>
  </TestFrame>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 1.7fr 0.8fr 1fr 1fr 1fr;
  gap: 0.6rem;
  align-items: end;
}

.by {
  display: flex;
  flex-direction: column;
  gap: 0.25rem;
}

.by select {
  min-height: 44px;
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
  background: var(--unto-surface);
  color: var(--unto-ink);
}

@media (max-width: 700px) {
  .row {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
