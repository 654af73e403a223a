<script setup lang="ts">
import { APPLICATIONS, MASS_UNITS, type MassUnit } from '@unto/core';
import { createWeighing, MOST_TRAYS, type CreateTimer, type CreateWeighing } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { useAct } from '../stores/useAct';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import FormNote from '../ui/FormNote.vue';
import EnteredField from '../ui/EnteredField.vue';
import { formatDuration, formatMoment, formatNumber } from '../ui/format';
import NumberField from '../ui/NumberField.vue';
import { useForm } from '../ui/useForm';
import TimerRow from './TimerRow.vue';
import CoatVerdict from './CoatVerdict.vue';
import ScaleButton from './ScaleButton.vue';
import type { Coat } from './useCoat';
import { dryingWords } from './words';
import { useUnits } from '../ui/useUnits';

/** At the bench: shake, weigh the container, lay, weigh again, let it dry by the timer. */
const props = defineProps<{ coat: Coat }>();
const { body, left, containers, ready, transfer, drying, shaking, shaken, mixes, newest, application, care } =
  props.coat;
const ticket = useTicket();
const shop = useShop();
const units = useUnits();
const outbox = useOutbox();
const { act } = useAct();
const scaleSays = ref('');

const form = useForm<CreateWeighing & { strokes: number | null }>(
  createWeighing,
  () => ({
    id: uuid(),
    containerId: newest.value?.containerId ?? ready.value.result?.use[0]?.id ?? containers.value[0]?.id ?? '',
    pieces: left.value || Number.NaN,
    before: { value: Number.NaN, unit: shop.workshop!.massUnit },
    after: { value: Number.NaN, unit: shop.workshop!.massUnit },
    strokes: null,
    tray: drying.value.at(-1)?.tray ?? 1,
    roomC: null,
    roomHumidity: null,
    partsBefore: null,
    partsAfter: null,
    correctsId: null,
  }),
  { draft: `weighing-${ticket.ticket!.id}` },
);
const { values, faults } = form;
const partsWeighed = computed(() => values.value.partsBefore !== null);
const roomNoted = ref(false);
/** Trays whose clocks run, once there are several: a weighing is of one of them. */
const trays = computed(() => (drying.value.some(({ tray }) => tray > 1) ? drying.value.map(({ tray }) => tray) : []));

function weighParts(on: boolean): void {
  const unit = shop.workshop!.massUnit;
  values.value.partsBefore = on ? { value: Number.NaN, unit } : null;
  values.value.partsAfter = on ? { value: Number.NaN, unit } : null;
}

function fromScale(
  field: 'before' | 'after' | 'partsBefore' | 'partsAfter',
  read: { value: number; unit: MassUnit },
): void {
  values.value[field] = read;
}
const ask = (what: 'container' | 'parts', moment: 'before' | 'after') => ({
  what,
  moment,
  containerId: values.value.containerId,
  pieces: values.value.pieces || 1,
});

async function keep(): Promise<void> {
  const id = ticket.ticket!.id;
  await form.submit(async (entry) => {
    const answer = await outbox.send(
      'createWeighing',
      { params: { id }, body: { ...entry, application: application.value } },
      'a weighing',
    );
    form.reset();
    return answer;
  });
}

async function startTimer(timer: Omit<CreateTimer, 'id'>, words: string): Promise<void> {
  await act('createTimer', { params: { id: ticket.ticket!.id }, body: { id: uuid(), ...timer } }, words);
}
/** A clock a tray: the next one has the lowest number that none of those running has. */
async function startDrying(): Promise<void> {
  const running = new Set(drying.value.map(({ tray }) => tray));
  const tray = Array.from({ length: MOST_TRAYS }, (_, i) => i + 1).find((one) => !running.has(one)) ?? MOST_TRAYS;
  const pieces = values.value.pieces || left.value || null;
  const label = `${tray > 1 ? `tray ${tray}, ` : ''}coat of ${pieces ?? 'some'} piece${pieces === 1 ? '' : 's'}`;
  await startTimer({ kind: 'dry', label, minimumS: body.value.dryS, tray, pieces }, 'the drying timer');
  values.value.tray = tray;
}
defineExpose({ startDrying });

function dried(outcome: 'passed' | 'dropped'): void {
  if (outcome === 'dropped') useNotices().say('Rinsed off before firing: only compound was lost.');
}
</script>

<template>
  <p class="quiet">
    <template v-if="care.sprays"> {{ units.span('length', body.distanceMinMm, body.distanceMaxMm) }} away · </template>
    {{ body.coats }} even coat{{ body.coats > 1 ? 's' : '' }} · dries {{ dryingWords(body) }}
  </p>
  <TimerRow
    v-for="timer in drying"
    :key="timer.id"
    :timer="timer"
    :words="['Drying by itself', 'Look along the tray']"
    :text="`${body.forceDry === 'never' ? 'no fan, no dryer; ' : ''}under the lamp all gloss must be gone before it may be fired`"
    passed="Gloss is gone"
    pass-id="gloss-gone"
    dropped="Rinsed it off"
    drop-id="rinsed-off"
    data-test-id="drying"
    @ended="dried"
  />
  <a
    v-if="drying.length"
    class="small"
    target="_blank"
    :href="`/api/tickets/${ticket.ticket!.id}/trays.pdf`"
    data-test-id="tray-labels"
    >Print a label for {{ drying.length > 1 ? 'each tray' : 'the tray' }}</a
  >
  <TimerRow
    v-for="timer in mixes"
    :key="timer.id"
    :timer="timer"
    :words="['The mix may be used', 'The mix is past its time']"
    text="nothing mixed is carried over"
    passed="Used up"
    pass-id="mix-used"
    dropped="Thrown away"
    drop-id="mix-thrown"
    data-test-id="mix"
    early
  />
  <TimerRow
    v-if="shaking"
    :timer="shaking"
    :words="[care.verb === 'Shake' ? 'Shaking' : 'Stirring', care.asked]"
    :text="care.until"
    :passed="care.passed"
    pass-id="shaken"
    dropped="Stop"
    drop-id="shake-stopped"
    data-test-id="shaking"
  />
  <p v-else-if="body.shakeS > 0 && !drying.length" class="step">
    <span v-if="shaken"
      >✓ {{ care.verb === 'Shake' ? 'Shaken' : 'Stirred' }},
      <span class="mono">{{ formatMoment(shaken.endedAt!) }}</span></span
    >
    <span v-else>{{ care.verb }} {{ care.until }}</span>
    <Button
      text
      size="small"
      :label="`${care.verb} ${formatDuration(body.shakeS)}`"
      data-test-id="start-shaking"
      @click="
        startTimer(
          {
            kind: 'shake',
            label: containers.find(({ id }) => id === values.containerId)?.body.name ?? body.name,
            minimumS: body.shakeS,
          },
          'the shaking timer',
        )
      "
    />
  </p>
  <CoatVerdict v-if="newest" :coat="coat" />

  <form class="weigh" novalidate @submit.prevent="keep">
    <h3>Weigh the container</h3>
    <FormNote />
    <div class="form-grid">
      <ChoiceField
        name="containerId"
        class="wide"
        label="Container"
        :options="containers.map(({ id, body: can }) => ({ value: id, label: can.name }))"
        :fault="faults['containerId'] && 'Choose the container weighed.'"
        test-id="container"
      />
      <EnteredField name="before" label="Before" :units="MASS_UNITS" test-id="before" />
      <EnteredField name="after" label="After" :units="MASS_UNITS" test-id="after" />
      <template v-if="shop.devices.scale">
        <ScaleButton
          :ask="ask('container', 'before')"
          test-id="scale-before"
          @read="fromScale('before', $event)"
          @failed="scaleSays = $event"
        />
        <ScaleButton
          :ask="ask('container', 'after')"
          test-id="scale-after"
          @read="fromScale('after', $event)"
          @failed="scaleSays = $event"
        />
        <p v-if="scaleSays" class="wide fault" role="alert" data-test-id="scale-says">{{ scaleSays }}</p>
      </template>
      <NumberField name="pieces" label="Pieces coated" test-id="weigh-pieces" />
      <ChoiceField
        v-model="application"
        label="Laid on with"
        :options="APPLICATIONS.map((value) => ({ value, label: value }))"
        test-id="application"
      />
      <NumberField v-if="care.sprays" name="strokes" optional label="Strokes laid, if counted" test-id="strokes" />
      <ChoiceField
        v-if="trays.length"
        name="tray"
        label="Tray"
        :options="trays.map((value) => ({ value, label: `tray ${value}` }))"
        test-id="weigh-tray"
      />
      <template v-if="roomNoted">
        <NumberField name="roomC" label="Room" unit="°C" optional test-id="room-c" />
        <NumberField name="roomHumidity" label="Humidity" unit="%" optional test-id="room-humidity" />
      </template>
      <template v-if="partsWeighed && values.partsBefore && values.partsAfter">
        <EnteredField name="partsBefore" label="Parts bare" :units="MASS_UNITS" test-id="parts-before" />
        <EnteredField name="partsAfter" label="Parts coated, dry" :units="MASS_UNITS" test-id="parts-after" />
        <template v-if="shop.devices.scale">
          <ScaleButton
            :ask="ask('parts', 'before')"
            test-id="scale-parts-before"
            @read="fromScale('partsBefore', $event)"
            @failed="scaleSays = $event"
          />
          <ScaleButton
            :ask="ask('parts', 'after')"
            test-id="scale-parts-after"
            @read="fromScale('partsAfter', $event)"
            @failed="scaleSays = $event"
          />
        </template>
      </template>
    </div>
    <div class="pair">
      <Button type="submit" label="Keep the weighing" :outlined="!drying.length" data-test-id="keep-weighing" />
      <Button
        type="button"
        text
        :label="partsWeighed ? 'Without the parts' : 'Parts weighed too'"
        data-test-id="weigh-parts"
        @click="weighParts(!partsWeighed)"
      />
      <Button
        v-if="!roomNoted"
        type="button"
        text
        label="Note the room"
        data-test-id="note-room"
        @click="roomNoted = true"
      />
    </div>
    <p class="quiet small">
      {{
        transfer.weighings
          ? `${formatNumber(transfer.value * 100)} % of the solids reach the part by ${application}, learnt from ${transfer.weighings} weighings.`
          : `${formatNumber(transfer.value * 100)} % reaching the part is usual for ${application === 'automatic' ? 'an automatic' : application === 'aerosol' ? 'an aerosol' : `a ${application}`}; weigh parts twice and Unto learns yours.`
      }}
    </p>
  </form>
</template>

<style scoped>
.step {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.6rem;
  min-height: 44px;
  border-bottom: 1px solid var(--unto-rule);
}

.pair {
  display: flex;
  gap: 0.5rem;
  flex-wrap: wrap;
  margin-top: 0.4rem;
}
</style>
