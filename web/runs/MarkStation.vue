<script setup lang="ts">
import { INTERVAL_UNITS, POWER_UNITS, SPEED_UNITS, speedFromMmPerS } from '@unto/core';
import { createRun, type CreateRun } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import { useOutbox } from '../stores/outbox';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import EnteredField from '../ui/EnteredField.vue';
import { formatDuration, formatMoment, formatNumber, withUnit } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import NumberField from '../ui/NumberField.vue';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';
import StationBody from '../station/StationBody.vue';

/** Log a run: the setting as the panel shows it, passes, air, focus offset, minutes. */
const ticket = useTicket();
const outbox = useOutbox();
const router = useRouter();
const model = useSection('beam');
const recipe = computed(() => ticket.page?.recipes[0] ?? null);
const drying = computed(() => ticket.page?.timers.find(({ kind, endedAt }) => kind === 'dry' && !endedAt) ?? null);
const runs = computed(() => ticket.page?.runs ?? []);
const marked = computed(() =>
  runs.value.filter(({ correctedById }) => !correctedById).reduce((sum, { pieces }) => sum + pieces, 0),
);
const correcting = ref<string | null>(null);

const form = useForm<CreateRun>(createRun, () => {
  const { fitted, ticket: own } = ticket;
  const machine = fitted!.machine;
  const speedMmPerS = recipe.value?.speedMmPerS ?? Number.NaN;
  const unit = machine.panelSpeed;
  const shownSpeed = Number.isFinite(speedMmPerS)
    ? speedFromMmPerS(speedMmPerS, unit, {
        topSpeedMmPerS: machine.topSpeedMmPerS,
        dialTable: machine.dialTable.map(({ dial, mmPerS }) => ({ x: dial, y: mmPerS })),
      })
    : null;
  const pieces = Math.max(1, own!.pieces - marked.value);
  const percent = recipe.value?.powerPercent ?? Number.NaN;
  return {
    id: uuid(),
    ticketId: own!.id,
    recipeId: recipe.value?.id ?? null,
    correctsId: null,
    pieces,
    power: {
      value: machine.panelPower === '0-1000' ? percent * 10 : percent,
      unit: machine.panelPower === 'W' ? '%' : machine.panelPower,
    },
    speed: {
      value: shownSpeed === null ? speedMmPerS : Number(shownSpeed.toPrecision(4)),
      unit: shownSpeed === null && recipe.value ? 'mm/s' : unit,
    },
    interval: { value: recipe.value?.intervalMm ?? Number.NaN, unit: 'mm' },
    passes: recipe.value?.passes ?? 1,
    focusOffsetMm: recipe.value?.focusOffsetMm ?? 0,
    air: 'off',
    minutes: recipe.value ? Number(((recipe.value.secondsPerPiece * pieces) / 60).toPrecision(3)) : Number.NaN,
    note: '',
  };
});
const { values, faults, general, busy, touch } = form;
const AIR = [
  { value: 'off', label: 'off' },
  { value: 'on', label: 'on' },
] as const;
const powderAir = computed(() => values.value.air === 'on' && ticket.compound?.body.handling === 'loose powder');

async function keep(): Promise<void> {
  const id = ticket.ticket!.id;
  await form.submit(async (entry) => {
    const answer = await outbox.send(
      'POST',
      '/api/runs',
      { ...entry, correctsId: correcting.value },
      `a run of ${entry.pieces} pieces`,
    );
    correcting.value = null;
    if (answer) {
      await ticket.load(id);
      await router.push(`/tickets/${id}/clean`);
    }
    form.reset();
  });
}
</script>

<template>
  <StationBody station="mark">
    <template #left>
      <SectionDrawing v-if="model" :model="model" title="Section under the beam" />
      <details v-if="runs.length" class="runs" open>
        <summary>{{ marked }} of {{ ticket.ticket!.pieces }} pieces marked in {{ runs.length }} runs</summary>
        <table class="plain">
          <tbody>
            <tr v-for="run in runs.slice(0, 4)" :key="run.id">
              <td>
                <RouterLink :to="`/ledger/${run.id}`">{{ formatMoment(run.at) }}</RouterLink>
              </td>
              <td class="number">{{ run.pieces }} pcs</td>
              <td class="number">
                {{ formatNumber(run.power.value) }} {{ run.power.unit }} · {{ formatNumber(run.speed.value, 4) }}
                {{ run.speed.unit }}
              </td>
              <td class="number">{{ formatNumber(run.minutes) }} min</td>
              <td><GradeMark :grade="run.grade" /></td>
            </tr>
          </tbody>
        </table>
      </details>
    </template>
    <h2>Mark {{ values.pieces || '' }} piece{{ values.pieces === 1 ? '' : 's' }}</h2>
    <p v-if="drying" class="stop" role="alert">
      <strong>The coat is still wet.</strong> “{{ drying.label }}” dries: a run cannot be logged before its clock has
      passed and all gloss is gone.
    </p>
    <p v-if="recipe" class="quiet">
      Recipe v{{ recipe.number }}: {{ formatNumber(recipe.powerPercent) }} %,
      {{ withUnit(recipe.speedMmPerS, 'mm/s') }}, {{ withUnit(recipe.intervalMm, 'mm') }},
      {{ formatDuration(recipe.secondsPerPiece) }} a piece <GradeMark :grade="recipe.grade" />
    </p>
    <p v-else class="stop">
      No recipe: this setting rests on nothing yet. Prove it on a coupon first, or log the run as a guess.
    </p>
    <form id="run" class="form-grid" novalidate @submit.prevent="keep">
      <p v-if="general" class="fault wide" role="alert">{{ general }}</p>
      <EnteredField
        v-model="values.power"
        label="Power"
        :units="POWER_UNITS"
        :fault="faults['power.value']"
        test-id="power"
        @left="touch('power.value')"
      />
      <EnteredField
        v-model="values.speed"
        label="Speed"
        :units="SPEED_UNITS"
        :fault="faults['speed.value']"
        test-id="speed"
        @left="touch('speed.value')"
      />
      <EnteredField
        v-model="values.interval"
        label="Line interval"
        :units="INTERVAL_UNITS"
        :fault="faults['interval.value']"
        test-id="interval"
        @left="touch('interval.value')"
      />
      <NumberField
        v-model="values.passes"
        label="Passes"
        :fault="faults['passes']"
        test-id="passes"
        @left="touch('passes')"
      />
      <NumberField
        v-model="values.focusOffsetMm"
        label="Focus offset"
        unit="mm"
        :fault="faults['focusOffsetMm']"
        @left="touch('focusOffsetMm')"
      />
      <ChoiceField v-model="values.air" label="Air assist" :options="AIR" test-id="air" />
      <NumberField
        v-model="values.pieces"
        label="Pieces"
        :fault="faults['pieces']"
        test-id="run-pieces"
        @left="touch('pieces')"
      />
      <NumberField
        v-model="values.minutes"
        label="Minutes it took"
        unit="min"
        :fault="faults['minutes']"
        test-id="minutes"
        @left="touch('minutes')"
      />
      <TextField v-model="values.note" class="wide" label="Note" :fault="faults['note']" />
      <p v-if="powderAir" class="stop wide" role="alert">
        <strong>Air on over a powder coat</strong> blows the coat away: marks come out pale. Usual practice is air off.
      </p>
    </form>
    <template #foot
      ><Button
        type="submit"
        form="run"
        label="Log the run"
        :loading="busy"
        :disabled="Boolean(drying)"
        data-test-id="log-run"
    /></template>
  </StationBody>
</template>

<style scoped>
.stop {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-danger);
  background: var(--unto-danger-tint);
  font-size: 0.92rem;
}

.runs table {
  font-size: 0.9rem;
}
</style>
