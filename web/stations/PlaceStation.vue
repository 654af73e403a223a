<script setup lang="ts">
import { decisive, makeFigure, placeChecks, spotOffFocus } from '@unto/core';
import { rayleighOf } from '@unto/contract';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { useTicket } from '../stores/ticket';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import FigureTile from '../ui/FigureTile.vue';
import NumberField from '../ui/NumberField.vue';
import TileStrip from '../ui/TileStrip.vue';
import CheckList from './CheckList.vue';
import StationBody from './StationBody.vue';

const ticket = useTicket();
const router = useRouter();
const offset = ref<number>(ticket.page?.recipes[0]?.focusOffsetMm ?? 0);
const model = useSection('beam', { offsetMm: computed(() => (Number.isFinite(offset.value) ? offset.value : 0)) });
const checks = computed(() => placeChecks({ coated: ticket.compound !== null }));

const spot = computed(() => {
  const { fitted } = ticket;
  if (!fitted || !Number.isFinite(offset.value)) return null;
  const { lens } = fitted;
  const spotMm = Math.sqrt(lens.spotXMm * lens.spotYMm);
  return makeFigure({
    formula: 'spotOffFocus',
    value: spotOffFocus({ spotMm, rayleighMm: rayleighOf(lens) }, offset.value),
    unit: 'mm',
    inputs: [
      decisive('spot in focus', 'stated', { value: spotMm, unit: 'mm' }),
      decisive('depth of focus', 'stated', { value: lens.depthOfFocusMm, unit: 'mm' }),
      decisive('height off focus', 'measured', { value: offset.value, unit: 'mm' }),
    ],
  });
});
const depth = computed(() => {
  const lens = ticket.fitted?.lens;
  return lens
    ? makeFigure({
        formula: 'depthOfFocus',
        value: lens.depthOfFocusMm,
        unit: 'mm',
        inputs: [decisive(`lens record, spot +${Math.round(lens.depthGrowth * 100)} %`, 'stated')],
      })
    : null;
});
</script>

<template>
  <StationBody station="place">
    <template #left>
      <SectionDrawing v-if="model" :model="model" title="Section under the beam" />
      <TileStrip>
        <FigureTile label="spot on the part" :figure="spot" />
        <FigureTile label="depth of focus, ±" :figure="depth" />
      </TileStrip>
    </template>
    <h2>Place and focus</h2>
    <NumberField
      v-model="offset"
      label="Look at a focus offset (above the surface is positive)"
      unit="mm"
      hint="Only to see its effect here; the coupon and the run keep their own."
    />
    <CheckList station="place" :checks="checks" />
    <template #foot
      ><Button label="Go to Prove" @click="router.push(`/tickets/${ticket.ticket!.id}/prove`)"
    /></template>
  </StationBody>
</template>
