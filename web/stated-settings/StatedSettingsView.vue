<script setup lang="ts">
import {
  INTERVAL_UNITS,
  POWER_UNITS,
  SPEED_UNITS,
  SUBSTRATE_FAMILIES,
  WAVELENGTH_CLASSES,
  WAVELENGTH_WORDS,
} from '@unto/core';
import { createStatedSetting, type CreateStatedSetting, type StatedSetting } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { onMounted, ref, watch } from 'vue';
import { request } from '../api/client';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import ChoiceField from '../ui/ChoiceField.vue';
import { choicesOf } from '../ui/choices';
import EnteredField from '../ui/EnteredField.vue';
import { formatFigure, withUnit } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import NumberField from '../ui/NumberField.vue';
import PageHead from '../ui/PageHead.vue';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';

/** Settings that somebody stated, in the units they came in, and what can be said of them. */
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const settings = ref<StatedSetting[]>([]);
const adding = ref(false);
const parts = ref({ power: true, speed: true, interval: true });

async function load(): Promise<void> {
  settings.value = await request<StatedSetting[]>('GET', '/api/stated-settings');
}
onMounted(load);

const form = useForm<CreateStatedSetting>(createStatedSetting, () => ({
  id: uuid(),
  title: '',
  family: 'stainless',
  wavelengthClass: 'co2',
  ratedW: null,
  topSpeedMmPerS: null,
  power: { value: Number.NaN, unit: '%' },
  speed: { value: Number.NaN, unit: 'mm/s' },
  interval: { value: Number.NaN, unit: 'mm' },
  frequencyKHz: null,
  pulseNs: null,
  passes: 1,
  source: '',
  note: '',
}));
const { values, faults, general, busy, touch } = form;
watch(
  parts,
  ({ power, speed, interval }) => {
    values.value.power = power ? (values.value.power ?? { value: Number.NaN, unit: '%' }) : null;
    values.value.speed = speed ? (values.value.speed ?? { value: Number.NaN, unit: 'mm/s' }) : null;
    values.value.interval = interval ? (values.value.interval ?? { value: Number.NaN, unit: 'mm' }) : null;
  },
  { deep: true },
);

async function keep(): Promise<void> {
  await form.submit(async (entry) => {
    await outbox.send('POST', '/api/stated-settings', entry, `stated setting “${entry.title}”`);
    await load();
    adding.value = false;
    form.reset();
    parts.value = { power: true, speed: true, interval: true };
    notices.say('Kept as stated: a start for a coupon, never proof.');
  });
}
const families = choicesOf(SUBSTRATE_FAMILIES);
const beams = WAVELENGTH_CLASSES.map((value) => ({ value, label: WAVELENGTH_WORDS[value] }));
const entered = (quantity: { value: number; unit: string } | null) =>
  quantity ? withUnit(quantity.value, quantity.unit) : '–';
const FIGURES = [
  { key: 'powerW', name: 'watts', unit: 'W' },
  { key: 'speedMmPerS', name: 'speed', unit: 'mm/s' },
  { key: 'intervalMm', name: 'interval', unit: 'mm' },
  { key: 'doseJPerMm2', name: 'dose', unit: 'J/mm²' },
] as const;
const known = (row: StatedSetting) =>
  FIGURES.flatMap(({ key, unit }) => (row[key] === null ? [] : [`${formatFigure(row[key]!)} ${unit}`]));
const unknown = (row: StatedSetting) =>
  FIGURES.filter(({ key }) => row[key] === null)
    .map(({ name }) => name)
    .join(', ');
</script>

<template>
  <PageHead title="Practice" about="What others say works: a start for a coupon, never proof">
    <Button v-if="!adding" label="Note a stated setting" data-test-id="add-stated" @click="adding = true" />
  </PageHead>
  <div class="body">
    <form v-if="adding" class="grid" novalidate @submit.prevent="keep">
      <p v-if="general" class="fault wide" role="alert">{{ general }}</p>
      <TextField
        v-model="values.title"
        class="two"
        label="What it marks"
        :fault="faults['title']"
        test-id="stated-title"
        @left="touch('title')"
      />
      <ChoiceField v-model="values.family" label="Material" :options="families" />
      <ChoiceField v-model="values.wavelengthClass" label="Beam" :options="beams" />
      <NumberField
        v-model="values.ratedW"
        optional
        label="Rated power of that head"
        unit="W"
        hint="Leave empty when nobody knows"
        :fault="faults['ratedW']"
        test-id="stated-rated"
      />
      <NumberField
        v-model="values.topSpeedMmPerS"
        optional
        label="Top speed of that head"
        unit="mm/s"
        hint="Needed to read a speed in %"
        :fault="faults['topSpeedMmPerS']"
        test-id="stated-top"
      />
      <NumberField
        v-model="values.frequencyKHz"
        optional
        label="Frequency"
        unit="kHz"
        :fault="faults['frequencyKHz']"
      />
      <NumberField v-model="values.pulseNs" optional label="Pulse length" unit="ns" :fault="faults['pulseNs']" />
      <EnteredField
        v-if="values.power"
        v-model="values.power"
        label="Power"
        :units="POWER_UNITS"
        :fault="faults['power.value']"
        test-id="stated-power"
        @left="touch('power.value')"
      />
      <EnteredField
        v-if="values.speed"
        v-model="values.speed"
        label="Speed"
        :units="SPEED_UNITS"
        :fault="faults['speed.value']"
        test-id="stated-speed"
        @left="touch('speed.value')"
      />
      <EnteredField
        v-if="values.interval"
        v-model="values.interval"
        label="Line interval"
        :units="INTERVAL_UNITS"
        :fault="faults['interval.value']"
        test-id="stated-interval"
        @left="touch('interval.value')"
      />
      <NumberField v-model="values.passes" label="Passes" :fault="faults['passes']" />
      <p class="wide ticks">
        Stated were:
        <label v-for="name in ['power', 'speed', 'interval'] as const" :key="name"
          ><input v-model="parts[name]" type="checkbox" :data-test-id="`stated-has-${name}`" /> {{ name }}</label
        >
      </p>
      <TextField
        v-model="values.source"
        class="two"
        label="Who says so"
        :fault="faults['source']"
        test-id="stated-source"
        @left="touch('source')"
      />
      <TextField v-model="values.note" class="two" label="Note" :fault="faults['note']" />
      <div class="wide foot">
        <Button type="submit" label="Keep as stated" :loading="busy" data-test-id="keep-stated" /><Button
          type="button"
          outlined
          label="Back"
          @click="adding = false"
        />
      </div>
    </form>
    <p v-if="!settings.length">
      Nothing noted yet. Labels, data sheets and old notes go here in the units they came in.
    </p>
    <table v-else class="plain">
      <thead>
        <tr>
          <th>What it marks</th>
          <th>Beam</th>
          <th class="number">Power</th>
          <th class="number">Speed</th>
          <th class="number">Interval</th>
          <th class="number">Passes</th>
          <th>Which makes</th>
          <th>Who says so</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in settings" :key="row.id" data-test-id="stated-row">
          <td>
            <strong>{{ row.title }}</strong><br /><span class="quiet small">{{ row.family }}</span>
          </td>
          <td>{{ WAVELENGTH_WORDS[row.wavelengthClass] }}</td>
          <td class="number">{{ entered(row.power) }}</td>
          <td class="number">{{ entered(row.speed) }}</td>
          <td class="number">{{ entered(row.interval) }}</td>
          <td class="number">{{ row.passes }}</td>
          <td class="so">
            <span v-for="line in known(row)" :key="line" class="mono">{{ line }}<br /></span
            ><span v-if="unknown(row)" class="quiet small">unknown: {{ unknown(row) }}</span>
          </td>
          <td>
            {{ row.source }}<br /><span class="quiet small">{{ row.note }}</span>
          </td>
          <td><GradeMark grade="stated" /></td>
        </tr>
      </tbody>
    </table>
    <p v-if="shop.ready" class="quiet small">
      A figure that needs something nobody stated (25 % of an unknown top speed) stays unknown rather than guessed.
    </p>
  </div>
</template>

<style scoped>
.body {
  padding: 0.8rem 1.5rem 1.5rem;
  display: flex;
  flex-direction: column;
  gap: 1rem;
  overflow-x: auto;
}

.grid {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 0.6rem 1rem;
  align-items: start;
  padding: 0.9rem 1rem;
  background: var(--unto-surface);
  border: 1px solid var(--unto-rule);
}

.two {
  grid-column: span 2;
}

.wide {
  grid-column: 1 / -1;
}

.ticks {
  display: flex;
  gap: 1rem;
}

.ticks input {
  accent-color: var(--unto-action);
  width: 1.1rem;
  height: 1.1rem;
}

.foot {
  display: flex;
  gap: 0.6rem;
}

.so {
  font-size: 0.85rem;
  white-space: nowrap;
}

@media (max-width: 800px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }

  .two {
    grid-column: auto;
  }
}
</style>
