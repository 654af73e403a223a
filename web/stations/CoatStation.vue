<script setup lang="ts">
import { judgeFilm, learnTransfer, MASS_UNITS, remainingPieces } from '@unto/core';
import { coatPlanFor, createWeighing, type Clock, type CreateWeighing, type StoreItem } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import { useAct } from '../stores/useAct';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useNow } from '../stores/now';
import { useOutbox } from '../stores/outbox';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import ClockRing from '../ui/ClockRing.vue';
import EnteredField from '../ui/EnteredField.vue';
import FigureTile from '../ui/FigureTile.vue';
import { formatDuration, formatFigure, formatNumber, withUnit } from '../ui/format';
import GradeMark from '../ui/GradeMark.vue';
import NumberField from '../ui/NumberField.vue';
import TileStrip from '../ui/TileStrip.vue';
import { useForm } from '../ui/useForm';
import StationBody from './StationBody.vue';

/** Plan the coat, weigh the can, let it dry by the clock, judge the film. */
const ticket = useTicket();
const bench = useBench();
const outbox = useOutbox();
const time = useNow();
const router = useRouter();
const { act } = useAct();
const model = useSection('coat');
const left = computed(() => Math.max(1, (ticket.ticket?.pieces ?? 1) - coated.value));
const coated = computed(() => ticket.page?.weighings.reduce((sum, { pieces }) => sum + pieces, 0) ?? 0);
const transfer = computed(() => learnTransfer(ticket.page?.transferSamples ?? []));
const plan = computed(() =>
  ticket.compound && ticket.ticket ? coatPlanFor(ticket.compound, ticket.ticket, left.value, transfer.value) : null,
);
const containers = computed<StoreItem<'container'>[]>(() =>
  bench.inUse('container').filter(({ body }) => body.compoundId === ticket.compound?.id),
);
const clock = computed<Clock | null>(
  () => ticket.page?.clocks.find(({ kind, endedAt }) => kind === 'dry' && !endedAt) ?? null,
);
const clockLeft = computed(() =>
  clock.value ? clock.value.minimumS - (time.now - Date.parse(clock.value.startedAt)) / 1000 : 0,
);
const newest = computed(() => ticket.page?.weighings.at(-1) ?? null);
const verdict = computed(() => {
  const { compound } = ticket;
  if (!newest.value || !compound) return null;
  const { value, interval } = newest.value.film;
  return judgeFilm(
    { value, ...(interval ? { low: interval.low, high: interval.high } : {}) },
    { lowUm: compound.body.bandLowUm, highUm: compound.body.bandHighUm },
  );
});
const VERDICTS = {
  thin: 'Too thin: it will be pale and patchy.',
  right: 'In the band.',
  thick: 'Too thick: the heat will not reach the part.',
} as const;
const partsWeighed = ref(false);

const form = useForm<CreateWeighing>(createWeighing, () => ({
  id: uuid(),
  containerId: containers.value[0]?.id ?? '',
  pieces: left.value,
  before: { value: Number.NaN, unit: bench.workshop!.massUnit },
  after: { value: Number.NaN, unit: bench.workshop!.massUnit },
  partsBefore: null,
  partsAfter: null,
  correctsId: null,
}));
const { values, faults, general, touch } = form;

function weighParts(on: boolean): void {
  partsWeighed.value = on;
  const unit = bench.workshop!.massUnit;
  values.value.partsBefore = on ? { value: Number.NaN, unit } : null;
  values.value.partsAfter = on ? { value: Number.NaN, unit } : null;
}

async function keep(): Promise<void> {
  const id = ticket.ticket!.id;
  await form.submit(async (entry) => {
    await outbox.send('POST', `/api/tickets/${id}/weighings`, entry, 'a weighing');
    await ticket.load(id).catch(() => undefined);
    weighParts(false);
    form.reset();
  });
}

async function startClock(): Promise<void> {
  const { compound } = ticket;
  const label = `coat of ${values.value.pieces || left.value} pieces`;
  await act(
    'POST',
    `/api/tickets/${ticket.ticket!.id}/clocks`,
    { id: uuid(), kind: 'dry', label, minimumS: compound!.body.dryS },
    'the drying clock',
  );
}

async function endClock(outcome: 'passed' | 'dropped'): Promise<void> {
  await act(
    'PUT',
    `/api/clocks/${clock.value!.id}/end`,
    { outcome },
    outcome === 'passed' ? 'gloss gone' : 'coat rinsed off',
  );
  if (outcome === 'dropped') useNotices().say('Rinsed off before firing: only compound was lost.');
}

const leftInCan = computed(() => {
  const container = containers.value.find(({ id }) => id === newest.value?.containerId);
  if (!newest.value || !container) return null;
  const perPiece = (newest.value.beforeG - newest.value.afterG) / newest.value.pieces;
  return {
    pieces: remainingPieces({ nowG: newest.value.afterG, tareG: container.body.tareG }, perPiece),
    name: container.body.name,
  };
});
</script>

<template>
  <StationBody v-if="ticket.compound && plan" station="coat">
    <template #left>
      <SectionDrawing
        v-if="model"
        :model="model"
        :title="clock ? `Section, ${clock.label}` : 'Section through the coat'"
      />
      <TileStrip>
        <FigureTile label="lay wet" :figure="plan.wet" test-id="tile-wet" />
        <FigureTile label="dries to" :figure="plan.dry" test-id="tile-dry" />
        <FigureTile
          :label="`compound for ${left} piece${left > 1 ? 's' : ''}`"
          :figure="plan.mass"
          test-id="tile-mass"
        />
        <FigureTile
          label="compound a piece"
          :figure="plan.pricePerPiece"
          :unit="bench.workshop!.currency"
          test-id="tile-price"
        />
        <FigureTile
          label="a square centimetre"
          :figure="plan.pricePerCm2"
          :unit="bench.workshop!.currency"
          :digits="2"
          test-id="tile-area-price"
        />
      </TileStrip>
    </template>
    <h2>Coat {{ left }} piece{{ left > 1 ? 's' : '' }} with {{ ticket.compound.body.name }}</h2>
    <p class="quiet">
      Shake {{ formatDuration(ticket.compound.body.shakeS) }} · {{ ticket.compound.body.distanceMinMm }}–{{
        withUnit(ticket.compound.body.distanceMaxMm, 'mm')
      }}
      away · {{ ticket.compound.body.coats }} even coat{{ ticket.compound.body.coats > 1 ? 's' : '' }} · dries by itself
      in {{ formatDuration(ticket.compound.body.dryS) }}, no fan
    </p>

    <section v-if="clock" class="drying" data-test-id="drying">
      <ClockRing :clock="clock" :size="132" of />
      <div class="beside">
        <h3>{{ clockLeft > 0 ? 'Drying by itself' : 'Look along the tray' }}</h3>
        <p class="quiet small">No fan, no dryer. Under the lamp all gloss must be gone before it may be fired.</p>
        <div class="pair">
          <Button
            label="Gloss is gone"
            :disabled="clockLeft > 0"
            data-test-id="gloss-gone"
            @click="endClock('passed')"
          />
          <Button
            label="Rinsed it off"
            outlined
            severity="secondary"
            data-test-id="rinsed-off"
            @click="endClock('dropped')"
          />
        </div>
      </div>
    </section>

    <section v-if="newest && verdict" class="verdict" :class="verdict.verdict" data-test-id="film-verdict">
      <p>
        <strong>{{ VERDICTS[verdict.verdict] }}</strong> {{ formatFigure(newest.film.value) }} µm dry on
        {{ newest.pieces }} pieces, wanted {{ ticket.compound.body.bandLowUm }}–{{
          withUnit(ticket.compound.body.bandHighUm, 'µm')
        }}.
        <template v-if="verdict.possible.length > 1"
          >By this weighing it may still be
          {{ verdict.possible.filter((word) => word !== verdict!.verdict).join(' or ') }}.</template
        >
        <GradeMark :figure="newest.film" title="Dry film" />
      </p>
      <p v-if="leftInCan" class="quiet small">{{ leftInCan.name }}: {{ leftInCan.pieces }} pieces left at this rate.</p>
    </section>

    <form class="weigh" novalidate @submit.prevent="keep">
      <h3>Weigh the container</h3>
      <p v-if="general" class="fault" role="alert">{{ general }}</p>
      <div class="form-grid">
        <ChoiceField
          v-model="values.containerId"
          class="wide"
          label="Container"
          :options="containers.map(({ id, body }) => ({ value: id, label: body.name }))"
          :fault="faults['containerId'] && 'Choose the container weighed.'"
          test-id="container"
        />
        <NumberField
          v-model="values.pieces"
          label="Pieces coated"
          :fault="faults['pieces']"
          test-id="weigh-pieces"
          @left="touch('pieces')"
        />
        <EnteredField
          v-model="values.before"
          label="Before"
          :units="MASS_UNITS"
          :fault="faults['before.value']"
          test-id="before"
          @left="touch('before.value')"
        />
        <EnteredField
          v-model="values.after"
          label="After"
          :units="MASS_UNITS"
          :fault="faults['after.value']"
          test-id="after"
          @left="touch('after.value')"
        />
        <template v-if="partsWeighed && values.partsBefore && values.partsAfter">
          <EnteredField
            v-model="values.partsBefore"
            label="Parts bare"
            :units="MASS_UNITS"
            :fault="faults['partsBefore.value']"
            @left="touch('partsBefore.value')"
          />
          <EnteredField
            v-model="values.partsAfter"
            label="Parts coated, dry"
            :units="MASS_UNITS"
            :fault="faults['partsAfter.value']"
            @left="touch('partsAfter.value')"
          />
        </template>
      </div>
      <div class="pair">
        <Button type="submit" label="Keep the weighing" :outlined="!clock" data-test-id="keep-weighing" />
        <Button
          type="button"
          text
          :label="partsWeighed ? 'Without the parts' : 'Parts weighed too'"
          @click="weighParts(!partsWeighed)"
        />
      </div>
      <p class="quiet small">
        {{
          transfer.weighings
            ? `${formatNumber(transfer.value * 100)} % of the solids reach the part, learnt from ${transfer.weighings} weighings.`
            : `${formatNumber(transfer.value * 100)} % reaching the part is usual for an aerosol; weigh parts twice and Unto learns yours.`
        }}
      </p>
    </form>
    <template #foot>
      <Button v-if="!clock" label="Last stroke laid: start drying" data-test-id="start-drying" @click="startClock" />
      <Button
        label="Go to Place"
        :outlined="!clock"
        :disabled="Boolean(clock)"
        @click="router.push(`/tickets/${ticket.ticket!.id}/place`)"
      />
    </template>
  </StationBody>
  <div v-else class="none">
    <h2>No coat here</h2>
    <p v-if="ticket.ticket?.choiceReason">This ticket is marked without a compound.</p>
    <p v-else>Choose a compound first.</p>
    <Button label="Go to Choose" @click="router.push(`/tickets/${ticket.ticket!.id}/choose`)" />
  </div>
</template>

<style scoped>
.drying {
  display: flex;
  gap: 1.1rem;
  align-items: center;
}

.pair {
  display: flex;
  gap: 0.5rem;
  flex-wrap: wrap;
  margin-top: 0.4rem;
}

.verdict {
  padding: 0.55rem 0.75rem;
  border: 1px solid var(--unto-rule);
  border-left: 4px solid var(--unto-danger);
}

.verdict.right {
  border-left-color: var(--unto-bonded);
}

.none {
  padding: 2rem;
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  align-items: flex-start;
}

.beside {
  flex: 1;
}
</style>
