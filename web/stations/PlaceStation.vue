<script setup lang="ts">
import { decisive, makeFigure, placeChecks, spotOffFocus } from '@unto/core';
import { focusDepth, rayleighOf, type PlaceKind } from '@unto/contract';
import Button from 'primevue/button';
import { computed, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import CausticPlot from '../place/CausticPlot.vue';
import CentrePanel from '../place/CentrePanel.vue';
import FlatnessPanel from '../place/FlatnessPanel.vue';
import FocusPanel from '../place/FocusPanel.vue';
import RimPlot from '../place/RimPlot.vue';
import RoundPanel from '../place/RoundPanel.vue';
import WarpMap from '../place/WarpMap.vue';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import { useBench } from '../stores/bench';
import { useTicket } from '../stores/ticket';
import { formatMoment } from '../ui/format';
import FigureTile from '../ui/FigureTile.vue';
import TaskTabs from '../ui/TaskTabs.vue';
import TileStrip from '../ui/TileStrip.vue';
import CheckList from './CheckList.vue';
import StationBody from './StationBody.vue';

/** Place and focus: the checks, a dot hunt, the flatness of the piece, the centre of a disc, a round part. */
type Task = 'checks' | PlaceKind;
const TASKS: readonly { readonly key: Task; readonly label: string }[] = [
  { key: 'checks', label: 'Checks' },
  { key: 'focus', label: 'Focus' },
  { key: 'flatness', label: 'Flatness' },
  { key: 'round', label: 'Round' },
  { key: 'centre', label: 'Centre' },
];
const KIND_WORDS: Record<PlaceKind, string> = {
  focus: 'focus',
  flatness: 'flatness',
  round: 'round part',
  centre: 'centre',
};
const ticket = useTicket();
const bench = useBench();
const router = useRouter();
const task = ref<Task>('checks');
const model = useSection('beam');
const checks = computed(() => placeChecks({ coated: ticket.compound !== null }));
const offset = computed(() => ticket.page?.recipes[0]?.focusOffsetMm ?? 0);
const depth = computed(() => (ticket.fitted ? focusDepth(ticket.fitted.lens, ticket.page?.huntedDepth ?? null) : null));
const focus = useTemplateRef<InstanceType<typeof FocusPanel>>('focus');
const flatness = useTemplateRef<InstanceType<typeof FlatnessPanel>>('flatness');
const centre = useTemplateRef<InstanceType<typeof CentrePanel>>('centre');
const history = computed(() => ticket.page?.placeReadings.slice(0, 6) ?? []);

const spot = computed(() => {
  const { fitted } = ticket;
  if (!fitted) return null;
  const { lens } = fitted;
  const spotMm = Math.sqrt(lens.spotXMm * lens.spotYMm);
  return makeFigure({
    formula: 'spotOffFocus',
    value: spotOffFocus({ spotMm, rayleighMm: rayleighOf(lens) }, offset.value),
    unit: 'mm',
    inputs: [
      decisive('spot in focus', 'stated', { value: spotMm, unit: 'mm' }),
      decisive('depth of focus', 'stated', { value: lens.depthOfFocusMm, unit: 'mm' }),
      decisive('focus offset of the setting', 'measured', { value: offset.value, unit: 'mm' }),
    ],
  });
});
</script>

<template>
  <StationBody station="place">
    <template #left>
      <template v-if="task === 'focus' && focus?.drawn.length">
        <h2>Dots and the waist between them</h2>
        <CausticPlot :dots="focus.drawn" :growth="0.05" />
      </template>
      <template v-else-if="task === 'flatness' && flatness?.result && ticket.ticket">
        <h2>The artwork from above</h2>
        <WarpMap
          :readings="flatness.entries.readings"
          :mark-width-mm="ticket.ticket.markWidthMm"
          :mark-height-mm="ticket.ticket.markHeightMm"
          :focus-mm="flatness.entries.focusMm"
          :depth-mm="flatness.depth.value"
          :steps="flatness.split"
        />
      </template>
      <template v-else-if="task === 'centre' && centre?.result">
        <h2>The rim as touched</h2>
        <RimPlot :points="centre.entries.points" />
      </template>
      <SectionDrawing v-else-if="model" :model="model" title="Section under the beam" />
      <TileStrip>
        <FigureTile label="spot on the part" :figure="spot" />
        <FigureTile label="depth of focus, ±" :figure="depth" test-id="tile-depth" />
      </TileStrip>
    </template>
    <TaskTabs v-model="task" :tasks="TASKS" name="place" />
    <template v-if="task === 'checks'">
      <h2>Place and focus</h2>
      <CheckList station="place" :checks="checks" />
      <section v-if="history.length" class="kept" data-test-id="place-history">
        <h3>Read on this ticket</h3>
        <p v-for="reading in history" :key="reading.id" class="small">
          {{ formatMoment(reading.at) }}: {{ KIND_WORDS[reading.kind] }}, {{ reading.decision }}
          <span class="quiet">{{ bench.personOf(reading.by) }}</span>
        </p>
      </section>
    </template>
    <FocusPanel v-else-if="task === 'focus'" ref="focus" />
    <FlatnessPanel v-else-if="task === 'flatness'" ref="flatness" />
    <RoundPanel v-else-if="task === 'round'" />
    <CentrePanel v-else ref="centre" />
    <template #foot
      ><Button v-if="task === 'checks'" label="Go to Prove" @click="router.push(`/tickets/${ticket.ticket!.id}/prove`)"
    /></template>
  </StationBody>
</template>

<style scoped>
.kept {
  display: flex;
  flex-direction: column;
  gap: 0.15rem;
}
</style>
