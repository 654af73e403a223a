<script setup lang="ts">
import { CoreError, type GaugeMetal } from '@unto/core';
import type { InventoryKind } from '@unto/contract';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useShop } from '../stores/shop';
import { lensFromBeam, thicknessFromGauge } from './work-out';

/** What can be worked out of other fields: a gauge's thickness, a spot from the beam. */
const values = defineModel<Record<string, unknown>>({ required: true });
const props = defineProps<{ kind: InventoryKind }>();
const shop = useShop();
const said = ref('');

function fill(fields: Record<string, unknown>): void {
  values.value = { ...values.value, ...fields };
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

const beam = computed(() => {
  const { headId, ...lens } = values.value as { headId: string; focalLengthMm: number; depthGrowth: number };
  return lensFromBeam(shop.item('head', headId)?.body ?? null, lens);
});
/** What stands in the way of working the spot out, or what was done. */
const shown = computed(() => (props.kind === 'lens' && 'missing' in beam.value ? beam.value.missing : said.value));

function takeSpot(): void {
  if ('missing' in beam.value) return;
  fill(beam.value.fields);
  said.value = 'Worked out as 4 M² λ f ÷ (π D); a measured spot is better.';
}
</script>

<template>
  <div v-if="props.kind === 'substrate' || props.kind === 'lens'" class="helpers">
    <Button
      v-if="props.kind === 'substrate'"
      type="button"
      outlined
      label="Thickness from the gauge"
      data-test-id="from-gauge"
      @click="takeGauge"
    />
    <Button
      v-else
      type="button"
      outlined
      label="Work spot and depth out from the head’s beam"
      :disabled="'missing' in beam"
      data-test-id="work-out-spot"
      @click="takeSpot"
    />
    <p class="quiet small said" role="status">{{ shown }}</p>
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

.said {
  flex: 1 1 16rem;
  min-height: 1.2em;
}
</style>
