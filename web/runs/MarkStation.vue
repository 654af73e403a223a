<script setup lang="ts">
import { openForRun, panelReading, shopUnits } from '@unto/domain';
import {
  INTERVAL_UNITS,
  PLAIN_SETTING,
  piecesLeft,
  piecesReady,
  POWER_UNITS,
  readIn,
  SPEED_UNITS,
  type Quantity,
  type UnitOf,
} from '@unto/core';
import { createRun, type CreateRun } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { useStillHere } from '../ui/useStillHere';
import { computed, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import SettingTiles from '../setting/SettingTiles.vue';
import SettingRestFields from '../setting/SettingRestFields.vue';
import { pulsedOf } from '../setting/setting-names';
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
import { useNow } from '../stores/now';
import StationBody from '../station/StationBody.vue';

/** Log a run: the whole setting as the panel shows it, pieces, minutes; with what still stands open before it. */
const ticket = useTicket();
const shop = useShop();
const outbox = useOutbox();
const router = useRouter();
const model = useSection('beam');
const recipe = computed(() => ticket.page?.recipes[0] ?? null);
const runs = computed(() => ticket.page?.runs ?? []);
const marked = computed(() => ticket.page?.progress.markedPieces ?? 0);
const rejected = computed(() => ticket.page?.progress.rejectedPieces ?? 0);
const left = computed(() =>
  piecesLeft({ pieces: ticket.ticket!.pieces, ...(ticket.page?.progress ?? { markedPieces: 0, rejectedPieces: 0 }) }),
);
/** Offered to be run: what is coated and ready, as far as the ticket still wants it. */
const offered = computed(() => {
  const { page, ticket: own } = ticket;
  const ready = own?.compoundId && page ? piecesReady(page.progress) : 0;
  return Math.max(1, ready ? Math.min(ready, left.value) : left.value);
});
/** Blanks of this substrate on the shelf. */
const blanks = computed(() =>
  shop
    .inUse('blank')
    .filter(({ body }) => body.substrateId === ticket.ticket!.substrateId)
    .map(({ id, body }) => ({
      value: id,
      label: `${body.name}, ${body.supplier}${body.lot ? `, lot ${body.lot}` : ''}`,
    })),
);
const pulsed = computed(() => pulsedOf(ticket.fitted!));
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
    const planned = recipe.value ?? PLAIN_SETTING;
    return {
      id: uuid(),
      ticketId: own!.id,
      recipeId: recipe.value?.id ?? null,
      blankId: blanks.value.length === 1 ? blanks.value[0]!.value : null,
      correctsId: null,
      pieces: offered.value,
      power: asRead('power', recipe.value?.powerPercent),
      speed: asRead('speed', recipe.value?.speedMmPerS),
      interval: asRead('interval', recipe.value?.intervalMm),
      passes: planned.passes,
      hatches: planned.hatches,
      angleDeg: planned.angleDeg,
      fill: planned.fill,
      focusOffsetMm: planned.focusOffsetMm,
      frequencyKHz: planned.frequencyKHz,
      pulseNs: planned.pulseNs,
      directions: planned.directions,
      powerMode: planned.powerMode,
      air: '' as never,
      extraction: null,
      minutes: Number.NaN,
      note: '',
      reason: '',
    };
  },
  { draft: `run-${ticket.ticket!.id}` },
);
const { values, busy } = form;
/** What the recipe lets expect; what it took is for whoever was there to say. */
const planned = computed(() =>
  recipe.value && values.value.pieces > 0
    ? `Planned: ${formatDuration(recipe.value.secondsPerPiece * values.value.pieces)}`
    : undefined,
);
const powderAir = computed(() => values.value.air === 'on' && ticket.compound?.body.handling === 'loose powder');
const time = useNow();
/** Stations that stand open before these pieces; a correction is of what ran already. */
const open = computed(() => {
  const { page, ticket: own, substrate, compound } = ticket;
  if (!page || !own || !substrate) return [];
  const fittedName = shop.item('head', page.fitting?.headId ?? null)?.body.name ?? '';
  const { progress, checks, fitting } = page;
  const facts = { ticket: own, progress, checks, fitting, fittedName };
  return openForRun(
    { ...facts, substrate: substrate.body, compound: compound?.body ?? null },
    values.value.pieces || 1,
    new Date(time.now),
  );
});
const never = computed(() => open.value.filter((one) => one.never));

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
        <summary>
          {{ marked }} marked in {{ runs.length === 1 ? 'one run' : `${runs.length} runs`
          }}<template v-if="rejected">, {{ rejected }} of them to be done again</template>; {{ left }} of
          {{ ticket.ticket!.pieces }} to go
        </summary>
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
    <div v-if="open.length" class="stop" role="alert" data-test-id="open-stations">
      <p v-for="one in open" :key="one.station + one.word">
        <span
          ><RouterLink :to="`/tickets/${ticket.ticket!.id}/${one.station}`"
            ><strong class="cap">{{ one.station }}</strong></RouterLink
          >: {{ one.word }}<template v-if="one.never">: cannot be run</template></span
        >
      </p>
    </div>
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
      <EnteredField name="power" label="Power" :units="POWER_UNITS" test-id="power" />
      <EnteredField name="speed" label="Speed" :units="SPEED_UNITS" test-id="speed" />
      <EnteredField name="interval" label="Line interval" :units="INTERVAL_UNITS" test-id="interval" />
      <SettingRestFields :pulsed="pulsed" fired />
      <ChoiceField
        v-if="blanks.length > 1"
        name="blankId"
        class="wide"
        label="Out of which blanks"
        placeholder="not noted"
        :options="blanks"
        test-id="run-blank"
      />
      <NumberField name="pieces" label="Pieces" test-id="run-pieces" />
      <NumberField name="minutes" label="Minutes it took" unit="min" :hint="planned" test-id="minutes" />
      <TextField name="note" class="wide" label="Note" />
      <TextField
        v-if="open.length && !never.length"
        name="reason"
        class="wide"
        label="Why it runs all the same"
        hint="Kept with the run; its grade is at best Carried"
        test-id="run-reason"
      />
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
        :disabled="never.length > 0"
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

.stop p {
  display: flex;
  align-items: center;
  min-height: 44px;
  margin: 0;
}

.cap {
  text-transform: capitalize;
}

.runs table {
  font-size: 0.9rem;
}
</style>
