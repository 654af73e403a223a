<script setup lang="ts">
import { identifyPart, WORD_TESTS, type WordTest } from '@unto/core';
import Button from 'primevue/button';
import { useQuery } from '@pinia/colada';
import { v4 as uuid } from 'uuid';
import { KEYS } from '../api/keys';
import { useStillHere } from '../ui/useStillHere';
import { computed, ref, watch } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { api, ApiProblem } from '../api/client';
import { chanceText, emptySighting, observationsOf, weighedOf, type Sighting } from './observations';
import TestRow from './TestRow.vue';
import GuessList from './GuessList.vue';
import WeighRow from './WeighRow.vue';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import ChoiceField from '../ui/ChoiceField.vue';
import { formatMoment } from '../ui/format';
import PageHead from '../ui/PageHead.vue';
import TextField from '../ui/TextField.vue';
import { useDraft } from '../ui/useDraft';

/** What is this part? Quick tests narrow down material and layer, say which would tell most next, and where a wrong guess hurts. */
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const route = useRoute();
const router = useRouter();
const of = (name: string) => (typeof route.query[name] === 'string' ? (route.query[name] as string) : null);
const ticketId = of('ticket');
const blankId = of('blank');

const sighting = ref<Sighting>(emptySighting(blankId ? shop.nameOf(blankId) : ''));
const draft = useDraft(`identify-${ticketId ?? blankId ?? 'loose'}`, sighting);
const found = computed(() => identifyPart(observationsOf(sighting.value)));
/** The test to make next, as long as one would tell something. */
const advice = computed(() => found.value.next.find(({ bits }) => bits >= 0.1) ?? null);
const leading = computed(() => advice.value?.test);
const nextOf = (test: string) => found.value.next.find((entry) => entry.test === test);
const TESTS = Object.keys(WORD_TESTS) as WordTest[];
/** Tests with many answers take the whole width. */
const WIDE = new Set<WordTest>(['colour', 'edge', 'scratch']);
const asked = computed(
  () => Object.keys(sighting.value.words).length + (observationsOf(sighting.value).density ? 1 : 0),
);

const picked = ref<string | null>(null);
const taken = computed(
  () => found.value.ranked.find(({ guess }) => guess.key === picked.value) ?? found.value.ranked[0]!,
);
const substrates = computed(() => [
  { value: null, label: 'decide later' },
  ...shop
    .inUse('substrate')
    .filter(({ body }) => body.family === taken.value.guess.family && body.layer === taken.value.guess.layer)
    .map(({ id, body }) => ({ value: id, label: body.name })),
]);
const substrateId = ref<string | null>(null);
// Another guess has other substrates; none is booked that nobody chose.
watch(
  () => taken.value.guess.key,
  () => (substrateId.value = null),
);
const subject = { ...(ticketId ? { ticketId } : blankId ? { blankId } : {}), limit: 5 };
const { data: kept } = useQuery({
  key: KEYS.identifications(ticketId ?? blankId ?? ''),
  query: () => api.call('listIdentifications', { query: subject }),
});
const earlier = computed(() => kept.value?.records ?? []);
if (ticketId && !draft.restored.value)
  void api.call('ticket', { params: { id: ticketId } }).then(({ ticket }) => {
    sighting.value = { ...sighting.value, label: ticket.title };
  });

const stillHere = useStillHere();
const faults = ref<Record<string, string>>({});
const busy = ref(false);

function answered(test: WordTest, word: string | undefined): void {
  const { [test]: _old, ...rest } = sighting.value.words;
  sighting.value = { ...sighting.value, words: word ? { ...rest, [test]: word } : rest } as Sighting;
}

async function keep(): Promise<void> {
  busy.value = true;
  faults.value = {};
  const body = {
    id: uuid(),
    label: sighting.value.label.trim(),
    ticketId,
    blankId,
    words: sighting.value.words,
    weighed: weighedOf(sighting.value),
    guessKey: taken.value.guess.key,
    substrateId: substrateId.value,
  };
  try {
    const answer = await outbox.send('createIdentification', { body }, `Taken to be ${taken.value.guess.name}`);
    draft.forget();
    if (answer) notices.say(`Kept: taken to be ${taken.value.guess.name}.`);
    if (!stillHere()) return;
    await router.push(ticketId ? `/tickets/${ticketId}/choose` : blankId ? `/stores/${blankId}` : '/stores');
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    faults.value = Object.fromEntries((error.problem.faults ?? []).map(({ path, message }) => [path ?? '', message]));
    if (!error.problem.faults?.length) notices.say(error.problem.detail, 'danger');
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <PageHead title="What is this part?" about="Quick tests, the most telling one first; none is needed, each counts" />
  <div class="identify">
    <div class="tests">
      <TestRow
        v-for="test in TESTS"
        :key="test"
        :class="{ wide: WIDE.has(test) }"
        :model-value="sighting.words[test]"
        :test="test"
        :next="nextOf(test)"
        :leads="leading === test"
        @update:model-value="answered(test, $event)"
      />
      <WeighRow v-model="sighting" class="wide" :next="nextOf('density')" :leads="leading === 'density'" />
    </div>
    <aside class="found">
      <div class="scroll">
        <GuessList v-model="picked" :found="found" :advice="advice" :taken="taken.guess.key" :asked="asked" />
        <details v-if="earlier.length" class="small">
          <summary>{{ earlier.length }} looked at before</summary>
          <p v-for="record in earlier" :key="record.id">
            {{ formatMoment(record.at) }}: {{ record.label }}, taken to be
            {{ record.probabilities.find(({ key }) => key === record.guessKey)?.name ?? record.guessKey }} ({{
              chanceText(record.probability)
            }})
          </p>
        </details>
      </div>
      <div class="settle">
        <TextField
          v-model="sighting.label"
          label="What is looked at"
          test-id="identify-label"
          :fault="faults['label']"
        />
        <ChoiceField
          v-model="substrateId"
          :label="`Book it as (${taken.guess.family}, ${taken.guess.layer})`"
          :options="substrates"
          placeholder="decide later"
          test-id="identify-substrate"
          :fault="faults['substrateId']"
        />
        <RouterLink
          v-if="substrates.length === 1"
          class="small"
          :to="`/stores?add=substrate&family=${taken.guess.family}&layer=${taken.guess.layer}`"
          >No such substrate in the stores: add it first</RouterLink
        >
        <Button
          :label="`Take it to be ${taken.guess.name}`"
          :loading="busy"
          :disabled="asked === 0"
          data-test-id="identify-keep"
          @click="keep"
        />
      </div>
    </aside>
  </div>
</template>

<style scoped>
.identify {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 440px;
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
}

.tests {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  align-content: start;
  padding: 0.4rem 1.2rem 1rem 1.5rem;
  overflow-y: auto;
}

.found {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  min-height: 0;
  padding: 0.8rem 0 1rem 1.3rem;
  background: var(--unto-surface);
  border-left: 1px solid var(--unto-rule);
}

.scroll {
  flex: 1;
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  min-height: 0;
  padding-right: 1.3rem;
  overflow-y: auto;
}

.wide {
  grid-column: 1 / -1;
}

.settle {
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
  padding-right: 1.3rem;
}

@media (max-width: 900px) {
  .identify {
    display: block;
  }

  .tests {
    grid-template-columns: minmax(0, 1fr);
  }

  .found {
    border-left: 0;
  }
}
</style>
