<script setup lang="ts">
import { DENSITY_TEST, MASS_UNITS, type NextTest } from '@unto/core';
import { computed } from 'vue';
import EnteredField from '../ui/EnteredField.vue';
import NumberField from '../ui/NumberField.vue';
import { withUnit } from '../ui/format';
import { densityOf, harmWord, tellingWord, type Sighting } from './observations';

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
const MEASURES = [
  { key: 'lengthMm', label: 'Length' },
  { key: 'widthMm', label: 'Width' },
  { key: 'thicknessMm', label: 'Thickness' },
] as const;
</script>

<template>
  <fieldset class="weigh" :class="{ leads }" data-test-id="test-density">
    <legend>
      {{ DENSITY_TEST.name }}
      <span v-if="leads" class="lead">tells most next</span>
      <span v-else-if="next" class="quiet small">{{ tellingWord(next.bits) }}</span>
      <span class="small harm">{{ harmWord(DENSITY_TEST.harm) }}</span>
    </legend>
    <p class="quiet small how">{{ DENSITY_TEST.how }}</p>
    <div class="row">
      <EnteredField
        :model-value="sighting.mass"
        label="Weight"
        :units="MASS_UNITS"
        test-id="weigh-mass"
        @update:model-value="set({ mass: $event })"
      />
      <label class="by"
        ><span class="quiet small">Volume by</span>
        <select
          :value="sighting.by"
          data-test-id="weigh-by"
          @change="set({ by: ($event.target as HTMLSelectElement).value as 'sheet' | 'water' })"
        >
          <option value="sheet">ruler</option>
          <option value="water">water</option>
        </select></label
      >
      <template v-if="sighting.by === 'sheet'">
        <NumberField
          v-for="measure in MEASURES"
          :key="measure.key"
          :model-value="sighting[measure.key]"
          :label="measure.label"
          unit="mm"
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
  </fieldset>
</template>

<style scoped>
.weigh {
  margin: 0;
  padding: 0.45rem 0 0.55rem 0.7rem;
  border: 0;
  border-left: 4px solid transparent;
}

.weigh.leads {
  border-left-color: var(--unto-action);
  background: var(--unto-surface);
}

legend {
  float: left;
  width: 100%;
  display: flex;
  gap: 0.7rem;
  align-items: baseline;
  padding: 0;
  font-weight: 700;
}

legend .small {
  font-weight: 400;
}

.lead {
  color: var(--unto-action);
  font-size: 0.85rem;
}

.harm {
  margin-left: auto;
  padding-right: 0.5rem;
  color: var(--unto-bonded);
}

.how {
  clear: both;
}

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
