<script setup lang="ts">
import { CLEANING_METHODS, COOL_S, createCleaning, RESIDUES, RINSE_WATER, type CreateCleaning } from '@unto/contract';
import { readTimerAt, runningTimers } from '@unto/domain';
import { isVitreous } from '@unto/core';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { useStillHere } from '../ui/useStillHere';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import { useAct } from '../stores/useAct';
import { useNow } from '../stores/now';
import { useOutbox } from '../stores/outbox';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import FormNote from '../ui/FormNote.vue';
import { choicesOf } from '../ui/choices';
import TimerRing from '../timers/TimerRing.vue';
import { formatDuration, formatMoment } from '../ui/format';
import NumberField from '../ui/NumberField.vue';
import TextField from '../ui/TextField.vue';
import CleaningAdvice from './CleaningAdvice.vue';
import { useForm } from '../ui/useForm';
import StationBody from '../station/StationBody.vue';

/** How each run was cleaned; glass cools first. */
const ticket = useTicket();
const outbox = useOutbox();
const router = useRouter();
const time = useNow();
const stillHere = useStillHere();
const { act } = useAct();
const model = useSection('done');
const run = computed(
  () =>
    [...(ticket.page?.runs ?? [])].reverse().find(({ cleaning, correctedById }) => !cleaning && !correctedById) ?? null,
);
const cleaned = computed(() => ticket.page?.runs.filter(({ cleaning }) => cleaning) ?? []);
const cooling = computed(() => runningTimers(ticket.page?.timers ?? [], 'cool')[0] ?? null);
const coolLeft = computed(() => {
  const timer = cooling.value;
  return timer ? readTimerAt(timer, time.now).leftS : 0;
});
/** Seconds until glass may be rinsed: its clock, or a quarter of an hour from the beam where none was ended since. */
const hotS = computed(() => {
  const fired = run.value ? Date.parse(run.value.at) : null;
  if (!glass.value || fired === null) return 0;
  const since = (ticket.page?.timers ?? []).filter(
    ({ kind, startedAt }) => kind === 'cool' && Date.parse(startedAt) >= fired,
  );
  if (since.some(({ outcome }) => outcome === 'passed')) return 0;
  return Math.max(coolLeft.value, COOL_S - (time.now - fired) / 1000, 0);
});
/** A round part was read at Place: the rollers leave their line. */
const round = computed(() => ticket.page?.placeReadings.some(({ kind }) => kind === 'round') ?? false);
const glass = computed(() => ticket.substrate !== null && isVitreous(ticket.substrate.body.family));

const form = useForm<CreateCleaning>(
  createCleaning,
  () => ({
    id: uuid(),
    method: '' as never,
    minutes: Number.NaN,
    residue: '' as never,
    residueAt: null,
    rinseWater: null,
  }),
  { draft: () => `cleaning-${run.value?.id ?? ''}` },
);
const { values, busy } = form;
const water = [{ value: null, label: 'not noted' }, ...choicesOf(RINSE_WATER)];

async function keep(): Promise<void> {
  const { id } = ticket.ticket!;
  const { id: runId } = run.value!;
  await form.submit(async (entry) => {
    const answer = await outbox.send('createCleaning', { params: { id: runId }, body: entry }, 'a cleaning');
    form.reset();
    if (answer && !run.value && stillHere()) await router.push(`/tickets/${id}/judge`);
    return answer;
  });
}
</script>

<template>
  <StationBody station="clean">
    <template #left><SectionDrawing v-if="model" :model="model" title="Section, washed" /></template>
    <h2>Clean</h2>
    <p class="quiet">
      {{ ticket.compound?.body.cleaning ?? 'Wipe off what the beam left.' }}. Advise the gentler way first: the pad
      comes with the judgement.
    </p>
    <CleaningAdvice />
    <section v-if="glass" class="cool">
      <template v-if="cooling">
        <TimerRing :timer="cooling" :size="96" />
        <Button
          label="Cool to the hand"
          data-test-id="cool-passed"
          :disabled="coolLeft > 0"
          @click="act('endTimer', { params: { id: cooling.id }, body: { outcome: 'passed' } }, 'cool')"
        />
      </template>
      <Button
        v-else
        outlined
        label="Start the cooling timer, 15 min"
        data-test-id="start-cool"
        @click="
          act(
            'createTimer',
            {
              params: { id: ticket.ticket!.id },
              body: { id: uuid(), kind: 'cool', label: 'marked glass', minimumS: COOL_S },
            },
            'the cooling timer',
          )
        "
      />
    </section>
    <p v-if="hotS > 0" class="hot" role="alert" data-test-id="hot-glass">
      <strong>Hot {{ ticket.substrate!.body.family }} cracks when rinsed.</strong> {{ formatDuration(hotS) }} to go, or
      end its cooling timer once it is cool to the hand.
    </p>
    <form v-if="run" id="clean" class="form-grid" novalidate @submit.prevent="keep">
      <p class="wide">
        <strong>Run of {{ formatMoment(run.at) }}</strong
        >, {{ run.pieces }} piece{{ run.pieces > 1 ? 's' : '' }}
      </p>
      <FormNote />
      <ChoiceField name="method" class="wide" label="Method" :options="choicesOf(CLEANING_METHODS)" test-id="method" />
      <NumberField name="minutes" label="Minutes" unit="min" test-id="clean-minutes" />
      <ChoiceField name="residue" label="Residue left" :options="choicesOf(RESIDUES)" test-id="residue" />
      <TextField
        v-if="values.residue && values.residue !== 'none'"
        name="residueAt"
        class="wide"
        :label="round ? 'Where: the line the rollers held?' : 'Where it is left'"
        test-id="residue-at"
      />
      <ChoiceField name="rinseWater" class="wide" label="Rinse water" :options="water" test-id="rinse-water" />
    </form>
    <p v-else-if="cleaned.length">All {{ cleaned.length }} runs are cleaned.</p>
    <p v-else class="quiet">Nothing was run yet.</p>
    <template #foot>
      <Button
        v-if="run"
        type="submit"
        form="clean"
        label="Keep the cleaning"
        :loading="busy"
        :disabled="hotS > 0"
        data-test-id="keep-cleaning"
      />
      <Button v-else label="Go to Judge" @click="router.push(`/tickets/${ticket.ticket!.id}/judge`)" />
    </template>
  </StationBody>
</template>

<style scoped>
.hot {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-danger);
  background: var(--unto-danger-tint);
}

.cool {
  display: flex;
  align-items: center;
  gap: 1rem;
}
</style>
