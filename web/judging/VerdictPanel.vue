<script setup lang="ts">
import { weakestGrade } from '@unto/core';
import { isBelowProved } from '@unto/domain';
import { createVerdict, VERDICTS, type CreateVerdict } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed } from 'vue';
import CostPanel from './CostPanel.vue';
import GradeMark from '../evidence/GradeMark.vue';
import { useOutbox } from '../stores/outbox';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import FormNote from '../ui/FormNote.vue';
import PickOne from '../ui/PickOne.vue';
import TextField from '../ui/TextField.vue';
import TickField from '../ui/TickField.vue';
import { formatMoment } from '../ui/format';
import { useForm } from '../ui/useForm';

/** What is decided on the pieces: handed over, with exceptions that are named, or made again; by whom, and on what. */
const ticket = useTicket();
const shop = useShop();
const outbox = useOutbox();
const runs = computed(() => (ticket.page?.runs ?? []).filter(({ correctedById }) => !correctedById));
const unjudged = computed(() => runs.value.filter(({ judgement }) => !judgement).length);
const good = computed(() => runs.value.reduce((sum, { judgement }) => sum + (judgement?.piecesGood ?? 0), 0));
const grade = computed(() => (runs.value.length ? weakestGrade(runs.value.map((run) => run.grade)) : null));
const below = computed(() => grade.value !== null && isBelowProved(grade.value));
const faults = computed(() => [...new Set(runs.value.flatMap(({ judgement }) => judgement?.faults ?? []))]);
const WORDS = {
  'hand over': 'Hand over',
  'hand over with exceptions': 'Hand over with exceptions',
  rework: 'Make again what is not good',
} as const;
const SHORT = {
  'hand over': 'Hand over',
  'hand over with exceptions': 'With exceptions',
  rework: 'Make again',
} as const;
const choices = VERDICTS.map((value) => ({ value, label: SHORT[value] }));
const form = useForm<CreateVerdict>(
  createVerdict,
  () => ({ id: uuid(), verdict: '' as never, exceptions: '', standsForIt: false }),
  { draft: `verdict-${ticket.ticket!.id}` },
);
const { values, busy, faults: wrong } = form;
const given = computed(() => ticket.page?.verdicts ?? []);

async function decide(): Promise<void> {
  await form.submit(async (body) => {
    const call = { params: { id: ticket.ticket!.id }, body };
    const answer = await outbox.send('createVerdict', call, 'the verdict');
    form.reset();
    return answer;
  });
}
</script>

<template>
  <h2>Hand over</h2>
  <p v-if="!runs.length" class="quiet">Nothing is marked yet.</p>
  <template v-else>
    <p data-test-id="verdict-facts">
      <strong>{{ good }} of {{ ticket.ticket!.pieces }} pieces are good</strong>, marked under
      <GradeMark v-if="grade" :grade="grade" /><template v-if="faults.length"
        >; faults seen: {{ faults.join(', ') }}</template
      >.
    </p>
    <p v-if="unjudged" class="warn" role="status">
      {{ unjudged === 1 ? 'A run is' : `${unjudged} runs are` }} not judged yet: judge first.
    </p>
    <form v-else id="verdict" novalidate @submit.prevent="decide">
      <FormNote />
      <PickOne v-model="values.verdict" bare label="Verdict" :options="choices" test-id="verdict" />
      <p v-if="wrong['verdict']" class="fault">{{ wrong['verdict'] }}</p>
      <TextField
        v-if="values.verdict && values.verdict !== 'hand over'"
        name="exceptions"
        :lines="3"
        :label="values.verdict === 'rework' ? 'What is made again, and why' : 'Which pieces, and what of them'"
        test-id="exceptions"
      />
      <TickField
        v-if="below && values.verdict && values.verdict !== 'rework'"
        v-model="values.standsForIt"
        test-id="stands-for-it"
      >
        Not all of it is proved. {{ shop.personOf(shop.operatorId ?? '') }} stands for it.
      </TickField>
      <p v-if="wrong['standsForIt']" class="fault" role="alert">{{ wrong['standsForIt'] }}</p>
      <Button
        type="submit"
        :label="values.verdict ? WORDS[values.verdict] : 'Decide'"
        :disabled="!values.verdict"
        :loading="busy"
        data-test-id="decide"
      />
    </form>
    <p class="files">
      <a :href="`/api/tickets/${ticket.ticket!.id}/care-card.pdf`" target="_blank" data-test-id="care-card"
        >Care card to print</a
      >
      <span class="quiet small">from what was tested on these pieces</span>
    </p>
    <CostPanel />
    <section v-if="given.length" data-test-id="verdicts">
      <h3>Decided</h3>
      <p v-for="one in given" :key="one.id" class="small">
        <strong>{{ one.verdict }}</strong>, {{ one.good }} of {{ one.pieces }} good<template v-if="one.exceptions"
          >: {{ one.exceptions }}</template
        >.
        <span class="quiet"
          >{{ shop.personOf(one.by) }}{{ one.belowProved ? ' stands for what is not proved' : '' }},
          {{ formatMoment(one.at) }}</span
        >
      </p>
    </section>
  </template>
</template>

<style scoped>
form {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
}

.files {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.6rem;
  min-height: 44px;
}

.warn {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-coat-line);
  background: var(--unto-coat-tint);
}
</style>
