<script setup lang="ts">
import { placeChecks } from '@unto/core';
import type { PlaceKind } from '@unto/contract';
import { focusDepth, isOther, spotAt } from '@unto/domain';
import Button from 'primevue/button';
import { computed, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import ArtworkPanel from '../artwork/ArtworkPanel.vue';
import ArtworkStage from '../artwork/ArtworkStage.vue';
import { useArtwork } from '../artwork/useArtwork';
import AlignPanel from './AlignPanel.vue';
import BedPanel from './BedPanel.vue';
import BedStage from './BedStage.vue';
import { useBed } from './useBed';
import AlignPlot from './AlignPlot.vue';
import CausticPlot from './CausticPlot.vue';
import CentrePanel from './CentrePanel.vue';
import FlatnessPanel from './FlatnessPanel.vue';
import FocusPanel from './FocusPanel.vue';
import HeadPanel from './HeadPanel.vue';
import RimPlot from './RimPlot.vue';
import RoundPanel from './RoundPanel.vue';
import StripMap from './StripMap.vue';
import WarpMap from './WarpMap.vue';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import { newestReading } from './usePlaceEntry';
import { formatMoment } from '../ui/format';
import FigureTile from '../evidence/FigureTile.vue';
import DueIn from '../timers/DueIn.vue';
import TaskTabs from '../ui/TaskTabs.vue';
import TileStrip from '../ui/TileStrip.vue';
import CheckList from '../station/CheckList.vue';
import StationBody from '../station/StationBody.vue';

/** Place and focus: the checks, a dot hunt, the flatness of the piece, the centre of a disc, a round part. */
type Task = 'checks' | 'artwork' | 'picture' | 'head' | 'focus' | 'flatness' | 'round' | 'centre' | 'align';
const TASKS: readonly { readonly key: Task; readonly label: string }[] = [
  { key: 'checks', label: 'Checks' },
  { key: 'artwork', label: 'Artwork' },
  { key: 'picture', label: 'Picture' },
  { key: 'head', label: 'Head' },
  { key: 'focus', label: 'Focus' },
  { key: 'flatness', label: 'Flatness' },
  { key: 'round', label: 'Round' },
  { key: 'centre', label: 'Centre' },
  { key: 'align', label: 'Align' },
];
const KIND_WORDS: Record<PlaceKind, string> = {
  focus: 'focus',
  flatness: 'flatness',
  round: 'round part',
  centre: 'centre',
  align: 'alignment',
  pointer: 'pointer offset',
  set: 'focus set',
  zero: 'the card’s place in the machine',
  laid: 'pieces placed by a picture',
};
const ticket = useTicket();
const shop = useShop();
const router = useRouter();
const task = ref<Task>('checks');
const checks = computed(() => placeChecks({ coated: ticket.compound !== null }));
const set = computed(() => newestReading('set'));
const offset = computed(() => set.value?.offsetMm ?? ticket.page?.recipes[0]?.focusOffsetMm ?? 0);
const other = computed(() => ticket.ticket !== null && isOther(ticket.page?.fitting ?? null, ticket.ticket));
const depth = computed(() => (ticket.fitted ? focusDepth(ticket.fitted.lens, ticket.page?.huntedDepth ?? null) : null));
const art = useArtwork();
const bed = useBed();
const chosenPiece = ref<number | null>(null);
const focus = useTemplateRef<InstanceType<typeof FocusPanel>>('focus');
const flatness = useTemplateRef<InstanceType<typeof FlatnessPanel>>('flatness');
const round = useTemplateRef<InstanceType<typeof RoundPanel>>('round');
const align = useTemplateRef<InstanceType<typeof AlignPanel>>('align');
const centre = useTemplateRef<InstanceType<typeof CentrePanel>>('centre');
const drying = computed(() => ticket.page?.progress.dryingUntil ?? null);
const history = computed(() => ticket.page?.placeReadings.slice(0, 6) ?? []);

const spot = computed(() => (ticket.fitted ? spotAt(ticket.fitted.lens, offset.value) : null));
const model = useSection('beam', { offsetMm: offset });
</script>

<template>
  <StationBody station="place">
    <template #left>
      <ArtworkStage v-if="task === 'artwork'" :state="art" />
      <BedStage v-else-if="task === 'picture'" v-model:chosen="chosenPiece" :state="bed" :artwork="art" />
      <template v-else-if="task === 'focus' && focus?.drawn.length">
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
      <template v-else-if="task === 'round' && round?.result && round.result.strips.length > 1 && ticket.ticket">
        <h2>Lying still, in steps of focus</h2>
        <StripMap
          :diameter-mm="round.widest"
          :strips="round.result.strips"
          :half-width-mm="round.result.halfWidthMm"
          :sphere="round.sphere"
          :mark-width-mm="ticket.ticket.markWidthMm"
          :mark-height-mm="ticket.ticket.markHeightMm"
        />
      </template>
      <template v-else-if="task === 'align' && align?.result">
        <h2>The artwork on the bed</h2>
        <AlignPlot :result="align.result" :entries="align.entries" />
      </template>
      <SectionDrawing v-else-if="model" :model="model" title="Section under the beam" />
      <TileStrip v-if="task !== 'artwork' && task !== 'picture'">
        <FigureTile label="spot on the part" :figure="spot" />
        <FigureTile label="depth of focus, ±" :figure="depth" test-id="tile-depth" />
      </TileStrip>
    </template>
    <TaskTabs v-model="task" :tasks="TASKS" name="place" />
    <template v-if="task === 'checks'">
      <h2>Place and focus</h2>
      <p v-if="other" class="other" role="alert" data-test-id="other-head">
        <strong>{{ shop.nameOf(ticket.page!.fitting!.headId) }}</strong> is fitted, not
        {{ shop.nameOf(ticket.ticket!.headId) }}. Nothing is fired on this ticket until it is changed.
        <Button outlined size="small" label="Change the head" data-test-id="to-head" @click="task = 'head'" />
      </p>
      <p v-if="drying" class="drying" data-test-id="place-drying">
        <strong>The coat still dries</strong> (<DueIn :at="drying" :urgent="false" />). Set up on a bare twin; what is
        wet stays on its rack and is not fired.
      </p>
      <CheckList station="place" :checks="checks" />
      <section v-if="history.length" class="kept" data-test-id="place-history">
        <h3>Read on this ticket</h3>
        <p v-for="reading in history" :key="reading.id" class="small">
          {{ formatMoment(reading.at) }}: {{ KIND_WORDS[reading.kind] }}, {{ reading.decision }}
          <span class="quiet">{{ shop.personOf(reading.by) }}</span>
        </p>
      </section>
    </template>
    <ArtworkPanel v-else-if="task === 'artwork'" :state="art" />
    <BedPanel v-else-if="task === 'picture'" v-model:chosen="chosenPiece" :state="bed" />
    <FocusPanel v-else-if="task === 'focus'" ref="focus" />
    <FlatnessPanel v-else-if="task === 'flatness'" ref="flatness" />
    <RoundPanel v-else-if="task === 'round'" ref="round" />
    <CentrePanel v-else-if="task === 'centre'" ref="centre" />
    <HeadPanel v-else-if="task === 'head'" :key="ticket.page?.fitting?.id" />
    <AlignPanel v-else ref="align" />
    <template #foot
      ><Button v-if="task === 'checks'" label="Go to Prove" @click="router.push(`/tickets/${ticket.ticket!.id}/prove`)"
    /></template>
  </StationBody>
</template>

<style scoped>
.drying {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-coat-line);
  background: var(--unto-coat-tint);
}

.other {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem;
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-danger);
  background: var(--unto-danger-tint);
}

.kept {
  display: flex;
  flex-direction: column;
  gap: 0.15rem;
}
</style>
