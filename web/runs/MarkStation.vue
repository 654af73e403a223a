<script setup lang="ts">
import { panelReading, runningTimers, shopUnits } from '@unto/domain';
import { INTERVAL_UNITS, POWER_UNITS, readIn, SPEED_UNITS, type Quantity, type UnitOf } from '@unto/core';
import { createRun, type CreateRun } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { useStillHere } from '../ui/useStillHere';
import { computed, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import { useShop } from '../stores/shop';
import { useOutbox } from '../stores/outbox';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import FormNote from '../ui/FormNote.vue';
import EnteredField from '../ui/EnteredField.vue';
import { formatDuration, formatMoment, formatNumber } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import NumberField from '../ui/NumberField.vue';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';
import StationBody from '../station/StationBody.vue';
import { useUnits } from '../ui/useUnits';

/** Log a run: the setting as the panel shows it, passes, air, focus offset, minutes. */
const ticket = useTicket();
const units = useUnits();
const shop = useShop();
const outbox = useOutbox();
const router = useRouter();
const model = useSection('beam');
const recipe = computed(() => ticket.page?.recipes[0] ?? null);
const drying = computed(() => runningTimers(ticket.page?.timers ?? [], 'dry')[0] ?? null);
const runs = computed(() => ticket.page?.runs ?? []);
const marked = computed(() => ticket.page?.progress.markedPieces ?? 0);
const stillHere = useStillHere();
const correcting = ref<string | null>(null);

const form = useForm<CreateRun>(
  createRun,
  () => {
    const { fitted, ticket: own } = ticket;
    const reading = panelReading(shopUnits(shop.workshop!), fitted!);
    const asRead = <Q extends Quantity>(quantity: Q, value: number | undefined) => {
      const { value: shown, unit } = readIn(reading, quantity, value ?? Number.NaN);
      return { value: Number(shown.toPrecision(4)), unit: value === undefined ? reading.units[quantity] : unit } as {
        value: number;
        unit: UnitOf<Q>;
      };
    };
    const pieces = Math.max(1, own!.pieces - marked.value);
    return {
      id: uuid(),
      ticketId: own!.id,
      recipeId: recipe.value?.id ?? null,
      correctsId: null,
      pieces,
      power: asRead('power', recipe.value?.powerPercent),
      speed: asRead('speed', recipe.value?.speedMmPerS),
      interval: asRead('interval', recipe.value?.intervalMm),
      passes: recipe.value?.passes ?? 1,
      focusOffsetMm: recipe.value?.focusOffsetMm ?? 0,
      air: '' as never,
      minutes: Number.NaN,
      note: '',
    };
  },
  { draft: `run-${ticket.ticket!.id}` },
);
const { values, busy } = form;
const AIR = [
  { value: 'off', label: 'off' },
  { value: 'on', label: 'on' },
] as const;
/** What the recipe lets expect; what it took is for whoever was there to say. */
const planned = computed(() =>
  recipe.value && values.value.pieces > 0
    ? `Planned: ${formatDuration(recipe.value.secondsPerPiece * values.value.pieces)}`
    : undefined,
);
const powderAir = computed(() => values.value.air === 'on' && ticket.compound?.body.handling === 'loose powder');

async function keep(): Promise<void> {
  const id = ticket.ticket!.id;
  await form.submit(async (entry) => {
    const body = { ...entry, correctsId: correcting.value };
    const answer = await outbox.send('createRun', { body }, `a run of ${entry.pieces} pieces`);
    correcting.value = null;
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
      <strong>The coat is still wet.</strong> “{{ drying.label }}” dries: a run cannot be logged before its timer has
      passed and all gloss is gone.
    </p>
    <p v-if="recipe" class="quiet">
      Recipe v{{ recipe.number }}: {{ units.text('power', recipe.powerPercent) }},
      {{ units.text('speed', recipe.speedMmPerS) }}{{ units.aside('speed', recipe.speedMmPerS) }},
      {{ units.text('interval', recipe.intervalMm) }}, {{ formatDuration(recipe.secondsPerPiece) }} a piece
      <GradeMark :grade="recipe.grade" />
    </p>
    <p v-else class="stop">
      No recipe: this setting rests on nothing yet. Prove it on a coupon first, or log the run as a guess.
    </p>
    <form id="run" class="form-grid" novalidate @submit.prevent="keep">
      <FormNote />
      <EnteredField name="power" label="Power" :units="POWER_UNITS" test-id="power" />
      <EnteredField name="speed" label="Speed" :units="SPEED_UNITS" test-id="speed" />
      <EnteredField name="interval" label="Line interval" :units="INTERVAL_UNITS" test-id="interval" />
      <NumberField name="passes" label="Passes" test-id="passes" />
      <NumberField name="focusOffsetMm" label="Focus offset" quantity="length" />
      <ChoiceField name="air" label="Air assist" :options="AIR" test-id="air" />
      <NumberField name="pieces" label="Pieces" test-id="run-pieces" />
      <NumberField name="minutes" label="Minutes it took" unit="min" :hint="planned" test-id="minutes" />
      <TextField name="note" class="wide" label="Note" />
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
