<script setup lang="ts">
import {
  CONTRAST_STEPS,
  createJudgement,
  DURABILITY_RESULTS,
  DURABILITY_TESTS,
  EVENNESS_STEPS,
  type CreateJudgement,
} from '@unto/contract';
import { contrastOfSteps, FAULTS } from '@unto/core';
import Button from 'primevue/button';
import Checkbox from 'primevue/checkbox';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import { useOutbox } from '../stores/outbox';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import FormNote from '../ui/FormNote.vue';
import { choicesOf } from '../ui/choices';
import { formatMoment } from '../ui/format';
import NumberField from '../ui/NumberField.vue';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';
import DurabilityPanel from '../judging/DurabilityPanel.vue';
import LastingChart from '../judging/LastingChart.vue';
import SamplePanel from '../judging/SamplePanel.vue';
import VerdictPanel from '../judging/VerdictPanel.vue';
import PlaceFault from '../judging/PlaceFault.vue';
import { useJudgedPieces } from '../judging/useJudgedPieces';
import { useSample } from '../judging/useSample';
import FaultLeft from '../faults/FaultLeft.vue';
import FaultRight from '../faults/FaultRight.vue';
import ReworkPanel from '../faults/ReworkPanel.vue';
import { useFault } from '../faults/useFault';
import TrayPanel from '../judging/TrayPanel.vue';
import TrayPicture from '../judging/TrayPicture.vue';
import { useTray } from '../judging/useTray';
import PieceGrid from '../marking/PieceGrid.vue';
import StationBody from '../station/StationBody.vue';
import TaskTabs from '../ui/TaskTabs.vue';

/** Judge each run by eye on a described scale, with the tests done on it. */
const ticket = useTicket();
const outbox = useOutbox();
const model = useSection('done');
type Task = 'judge' | 'fault' | 'tests' | 'verdict';
const TASKS: readonly { readonly key: Task; readonly label: string }[] = [
  { key: 'judge', label: 'Judge' },
  { key: 'fault', label: 'Fault' },
  { key: 'tests', label: 'Tests' },
  { key: 'verdict', label: 'Hand over' },
];
const task = ref<Task>('judge');
const run = computed(
  () =>
    [...(ticket.page?.runs ?? [])].reverse().find(({ judgement, correctedById }) => !judgement && !correctedById) ??
    null,
);
const judged = computed(() => ticket.page?.runs.filter(({ judgement }) => judgement) ?? []);
const seen = computed(() => [...new Set(judged.value.flatMap(({ judgement }) => judgement!.faults))]);
const steps = CONTRAST_STEPS.map(({ step, word, text }) => ({ value: step, label: `${step} ${word}: ${text}` }));

const sampled = useSample(() => run.value);
const tray = useTray(run, sampled);
const { newest: trayRead } = tray;
const { drawn, spoilt, goodHint, placing, place, say } = useJudgedPieces(run, sampled, tick);
/** The run whose fault is looked for: the newest with one. */
const faulty = computed(
  () =>
    [...(ticket.page?.runs ?? [])].find(
      ({ judgement, correctedById, id }) =>
        !correctedById && ((judgement?.faults.length ?? 0) > 0 || (id === run.value?.id && spoilt.value.length > 0)),
    ) ?? null,
);
const search = useFault(() => (faulty.value ? { kind: 'run', id: faulty.value.id } : null));
/** A fault that was placed on a piece is one of the run's. */
function tick(fault: CreateJudgement['faults'][number]): void {
  if (!values.value.faults.includes(fault)) values.value.faults = [...values.value.faults, fault];
}

/** What was settled to be made anew; null where nothing is. */
const again = computed(() => {
  const { page: of, kept, finding, pieces, spots, drawing, faults: looks } = search;
  const way = finding.value?.way;
  if (!of.value || !kept.value || !way || way === 'accept' || way === 'scrap') return null;
  const seen = { pieces: pieces.value, spots: spots.value, faults: looks.value, drawing: drawing.value };
  return { page: of.value, caseId: kept.value.id, way, ...seen };
});

const form = useForm<CreateJudgement>(
  createJudgement,
  () => ({
    id: uuid(),
    // Nothing is answered for whoever judges.
    contrastStep: null as never,
    stepsApart: null,
    evenness: '' as never,
    piecesGood: Number.NaN,
    faults: [],
    tests: [],
    note: '',
  }),
  { draft: () => `judgement-${run.value?.id ?? ''}` },
);
const { values, busy, faults } = form;
/** What a count of printed steps comes to; by eye it is good to about one of them. */
const stepsHint = computed(() => {
  const steps = values.value.stepsApart;
  const [one, told] = [contrastOfSteps(1), contrastOfSteps(steps ?? 0)];
  return steps
    ? `About ${told} L*, give or take ${one}.`
    : 'Hold the strip beside it: the step the ground is like, then the mark.';
});

function addTest(): void {
  const done = values.value.tests.map(({ test }) => test);
  const next = DURABILITY_TESTS.find((test) => !done.includes(test));
  if (next) values.value.tests = [...values.value.tests, { test: next, result: '' as never }];
}

function removeTest(index: number): void {
  values.value.tests = values.value.tests.filter((_, i) => i !== index);
}

async function keep(): Promise<void> {
  const { id: runId } = run.value!;
  await form.submit(async (entry) => {
    const answer = await outbox.send('createJudgement', { params: { id: runId }, body: entry }, 'a judgement');
    form.reset();
    return answer;
  });
}
</script>

<template>
  <StationBody station="judge">
    <template #left>
      <template v-if="task === 'fault'">
        <FaultLeft v-if="faulty" :search="search" />
        <p v-else class="quiet">No fault was said of any run. Judge it first, or place a fault on a piece.</p>
      </template>
      <LastingChart
        v-else-if="task === 'tests'"
        :substrate-id="ticket.ticket!.substrateId"
        :ticket-id="ticket.ticket!.id"
      />
      <template v-else-if="run && run.pieces > 1">
        <h2>{{ run.pieces }} pieces, as they came out</h2>
        <PieceGrid
          :pieces="drawn"
          :ratio="ticket.ticket!.markWidthMm / ticket.ticket!.markHeightMm"
          @pick="(piece, spot) => (placing = { piece, spot })"
        />
        <PlaceFault
          v-if="placing"
          :at="placing"
          :name="drawn[placing.piece - 1]?.label"
          @said="place"
          @leave="placing = null"
        />
        <p v-else class="quiet small">Press a piece where something is wrong with it.</p>
        <TrayPicture v-if="trayRead" :reading="trayRead" :name-of="tray.nameOf" />
      </template>
      <SectionDrawing v-else-if="model" :model="model" title="Section, scrubbed" />
      <table v-if="judged.length && (task === 'judge' || task === 'verdict')" class="plain small">
        <thead>
          <tr>
            <th>Run</th>
            <th class="number">Good</th>
            <th>Contrast by eye</th>
            <th>Evenness</th>
            <th>Faults</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in judged.slice(0, 4)" :key="row.id">
            <td>
              <RouterLink :to="`/ledger/${row.id}`">{{ formatMoment(row.at) }}</RouterLink>
            </td>
            <td class="number">{{ row.judgement!.piecesGood }} / {{ row.pieces }}</td>
            <td>
              {{ row.judgement!.contrastStep }} {{ CONTRAST_STEPS[row.judgement!.contrastStep - 1]?.word
              }}<template v-if="row.judgement!.stepsApart"
                >, {{ contrastOfSteps(row.judgement!.stepsApart) }} L*</template
              >
            </td>
            <td>{{ row.judgement!.evenness }}</td>
            <td>{{ row.judgement!.faults.join(', ') || '–' }}</td>
          </tr>
        </tbody>
      </table>
    </template>
    <TaskTabs v-model="task" :tasks="TASKS" name="judge" />
    <DurabilityPanel v-if="task === 'tests'" :spoilt="spoilt" />
    <VerdictPanel v-else-if="task === 'verdict'" />
    <FaultRight v-else-if="task === 'fault'" :search="search">
      <template #after>
        <ReworkPanel v-if="again" :key="again.caseId" v-bind="again" :made="ticket.page!.reworks" />
      </template>
    </FaultRight>
    <template v-else>
      <h2>Judge</h2>
      <SamplePanel v-if="run && run.pieces > 1" :key="run.id" :run="run" />
      <TrayPanel
        v-if="run"
        :key="`tray-${run.id}`"
        :tray="tray"
        :known="ticket.page!.layout !== null"
        @fault="(piece, { kind, spot }) => (piece ? say(piece.piece, kind, spot) : tick(kind))"
      />
      <form v-if="run" id="judge" class="form-grid" novalidate @submit.prevent="keep">
        <p class="wide">
          <strong>Run of {{ formatMoment(run.at) }}</strong
          >, {{ run.pieces }} piece{{ run.pieces > 1 ? 's' : '' }}
        </p>
        <FormNote />
        <ChoiceField name="contrastStep" class="wide" label="Contrast by eye" :options="steps" test-id="contrast" />
        <NumberField
          name="stepsApart"
          class="wide"
          optional
          label="Steps of the printed scale between ground and mark"
          :hint="stepsHint"
          test-id="steps-apart"
        />
        <ChoiceField name="evenness" label="Evenness" :options="choicesOf(EVENNESS_STEPS)" test-id="evenness" />
        <NumberField name="piecesGood" label="Good pieces" :hint="goodHint" test-id="good" />
        <fieldset class="wide">
          <legend>Tests done</legend>
          <div v-for="(_, i) in values.tests" :key="i" class="test">
            <ChoiceField
              :name="`tests.${i}.test`"
              label="Test"
              :fault="faults[`tests[${i}].test`]"
              :options="choicesOf(DURABILITY_TESTS)"
              :test-id="`test-${i}`"
            />
            <ChoiceField
              :name="`tests.${i}.result`"
              label="Result"
              :fault="faults[`tests[${i}].result`]"
              :options="choicesOf(DURABILITY_RESULTS)"
              :test-id="`result-${i}`"
            />
            <Button type="button" text label="Remove" @click="removeTest(i)" />
          </div>
          <Button
            type="button"
            text
            :label="values.tests.length ? 'Another test' : 'A test was done'"
            data-test-id="add-test"
            @click="addTest"
          />
        </fieldset>
        <fieldset class="wide faults">
          <legend>Faults seen</legend>
          <label v-for="name in FAULTS" :key="name"
            ><Checkbox v-model="values.faults" :value="name" :pt="{ input: { 'data-test-id': `fault-${name}` } }" />
            {{ name }}</label
          >
        </fieldset>
        <TextField name="note" class="wide" label="Note" />
      </form>
      <template v-else-if="judged.length">
        <p>All {{ judged.length }} runs are judged.</p>
        <p v-if="seen.length" class="seen">
          <strong>Faults seen: {{ seen.join(', ') }}.</strong>
          <Button text label="Find the fault" data-test-id="to-fault" @click="task = 'fault'" />
        </p>
      </template>
      <p v-else class="quiet">Nothing was run yet. After the wash, scrub one piece with the pad before you judge.</p>
    </template>
    <template #foot>
      <Button
        v-if="run && task === 'judge'"
        type="submit"
        form="judge"
        label="Keep the judgement"
        :loading="busy"
        data-test-id="keep-judgement"
      />
      <Button
        v-else-if="!run && judged.length && task === 'judge'"
        label="Decide what becomes of them"
        data-test-id="to-verdict"
        @click="task = 'verdict'"
      />
    </template>
  </StationBody>
</template>

<style scoped>
fieldset {
  margin: 0;
  padding: 0.3rem 0.7rem 0.6rem;
  border: 1px solid var(--unto-rule);
}

legend {
  font-size: 0.88rem;
  color: var(--unto-quiet);
  padding: 0 0.3rem;
}

.test {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 0.5rem;
  align-items: end;
}

.seen {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-danger);
  background: var(--unto-danger-tint);
}

.faults {
  display: grid;
  grid-template-columns: 1fr 1fr;
}

.faults label {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 40px;
}
</style>
