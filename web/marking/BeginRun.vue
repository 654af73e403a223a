<script setup lang="ts">
import { createMarking, type CreateMarking, type RunCheck } from '@unto/contract';
import { pieceNumbers } from '@unto/domain';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref, watch } from 'vue';
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
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';
import LearntMotion from './LearntMotion.vue';
import MarkedSoFar from './MarkedSoFar.vue';
import OpenStations from './OpenStations.vue';
import ProgramFiles from './ProgramFiles.vue';
import ReworkChoice from './ReworkChoice.vue';
import RunFields from './RunFields.vue';
import RunWays from './RunWays.vue';
import RunWords from './RunWords.vue';
import SetChecks from './SetChecks.vue';
import { useRunEntry } from './useRunEntry';

/** Set the panel, look at focus, air, extraction and passes, and begin: what changed from the recipe is asked for only if something did. */
const way = defineModel<'count' | 'log'>('way', { required: true });
const ticket = useTicket();
const outbox = useOutbox();
const model = useSection('beam');
const { recipe, planned, nextNumbers, openFor } = useRunEntry();
const form = useForm<CreateMarking>(
  createMarking,
  () => ({ ...planned(), id: uuid(), checked: [], numbers: nextNumbers() }),
  {
    draft: `begin-${ticket.ticket!.id}`,
  },
);
const { values, busy } = form;
// As many as are to be run, until somebody says which.
let offeredFor = values.value.pieces;
watch(
  () => values.value.pieces,
  (pieces) => {
    if (!(pieces > 0)) return;
    if (values.value.numbers === nextNumbers(offeredFor)) values.value.numbers = nextNumbers(pieces);
    offeredFor = pieces;
  },
);
const numbers = computed(() => pieceNumbers(values.value.numbers ?? ''));
const { open, never } = openFor(() => values.value);
/** Something else is set than the recipe says, or there is none, or it does not say how the air stands. */
const other = ref(false);
const asked = computed(() => other.value || !recipe.value?.air);

/** A tick says that it stands as the recipe has it. */
function tick(checked: readonly RunCheck[]): void {
  const { value } = values;
  value.checked = [...checked];
  if (checked.includes('air') && recipe.value?.air && !value.air) value.air = recipe.value.air;
  if (checked.includes('extraction')) value.extraction ??= 'on';
}
/** What the checks show: as entered where something was, else as the recipe has it. */
const shown = computed(() => ({ ...values.value, air: values.value.air || (recipe.value?.air ?? null) }));

async function begin(): Promise<void> {
  await form.submit(async (body) => {
    const call = { params: { id: ticket.ticket!.id }, body };
    const answer = await outbox.send('createMarking', call, `a run of ${body.pieces} pieces`);
    form.reset();
    return answer;
  });
}
</script>

<template>
  <StationBody station="mark">
    <template #left>
      <template v-if="recipe">
        <div class="lead">
          <h2>Set the {{ ticket.fitted!.machine.name }} panel to</h2>
          <span class="quiet small"
            >recipe v{{ recipe.number }}, {{ formatDuration(recipe.secondsPerPiece) }} a piece
            <GradeMark :grade="recipe.grade"
          /></span>
        </div>
        <SettingTiles large :setting="recipe" />
        <SetChecks
          :model-value="values.checked"
          :setting="shown"
          :powder="ticket.compound?.body.handling === 'loose powder'"
          @update:model-value="tick"
        />
      </template>
      <p v-else class="quiet">No recipe: this setting rests on nothing yet.</p>
      <LearntMotion v-if="recipe" />
      <ProgramFiles v-if="recipe && ticket.page!.layout" :numbers="numbers" />
      <SectionDrawing v-if="model" :model="model" title="Section under the beam" />
      <MarkedSoFar />
    </template>
    <RunWays v-model="way" />
    <h2>Mark {{ values.pieces || '' }} piece{{ values.pieces === 1 ? '' : 's' }}</h2>
    <OpenStations :open="open" />
    <form id="begin" class="form-grid" novalidate @submit.prevent="begin">
      <FormNote />
      <NumberField name="pieces" label="Pieces in this run" test-id="run-pieces" />
      <TextField
        v-if="ticket.page!.layout?.entered.fields.length"
        name="numbers"
        label="Which of the ticket’s"
        test-id="run-numbers"
      />
      <Button
        v-if="recipe?.air && !other"
        type="button"
        text
        class="other"
        label="Something else is set"
        data-test-id="other-setting"
        @click="other = true"
      />
      <RunFields v-if="asked" :air="values.air" />
      <p v-else-if="!values.air" class="quiet small wide">
        Tick the air once you saw how it stands{{ recipe!.air ? `: the recipe has it ${recipe!.air}` : '' }}.
      </p>
      <ReworkChoice />
      <RunWords :open="open" />
    </form>
    <template #foot
      ><Button
        type="submit"
        form="begin"
        size="large"
        :label="`Begin: piece 1 is under the beam`"
        :loading="busy"
        :disabled="never.length > 0 || !values.air"
        data-test-id="begin-run"
    /></template>
  </StationBody>
</template>

<style scoped>
/* What was run so far stands below it, never over it. */
:deep(.section) {
  flex: 1 0 320px;
}

.lead {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 0.3rem 1rem;
}

.other {
  align-self: end;
  justify-self: start;
}
</style>
