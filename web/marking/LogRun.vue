<script setup lang="ts">
import { createRun, type CreateRun } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import GradeMark from '../evidence/GradeMark.vue';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import SettingTiles from '../setting/SettingTiles.vue';
import StationBody from '../station/StationBody.vue';
import { useOutbox } from '../stores/outbox';
import { useTicket } from '../stores/ticket';
import FormNote from '../ui/FormNote.vue';
import { formatDuration } from '../ui/format';
import NumberField from '../ui/NumberField.vue';
import TickField from '../ui/TickField.vue';
import { useForm } from '../ui/useForm';
import { useStillHere } from '../ui/useStillHere';
import MarkedSoFar from './MarkedSoFar.vue';
import OpenStations from './OpenStations.vue';
import ReworkChoice from './ReworkChoice.vue';
import RunFields from './RunFields.vue';
import RunWays from './RunWays.vue';
import RunWords from './RunWords.vue';
import { useRunEntry } from './useRunEntry';

/** Log a run that is over: the whole setting as the panel showed it, pieces, minutes; with what stood open before it. */
const way = defineModel<'count' | 'log'>('way', { required: true });
const ticket = useTicket();
const outbox = useOutbox();
const router = useRouter();
const stillHere = useStillHere();
const model = useSection('beam');
const { recipe, planned, openFor } = useRunEntry();
const form = useForm<CreateRun>(
  createRun,
  () => ({ ...planned(), id: uuid(), ticketId: ticket.ticket!.id, correctsId: null, minutes: Number.NaN }),
  { draft: `run-${ticket.ticket!.id}` },
);
const { values, busy } = form;
const plannedS = computed(() =>
  recipe.value && values.value.pieces > 0 ? recipe.value.secondsPerPiece * values.value.pieces : null,
);
/** Nobody timed it: its minutes are kept as planned, and say so. */
const untimed = ref(false);
function turn(now: boolean): void {
  untimed.value = now;
  values.value.minutes = now && plannedS.value ? Number((plannedS.value / 60).toPrecision(3)) : Number.NaN;
}
const { open, never } = openFor(() => values.value);

async function keep(): Promise<void> {
  const id = ticket.ticket!.id;
  await form.submit(async (entry) => {
    const body: CreateRun = { ...entry, ...(untimed.value ? { minutesFrom: 'planned' } : {}) };
    const answer = await outbox.send('createRun', { body }, `a run of ${entry.pieces} pieces`);
    untimed.value = false;
    form.reset();
    if (answer && stillHere()) await router.push(`/tickets/${id}/clean`);
    return answer;
  });
}
</script>

<template>
  <StationBody station="mark">
    <template #left>
      <SectionDrawing v-if="model" :model="model" title="Section under the beam" />
      <MarkedSoFar />
    </template>
    <RunWays v-model="way" />
    <h2>Log {{ values.pieces || '' }} piece{{ values.pieces === 1 ? '' : 's' }} that ran</h2>
    <OpenStations :open="open" />
    <template v-if="recipe">
      <SettingTiles :setting="recipe" />
      <p class="quiet">
        Recipe v{{ recipe.number }}, {{ formatDuration(recipe.secondsPerPiece) }} a piece
        <GradeMark :grade="recipe.grade" />
      </p>
    </template>
    <p v-else class="quiet">No recipe: this setting rests on nothing yet.</p>
    <form id="run" class="form-grid" novalidate @submit.prevent="keep">
      <FormNote />
      <RunFields :air="values.air" />
      <NumberField name="pieces" label="Pieces" test-id="run-pieces" />
      <NumberField
        name="minutes"
        label="Minutes it took"
        unit="min"
        :hint="plannedS ? `Planned: ${formatDuration(plannedS)}` : undefined"
        test-id="minutes"
      />
      <TickField
        v-if="plannedS"
        class="wide"
        :model-value="untimed"
        test-id="untimed"
        @update:model-value="turn($event)"
        >Nobody timed it: keep the minutes as planned</TickField
      >
      <ReworkChoice />
      <RunWords :open="open" />
    </form>
    <template #foot
      ><Button
        type="submit"
        form="run"
        label="Log the run"
        :loading="busy"
        :disabled="never.length > 0"
        data-test-id="log-run"
    /></template>
  </StationBody>
</template>
