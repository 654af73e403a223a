<script setup lang="ts">
import { FILM_UNITS, INTERVAL_UNITS, LENGTH_UNITS, MASS_UNITS, SHOP_SPEED_UNITS, UNIT_WORDS } from '@unto/core';
import { changeWorkshop, type Workshop } from '@unto/contract';
import { shopUnits } from '@unto/domain';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { ApiProblem } from '../api/client';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { useShop } from '../stores/shop';
import { choicesOf } from '../ui/choices';
import ChoiceField from '../ui/ChoiceField.vue';
import FormNote from '../ui/FormNote.vue';
import NumberField from '../ui/NumberField.vue';
import PageHead from '../ui/PageHead.vue';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';
import { unitsOf } from '../ui/useUnits';
import ElsewherePanel from './ElsewherePanel.vue';
import PeoplePanel from './PeoplePanel.vue';
import TickField from '../ui/TickField.vue';
import RatesPanel from './RatesPanel.vue';

/** What holds for the whole shop: its name and money, the units it reads in, and when a setting counts as safe. */
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const form = useForm<Workshop>(changeWorkshop, () => ({ ...shop.workshop! }), { draft: 'shop' });
const { values, faults, busy } = form;
/** Settings that somebody else kept while these were typed. */
const theirs = ref<Workshop | null>(null);

const UNIT_FIELDS = [
  { name: 'lengthUnit', label: 'Lengths', units: LENGTH_UNITS },
  { name: 'filmUnit', label: 'Coat and film', units: FILM_UNITS },
  { name: 'speedUnit', label: 'Speed', units: SHOP_SPEED_UNITS },
  { name: 'intervalUnit', label: 'Line interval', units: INTERVAL_UNITS },
  { name: 'massUnit', label: 'Mass', units: MASS_UNITS },
] as const;
const zones = choicesOf([...new Set([shop.workshop!.timeZone, 'UTC', ...Intl.supportedValuesOf('timeZone')])]);

/** A setting as it would read with the units chosen here. */
const sample = computed(() => {
  const units = unitsOf(ref({ units: shopUnits(values.value as Workshop), scale: { topSpeedMmPerS: 600 } }));
  return `${units.size(60, 25)} at ${units.text('speed', 120)}, lines ${units.text('interval', 0.06, 3)} apart, ${units.text('film', 10, 3)} of film, ${units.text('mass', 3.2, 3)} sprayed`;
});

/** A share that is kept as a fraction and typed in percent, or money kept in hundredths. */
const times = (key: 'bound' | 'tolerancePower' | 'labourMinorPerMinute', factor: number) =>
  computed({
    get: () => Number((values.value[key] * factor).toPrecision(12)),
    set: (entry: number | null | undefined) =>
      (values.value[key] = Number(((entry ?? Number.NaN) / factor).toPrecision(12))),
  });
const bound = times('bound', 100);
const drift = times('tolerancePower', 100);
const labour = times('labourMinorPerMinute', 0.01);

async function keep(): Promise<void> {
  await form.submit(async (body) => {
    try {
      const answer = await outbox.send('changeWorkshop', { body }, 'the settings of the shop');
      if (answer) {
        values.value.version = answer.version;
        notices.say('Kept. Everything reads by it from now on.');
      }
      theirs.value = null;
      return answer;
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.problem.type !== 'version-conflict') throw error;
      theirs.value = error.problem.current as Workshop;
    }
  });
}

function takeTheirs(): void {
  values.value = { ...theirs.value! };
  theirs.value = null;
}

function putOver(): void {
  values.value.version = theirs.value!.version;
  void keep();
}
</script>

<template>
  <PageHead title="Shop" about="What holds for everything made here" />
  <form class="paper-form" novalidate @submit.prevent="keep">
    <FormNote />
    <div v-if="theirs" class="clash" role="alert">
      <p><strong>Somebody else changed the settings meanwhile.</strong> Yours are still in the form.</p>
      <Button type="button" outlined label="Take theirs" @click="takeTheirs" />
      <Button type="button" label="Put yours over them" @click="putOver" />
    </div>
    <fieldset>
      <legend>Units</legend>
      <ChoiceField
        v-for="field in UNIT_FIELDS"
        :key="field.name"
        :name="field.name"
        :label="field.label"
        :options="choicesOf(field.units as readonly string[])"
        :hint="UNIT_WORDS[values[field.name]]"
        :test-id="`shop-${field.name}`"
      />
      <p class="full">
        <span class="quiet small">A job then reads</span>
        <span class="mono sample" data-test-id="shop-sample">{{ sample }}</span>
      </p>
      <p class="full quiet small">
        Power and speed of a ticket read as its machine’s own panel does. Any field takes a unit typed behind the
        number, “0.5 in”, and stays in it.
      </p>
    </fieldset>
    <fieldset>
      <legend>The workshop</legend>
      <TextField name="name" class="wide" label="Name" test-id="shop-name" />
      <ChoiceField name="timeZone" label="Time zone" :options="zones" test-id="shop-zone" />
      <TextField name="currency" label="Currency" hint="As it stands behind an amount" test-id="shop-currency" />
      <NumberField
        v-model="labour"
        label="Labour"
        must
        :unit="`${values.currency} a minute`"
        :fault="faults['labourMinorPerMinute']"
        test-id="shop-labour"
      />
    </fieldset>
    <fieldset>
      <legend>When a setting counts as safe</legend>
      <NumberField
        v-model="bound"
        label="Holds at worst"
        must
        unit="of 100"
        hint="Marks that must hold, at the ends of the drifts beside"
        :fault="faults['bound']"
        test-id="shop-bound"
      />
      <NumberField
        v-model="drift"
        label="Power may drift by ±"
        must
        unit="%"
        hint="Between days, of the power at the part"
        :fault="faults['tolerancePower']"
        test-id="shop-drift"
      />
      <NumberField
        name="toleranceFocusMm"
        label="Focus may drift by ±"
        quantity="length"
        hint="How exactly the height is set"
        test-id="shop-focus"
      />
      <TickField v-model="values.firstPieceStop" class="wide" test-id="shop-first-piece"
        >A run stops after its first piece until that was rinsed and scrubbed</TickField
      >
    </fieldset>
    <div class="foot"><Button type="submit" label="Keep the settings" :loading="busy" data-test-id="keep-shop" /></div>
  </form>
  <PeoplePanel />
  <RatesPanel />
  <ElsewherePanel />
</template>

<style>
/* Panels below the form, as wide as it. */
.shop-panel {
  max-width: 59rem;
  padding: 0.6rem 1rem 0.9rem;
  margin: 0.6rem 1.5rem;
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
  background: var(--unto-surface);
}

.shop-panel > h2 {
  margin: 0 0 0.3rem;
  font-size: 1rem;
}

@media (max-width: 700px) {
  .shop-panel {
    margin-inline: 0.8rem;
  }
}
</style>

<style scoped>
.paper-form {
  --across: 5;
}

.sample {
  margin-left: 0.6rem;
}

.clash {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  padding: 0.6rem;
  background: var(--unto-coat-tint);
}

@media (max-width: 560px) {
  .sample {
    display: block;
    margin: 0.2rem 0 0;
  }
}
</style>
