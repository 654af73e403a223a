<script setup lang="ts">
import { AMOUNTS, isVitreous, LAMP_TESTS, SHOWING, type VisualInspection } from '@unto/core';
import { COAT_ENTRIES, type CoatEntriesOf, type CoatReadingKind } from '@unto/contract';
import { workOutCoatReading } from '@unto/domain';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { useAct } from '../stores/useAct';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import { choicesOf } from '../ui/choices';
import GradeMark from '../evidence/GradeMark.vue';
import NumberField from '../ui/NumberField.vue';
import { orFault } from '../ui/or-fault';
import CoatVerdict from './CoatVerdict.vue';
import type { Coat } from './useCoat';
import { useUnits } from '../ui/useUnits';

/** A comb set on the wet film, and what the eye sees: each is worth a thickness with its interval. */
const props = defineProps<{ coat: Coat }>();
const units = useUnits();
const { body, newest, plan } = props.coat;
const ticket = useTicket();
const { act, busy } = useAct();
const comb = ref<CoatEntriesOf['comb']>({ wettedUm: Number.NaN, dryToothUm: Number.NaN });
const glass = computed(() => ticket.substrate !== null && isVitreous(ticket.substrate.body.family));
const looks = ref<VisualInspection>({
  showing: 'none',
  runs: 'none',
  lumps: 'none',
  lamp: glass.value ? 'no light' : null,
});
const typed = computed(() => !Number.isNaN(comb.value.wettedUm) && !Number.isNaN(comb.value.dryToothUm));
const read = computed(() =>
  orFault(() => {
    COAT_ENTRIES.comb.validateSync(comb.value, { strict: true });
    return workOutCoatReading('comb', comb.value, body.value).film;
  }),
);
const seen = computed(() => workOutCoatReading('inspection', looks.value, body.value).film);

async function keep<K extends CoatReadingKind>(kind: K, entries: CoatEntriesOf[K], label: string): Promise<void> {
  const body = { id: uuid(), kind, weighingId: newest.value?.id ?? null, entries, note: '' };
  await act('createCoatReading', { params: { id: ticket.ticket!.id }, body }, label);
}
</script>

<template>
  <CoatVerdict :coat="coat" />
  <section class="how">
    <h3>Wet-film comb</h3>
    <p class="quiet small">
      Set it upright on the fresh coat: about {{ units.text('film', Math.round(plan.wet.value)) }} wet is wanted.
    </p>
    <div class="form-grid">
      <NumberField v-model="comb.wettedUm" label="Deepest tooth wetted" quantity="film" test-id="comb-wet" />
      <NumberField v-model="comb.dryToothUm" label="Next tooth, still dry" quantity="film" test-id="comb-dry" />
    </div>
    <div class="line">
      <p v-if="!typed" class="quiet small">Two teeth make a reading.</p>
      <p v-else-if="read.fault" class="fault" data-test-id="comb-fault">{{ read.fault }}</p>
      <p v-else-if="read.result" data-test-id="comb-film">
        <span class="mono">{{ units.figures('film', read.result.interval!.low, read.result.interval!.high) }}</span>
        dry
        <GradeMark :figure="read.result" title="Film by the comb" />
      </p>
      <Button
        outlined
        label="Keep the comb"
        :disabled="!read.result"
        :loading="busy"
        data-test-id="keep-comb"
        @click="keep('comb', comb, 'a comb reading')"
      />
    </div>
  </section>
  <section class="how">
    <h3>Looks</h3>
    <div class="form-grid">
      <ChoiceField
        v-model="looks.showing"
        :label="glass ? 'Glass showing' : 'Metal colour showing'"
        :options="choicesOf(SHOWING)"
        test-id="looks-showing"
      />
      <ChoiceField v-model="looks.runs" label="Runs" :options="choicesOf(AMOUNTS)" test-id="looks-runs" />
      <ChoiceField v-model="looks.lumps" label="Lumps" :options="choicesOf(AMOUNTS)" test-id="looks-lumps" />
      <ChoiceField
        v-if="glass"
        v-model="looks.lamp"
        label="A lamp behind it"
        :options="choicesOf(LAMP_TESTS)"
        test-id="looks-lamp"
      />
    </div>
    <div class="line">
      <p>
        <span class="mono">{{ units.figures('film', seen.interval!.low, seen.interval!.high) }}</span> dry
        <GradeMark :figure="seen" title="Film by its looks" />
      </p>
      <Button
        outlined
        label="Keep the looks"
        :loading="busy"
        data-test-id="keep-looks"
        @click="keep('inspection', looks, 'the looks of a coat')"
      />
    </div>
  </section>
</template>

<style scoped>
.how {
  display: flex;
  flex-direction: column;
  gap: 0.4rem;
}

.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.8rem;
}
</style>
