<script setup lang="ts">
import { CoreError, HANDBOOK, type GaugeMetal } from '@unto/core';
import type { InventoryKind } from '@unto/contract';
import { computed, ref } from 'vue';
import { useShop } from '../stores/shop';
import ChoiceField from '../ui/ChoiceField.vue';
import { lensFromBeam, substrateFromHandbook, thicknessFromGauge } from './work-out';

/** What can be filled in from elsewhere: handbook values, a gauge's thickness, a spot from the beam. */
const values = defineModel<Record<string, unknown>>({ required: true });
const props = defineProps<{ kind: InventoryKind }>();
const shop = useShop();
const said = ref('');
const material = ref('');
const materials = computed(() => HANDBOOK.map(({ key, name }) => ({ value: key, label: name })));

function fill(fields: Record<string, unknown>): void {
  values.value = { ...values.value, ...fields };
}

function takeMaterial(key: string): void {
  material.value = key;
  fill(substrateFromHandbook(key));
  said.value = 'Family, alloy, density and thermal values taken from the handbooks named as their source.';
}

function takeGauge(): void {
  const { gaugeNumber, gaugeMetal } = values.value as { gaugeNumber: number | null; gaugeMetal: GaugeMetal | null };
  try {
    if (gaugeNumber === null || Number.isNaN(gaugeNumber))
      throw new CoreError('gauge.unknown', 'Enter the gauge first.');
    fill({ thicknessMm: thicknessFromGauge(gaugeNumber, gaugeMetal) });
    said.value = `Gauge ${gaugeNumber} of ${gaugeMetal}: ${String(values.value['thicknessMm'])} mm. Measure the stock all the same.`;
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    said.value = error.message;
  }
}

function takeSpot(): void {
  const { headId, focalLengthMm, depthGrowth } = values.value as {
    headId: string;
    focalLengthMm: number;
    depthGrowth: number;
  };
  const found = lensFromBeam(shop.item('head', headId)?.body ?? null, { focalLengthMm, depthGrowth });
  if ('missing' in found) said.value = found.missing;
  else {
    fill(found.fields);
    said.value = 'Worked out as 4 M² λ f ÷ (π D); a measured spot is better.';
  }
}
</script>

<template>
  <div v-if="props.kind === 'substrate' || props.kind === 'lens'" class="helpers">
    <template v-if="props.kind === 'substrate'">
      <ChoiceField
        :model-value="material"
        label="Fill in from the handbooks"
        placeholder="a material"
        :options="materials"
        test-id="handbook"
        @update:model-value="takeMaterial($event!)"
      />
      <button type="button" class="help" data-test-id="from-gauge" @click="takeGauge">Thickness from the gauge</button>
    </template>
    <button v-else type="button" class="help" data-test-id="work-out-spot" @click="takeSpot">
      Work spot and depth out from the head’s beam
    </button>
    <p class="quiet small said" role="status">{{ said }}</p>
  </div>
</template>

<style scoped>
.helpers {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.5rem 1rem;
  padding: 0.6rem 0.8rem;
  background: var(--unto-surface);
  border: 1px solid var(--unto-rule);
}

.help {
  min-height: 44px;
  padding: 0 0.8rem;
  border: 1px solid var(--unto-action);
  border-radius: 4px;
  background: none;
  color: var(--unto-action);
  font-weight: 700;
  cursor: pointer;
}

.said {
  flex: 1 1 16rem;
  min-height: 1.2em;
}
</style>
