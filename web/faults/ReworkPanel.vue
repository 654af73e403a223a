<script setup lang="ts">
import { createRework, type CreateRework, type ArtworkDrawing, type FaultPage, type Rework } from '@unto/contract';
import type { FaultSpot } from '@unto/core';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { useOutbox } from '../stores/outbox';
import FormNote from '../ui/FormNote.vue';
import NumberField from '../ui/NumberField.vue';
import { useForm } from '../ui/useForm';
import RegionDraw from './RegionDraw.vue';

/** Pieces that are made anew: which part of them, how they lie under the head now, the focus there; then it is off to Coat. */
const props = defineProps<{
  page: FaultPage;
  caseId: string;
  way: CreateRework['way'];
  pieces: readonly number[];
  spots: readonly FaultSpot[];
  faults: readonly string[];
  made: readonly Rework[];
  /** What was to be marked, where that is known. */
  drawing: ArtworkDrawing | null;
}>();
const outbox = useOutbox();
const own = computed(() => props.made.filter(({ caseId }) => caseId === props.caseId));
const aligning = ref(false);
const isRegion = props.way === 'redo the region';

/** The part that the fault takes, by where it was pressed: somebody draws it right. */
function offered() {
  const { markWidthMm: w, markHeightMm: h } = props.page;
  const [spot] = props.spots;
  if (!spot) return { xMm: 0, yMm: 0, widthMm: w, heightMm: h };
  const edge = props.faults.includes('pale along one edge');
  const round = (value: number) => Number(value.toFixed(1));
  const along = Math.abs(spot.y - 0.5) >= Math.abs(spot.x - 0.5);
  const [width, height] = edge ? (along ? [w, 0.35 * h] : [0.35 * w, h]) : [0.45 * w, 0.45 * h];
  const clamp = (at: number, size: number, most: number) => Math.min(most - size, Math.max(0, at - size / 2));
  return {
    xMm: round(clamp(spot.x * w, width, w)),
    yMm: round(clamp((1 - spot.y) * h, height, h)),
    widthMm: round(width),
    heightMm: round(height),
  };
}
const form = useForm<CreateRework>(
  createRework,
  () => ({
    ...{ id: uuid(), runId: props.page.subjectId, caseId: props.caseId, way: props.way },
    pieces: props.pieces.length ? [...props.pieces] : [1],
    region: isRegion ? offered() : null,
    ...{ alignment: null, focusMm: null, note: '' },
  }),
  { draft: `rework-${props.caseId}` },
);
const { values, busy, faults: wrong } = form;
function align(): void {
  const { markWidthMm: w } = props.page;
  const none = { xMm: Number.NaN, yMm: Number.NaN };
  values.value.alignment = {
    drawn: [
      { xMm: 0, yMm: 0 },
      { xMm: w, yMm: 0 },
    ],
    found: [{ ...none }, { ...none }],
  };
  aligning.value = true;
}
async function keep(): Promise<void> {
  await form.submit(async (body) => {
    const call = { params: { id: props.page.ticketId }, body };
    const answer = await outbox.send('createRework', call, 'a rework');
    form.reset();
    return answer;
  });
}
</script>

<template>
  <section data-test-id="rework">
    <template v-if="own.length">
      <h3>Made anew</h3>
      <p v-for="one in own" :key="one.id" class="small">
        Piece{{ one.pieces.length > 1 ? 's' : '' }} {{ one.pieces.join(', ') }}: {{ one.way
        }}<template v-if="one.region">, {{ one.region.widthMm }} × {{ one.region.heightMm }} mm</template>.
        <RouterLink v-if="one.doneRunId" :to="`/ledger/${one.doneRunId}`">Done in this run</RouterLink>
        <template v-else>
          <RouterLink :to="`/tickets/${page.ticketId}/coat`">Coat it</RouterLink>, then mark it at
          <RouterLink :to="`/tickets/${page.ticketId}/mark`">Mark</RouterLink>, which offers it as this rework.
          <a v-if="one.region" :href="`/api/reworks/${one.id}/program/gcode`" data-test-id="rework-gcode"
            >G-code of the region</a
          >
        </template>
      </p>
    </template>
    <form v-else id="rework" class="form-grid" novalidate @submit.prevent="keep">
      <h3 class="wide">{{ isRegion ? 'The region that is made again' : 'Made anew' }}</h3>
      <FormNote />
      <template v-if="values.region">
        <RegionDraw
          v-model="values.region"
          class="wide"
          :width-mm="page.markWidthMm"
          :height-mm="page.markHeightMm"
          :drawing="drawing"
        />
        <NumberField name="region.xMm" label="From the left, mm" test-id="region-x" />
        <NumberField name="region.yMm" label="From below, mm" test-id="region-y" />
        <NumberField name="region.widthMm" label="Width, mm" test-id="region-width" />
        <NumberField name="region.heightMm" label="Height, mm" test-id="region-height" />
        <NumberField
          name="focusMm"
          class="wide"
          optional
          label="Focus there against the run’s, mm"
          hint="Read the height at that place; up is positive."
          test-id="rework-focus"
        />
        <template v-if="values.alignment">
          <p class="wide small">
            Two points of the old mark: where they are on it, and where the machine finds them (pointer or lowest power
            on tape; enclosure shut, eyewear on).
          </p>
          <template v-for="i in [0, 1]" :key="i">
            <NumberField :name="`alignment.drawn.${i}.xMm`" :label="`Point ${i + 1} on the mark, x mm`" />
            <NumberField :name="`alignment.drawn.${i}.yMm`" :label="`y mm`" />
            <NumberField
              :name="`alignment.found.${i}.xMm`"
              :label="`Point ${i + 1} on the machine, x mm`"
              :test-id="`found-${i}-x`"
            />
            <NumberField :name="`alignment.found.${i}.yMm`" :label="`y mm`" :test-id="`found-${i}-y`" />
          </template>
          <p v-if="wrong['alignment']" class="fault wide" role="alert">{{ wrong['alignment'] }}</p>
        </template>
        <Button
          v-else
          type="button"
          text
          class="wide"
          label="Align it by two points of the old mark"
          data-test-id="align-rework"
          @click="align"
        />
      </template>
      <p v-if="wrong['region']" class="fault wide" role="alert">{{ wrong['region'] }}</p>
      <Button type="submit" class="wide" label="Make it anew" :loading="busy" data-test-id="keep-rework" />
    </form>
  </section>
</template>

<style scoped>
.wide {
  grid-column: 1 / -1;
}

h3 {
  margin: 0.4rem 0 0.2rem;
}
</style>
