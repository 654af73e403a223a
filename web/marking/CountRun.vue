<script setup lang="ts">
import { FIRST_PIECE, SPOILT, type CreatePieceEvent } from '@unto/contract';
import { stopsIn } from '@unto/domain';
import { useEventListener, useIntervalFn } from '@vueuse/core';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import { useAct } from '../stores/useAct';
import { useNow } from '../stores/now';
import { formatDuration, formatTimeOfDay, formatTimer } from '../ui/format';
import { isTyping } from '../ui/keys';
import GradeMark from '../evidence/GradeMark.vue';
import SendRun from './SendRun.vue';
import { useCounting } from './useCounting';
import { useRunBurn } from './useRunBurn';

/** A run under way: which piece is under the beam, one press to count it, how far it is, and what went wrong with one. */
const { marking, counted, waiting, sofar, plannedS, nameOf, say } = useCounting();
const ticket = useTicket();
const shop = useShop();
const time = useNow();
const router = useRouter();
const { act, busy } = useAct();
/** The piece of which somebody says what went wrong, and where. */
const wrong = defineModel<{ piece: number; spot: CreatePieceEvent['spot'] } | null>('wrong', { required: true });
const onHead = useRunBurn();
const { open: onTheHead, sends } = onHead;
/** Somebody who counts by hand has it under the beam; where pieces are sent the controller has, or nobody. */
const beamOn = computed(() => !sends.value || onTheHead.value !== null);
const ending = ref(false);
const now = computed(() => sofar.value!);
const done = computed(() => now.value.done + now.value.aside);
/** Seconds that the piece under the beam has had. */
const thisS = computed(() => {
  const last = Math.max(Date.parse(marking.value!.startedAt), ...counted.value.map(({ at }) => Date.parse(at)));
  return Math.max(0, (time.now - last) / 1000);
});
const ends = computed(() => {
  const { expectedS, elapsedS, next } = now.value;
  if (expectedS === null || next === null) return null;
  const left = Math.max(expectedS - elapsedS, 0);
  return formatTimeOfDay(new Date(time.now + 1000 * left).toISOString());
});
const stops = computed(() => stopsIn({ ...marking.value!, counted: counted.value }));
/** The first piece waits for its scrub: nothing more is counted until somebody says how it stood, or goes on without. */
const firstWaits = computed(
  () =>
    shop.workshop!.firstPieceStop && done.value === 1 && now.value.next !== null && marking.value!.firstPiece === null,
);
/** The first goes alone where it is to be scrubbed before the others. */
const firstAlone = computed(() => shop.workshop!.firstPieceStop && done.value === 0 && marking.value!.pieces > 1);
const FIRST_WORDS: Record<(typeof FIRST_PIECE)[number], string> = {
  held: 'It held: go on',
  paler: 'It is paler',
  lost: 'It is lost',
  'not scrubbed': 'Go on without',
};

/** Somebody else may count into it. */
const LOOK_MS = 3000;
useIntervalFn(() => ticket.look(), LOOK_MS);

const count = () => now.value.next !== null && !firstWaits.value && !onTheHead.value && say(now.value.next, 'done');
useEventListener(document, 'keydown', (event: KeyboardEvent) => {
  if (isTyping(event) || wrong.value) return;
  if (event.key === 'd' || event.key === 'D') void count();
});

async function aside(why: (typeof SPOILT)[number]): Promise<void> {
  const { piece, spot } = wrong.value!;
  wrong.value = null;
  await say(piece, 'set aside', { why, spot });
}

const first = (result: (typeof FIRST_PIECE)[number]) =>
  act('createFirstPiece', { params: { id: marking.value!.id }, body: { id: uuid(), result } }, 'the first piece');

async function end(): Promise<void> {
  const id = ticket.ticket!.id;
  ending.value = false;
  const call = { params: { id: marking.value!.id }, body: { runId: uuid() } };
  const answer = await act('endMarking', call, 'the end of the run');
  // What counts it is gone by now: the page asks whether somebody went elsewhere.
  if (answer?.runId && router.currentRoute.value.path === `/tickets/${id}/mark`)
    await router.push(`/tickets/${id}/clean`);
}
</script>

<template>
  <section class="count" aria-live="polite">
    <template v-if="now.next !== null">
      <p class="quiet">{{ beamOn ? 'Under the beam' : 'Next' }}</p>
      <p class="piece" data-test-id="now-piece">{{ nameOf(now.next) }}</p>
      <p class="quiet">
        {{ done + 1 }} of {{ marking!.pieces
        }}<template v-if="beamOn"
          >, <span class="mono">{{ formatTimer(thisS) }}</span></template
        ><template v-if="beamOn && plannedS"> of {{ formatTimer(plannedS) }}</template>
      </p>
    </template>
    <p v-else class="piece" data-test-id="now-piece">All {{ marking!.pieces }} are marked</p>
    <ol class="strip" aria-hidden="true">
      <li
        v-for="n in marking!.pieces"
        :key="n"
        :class="[counted.find(({ piece }) => piece === n)?.state.replace(' ', '-') ?? 'to-go', { now: n === now.next }]"
      ></li>
    </ol>
    <p data-test-id="counted">
      <strong>{{ now.done }}</strong> done · <strong>{{ now.aside }}</strong> set aside ·
      <strong>{{ now.toGo }}</strong> to go<template v-if="waiting.length">
        · <span class="waits" data-test-id="count-waits">{{ waiting.length }} waiting to be sent</span></template
      >
    </p>
    <dl class="times">
      <div>
        <dt>elapsed</dt>
        <dd class="mono">{{ formatTimer(now.elapsedS) }}</dd>
      </div>
      <div>
        <dt>expected, all {{ marking!.pieces }}</dt>
        <dd class="mono">{{ now.expectedS === null ? '–' : formatTimer(now.expectedS) }}</dd>
      </div>
      <div>
        <dt>ends about</dt>
        <dd class="mono">{{ ends ?? '–' }}</dd>
      </div>
    </dl>
    <p v-if="now.paceS !== null" class="quiet small">
      {{ formatDuration(now.paceS) }} a piece so far<template v-if="plannedS"
        >, planned {{ formatDuration(plannedS) }}</template
      >{{ ' ' }}<GradeMark grade="measured" /><template v-if="stops.length">
        ; stood still {{ stops.length === 1 ? 'once' : `${stops.length} times` }},
        {{ formatDuration(stops.reduce((sum, one) => sum + one, 0)) }}</template
      >
    </p>

    <div v-if="wrong" class="wrong" role="group" aria-label="What went wrong" data-test-id="what-went-wrong">
      <p>
        <strong>What went wrong with {{ nameOf(wrong.piece) }}?</strong> It is set aside and comes up again at Judge.
        Press on its drawing where it lies.
      </p>
      <div class="choices">
        <Button
          v-for="why in SPOILT"
          :key="why"
          outlined
          severity="danger"
          :label="why"
          :data-test-id="`spoilt-${why}`"
          @click="aside(why)"
        />
        <Button text label="Nothing, back" data-test-id="not-wrong" @click="wrong = null" />
      </div>
    </div>
    <div v-else-if="firstWaits" class="first" role="group" aria-label="The first piece" data-test-id="first-piece">
      <p>
        <strong>Stop: rinse and scrub piece 1 before you go on.</strong> A batch lost is the dearest mistake. How did it
        stand the pad?
      </p>
      <div class="choices">
        <Button
          v-for="result in FIRST_PIECE"
          :key="result"
          :outlined="result !== 'held'"
          :severity="result === 'lost' ? 'danger' : undefined"
          :text="result === 'not scrubbed'"
          :label="FIRST_WORDS[result]"
          :data-test-id="`first-${result}`"
          @click="first(result)"
        />
      </div>
    </div>
    <template v-else>
      <p v-if="marking!.firstPiece === 'lost' || marking!.firstPiece === 'paler'" class="lost" role="alert">
        <strong>The first piece was {{ marking!.firstPiece }}.</strong> End this run and look at dose, focus and coat
        before the next piece is spent.
      </p>
      <SendRun v-if="sends && marking!.firstPiece !== 'lost'" :run="onHead" :first-alone="firstAlone" />
      <button
        v-if="now.next !== null && !onTheHead"
        type="button"
        class="done-press"
        :class="{ other: sends }"
        data-test-id="piece-done"
        @click="count"
      >
        <span class="tick" aria-hidden="true">✓</span>
        <span
          ><strong>{{ nameOf(now.next) }} is done</strong><small v-if="now.toGo > 1">then the next; key D</small></span
        >
      </button>
      <Button
        v-if="now.next !== null"
        outlined
        severity="danger"
        class="went-wrong"
        label="Something went wrong with this one"
        data-test-id="piece-wrong"
        @click="wrong = { piece: now.next!, spot: null }"
      />
    </template>

    <div v-if="ending" class="first" role="group" aria-label="End the run" data-test-id="ending">
      <p>
        <strong>End it with {{ done }} of {{ marking!.pieces }} pieces?</strong>
        {{ done ? 'They become a run; the rest stays to be marked.' : 'Nothing was counted: no run is kept.' }}
      </p>
      <div class="choices">
        <Button label="End the run" :loading="busy" data-test-id="end-run" @click="end" />
        <Button text label="Go on" @click="ending = false" />
      </div>
    </div>
    <Button
      v-else-if="!onTheHead"
      :outlined="now.next !== null"
      :text="now.next !== null"
      :label="now.next === null ? 'End the run' : 'End the run here'"
      :loading="busy"
      data-test-id="end-marking"
      @click="now.next === null ? end() : (ending = true)"
    />
  </section>
</template>

<style scoped>
.count {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
}

.count p {
  margin: 0;
}

.piece {
  font-size: 2.8rem;
  font-weight: 700;
  line-height: 1;
}

.strip {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(8px, 14px));
  gap: 3px;
  margin: 0;
  padding: 0;
  list-style: none;
}

.strip li {
  height: 20px;
  border: 1.5px solid var(--unto-quiet);
}

.strip .done {
  border-color: var(--unto-bonded);
  background: var(--unto-bonded);
}

.strip .set-aside {
  border: 1.5px dashed var(--unto-danger);
  background: var(--unto-danger-tint);
}

.strip .now {
  border: 2px solid var(--unto-danger);
}

.times {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  margin: 0;
  border: 1px solid var(--unto-rule);
}

.times div {
  padding: 0.4rem 0.7rem;
}

.times div + div {
  border-left: 1px solid var(--unto-rule);
}

.times dt {
  font-size: 0.8rem;
  color: var(--unto-quiet);
}

.times dd {
  margin: 0;
  font-size: 1.35rem;
}

.done-press {
  display: flex;
  align-items: center;
  gap: 1.2rem;
  min-height: 120px;
  padding: 1rem 1.4rem;
  border: 0;
  border-radius: 4px;
  background: var(--unto-action);
  color: var(--unto-on-action, #fffdf8);
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.done-press strong {
  display: block;
  font-size: 1.9rem;
  line-height: 1.1;
}

.done-press.other {
  min-height: 56px;
  padding: 0.5rem 1rem;
  border: 1.5px solid var(--unto-action);
  background: transparent;
  color: var(--unto-action);
}

.done-press.other strong {
  font-size: 1.15rem;
}

.done-press.other .tick {
  font-size: 1.4rem;
}

.tick {
  font-size: 2.6rem;
}

.went-wrong {
  min-height: 56px;
}

.wrong,
.lost {
  padding: 0.7rem 0.9rem;
  border-left: 5px solid var(--unto-danger);
  background: var(--unto-danger-tint);
}

.first {
  padding: 0.7rem 0.9rem;
  border-left: 5px solid var(--unto-coat-line);
  background: var(--unto-coat-tint);
}

.choices {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
  gap: 0.5rem;
  margin-top: 0.6rem;
}

.choices :deep(.p-button) {
  min-height: 48px;
}

.waits {
  font-weight: 700;
}
</style>
