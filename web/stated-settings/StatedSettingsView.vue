<script setup lang="ts">
import {
  INTERVAL_UNITS,
  PLAIN_SETTING,
  POWER_UNITS,
  restWords,
  SPEED_UNITS,
  SUBSTRATE_FAMILIES,
  WAVELENGTH_CLASSES,
  WAVELENGTH_WORDS,
} from '@unto/core';
import { createStatedSetting, type CreateStatedSetting, type StatedSetting } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { useQuery } from '@pinia/colada';
import { computed, ref, watch } from 'vue';
import { RouterLink } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import SettingRestFields from '../setting/SettingRestFields.vue';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import ChoiceField from '../ui/ChoiceField.vue';
import FormNote from '../ui/FormNote.vue';
import { choicesOf } from '../ui/choices';
import EnteredField from '../ui/EnteredField.vue';
import { formatFigure, withUnit } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import DataList from '../ui/DataList.vue';
import type { ListColumn } from '../ui/list-column';
import NumberField from '../ui/NumberField.vue';
import PageHead from '../ui/PageHead.vue';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';
import { useUnits } from '../ui/useUnits';
import { pastWords } from './past-words';
import TickField from '../ui/TickField.vue';

/** Settings that somebody stated, in the units they came in, and what can be said of them. */
const shop = useShop();
const outbox = useOutbox();
const units = useUnits();
const notices = useNotices();
const { data } = useQuery({ key: KEYS.statedSettings(), query: () => api.all('listStatedSettings', {}) });
const settings = computed(() => data.value ?? []);
const adding = ref(false);
const parts = ref({ power: true, speed: true, interval: true });

const form = useForm<CreateStatedSetting>(
  createStatedSetting,
  () => ({
    id: uuid(),
    title: '',
    family: 'stainless',
    wavelengthClass: 'co2',
    compound: '',
    ratedW: null,
    topSpeedMmPerS: null,
    power: { value: Number.NaN, unit: '%' },
    speed: { value: Number.NaN, unit: 'mm/s' },
    interval: { value: Number.NaN, unit: 'mm' },
    ...PLAIN_SETTING,
    source: '',
    note: '',
    past: null,
  }),
  { draft: 'stated-setting' },
);
const { values, busy } = form;
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
    const answer = await outbox.send('createStatedSetting', { body: entry }, `stated setting “${entry.title}”`);
    adding.value = false;
    form.reset();
    parts.value = { power: true, speed: true, interval: true };
    notices.say(answer ? 'Kept as stated: a start for a coupon, never proof.' : 'The stated setting waits to be sent.');
    return answer;
  });
}
const families = choicesOf(SUBSTRATE_FAMILIES);
const beams = WAVELENGTH_CLASSES.map((value) => ({ value, label: WAVELENGTH_WORDS[value] }));
const entered = (quantity: { value: number; unit: string } | null) =>
  quantity ? withUnit(quantity.value, quantity.unit) : '–';
const FIGURES = [
  { key: 'powerW', name: 'watts', unit: 'W', quantity: null },
  { key: 'speedMmPerS', name: 'speed', unit: 'mm/s', quantity: 'speed' },
  { key: 'intervalMm', name: 'interval', unit: 'mm', quantity: 'interval' },
  { key: 'doseJPerMm2', name: 'dose', unit: 'J/mm²', quantity: null },
] as const;
const known = (row: StatedSetting) =>
  FIGURES.flatMap(({ key, unit, quantity }) =>
    row[key] === null ? [] : [quantity ? units.figure(quantity, row[key]!) : `${formatFigure(row[key]!)} ${unit}`],
  );
const unknown = (row: StatedSetting) =>
  FIGURES.filter(({ key }) => row[key] === null)
    .map(({ name }) => name)
    .join(', ');
const COLUMNS: readonly ListColumn<StatedSetting>[] = [
  { key: 'title', label: 'What it marks', value: ({ title }) => title },
  { key: 'compound', label: 'Compound', value: ({ compound }) => compound || '–' },
  { key: 'beam', label: 'Beam', value: ({ wavelengthClass }) => WAVELENGTH_WORDS[wavelengthClass] },
  { key: 'power', label: 'Power', numeric: true, value: ({ power }) => entered(power) },
  { key: 'speed', label: 'Speed', numeric: true, value: ({ speed }) => entered(speed) },
  { key: 'interval', label: 'Interval', numeric: true, value: ({ interval }) => entered(interval) },
  { key: 'rest', label: 'Besides', value: (row) => restWords(row, units.reading.value).join(', ') },
  { key: 'makes', label: 'Which makes', value: (row) => known(row).join(', ') },
  { key: 'past', label: 'Run', value: ({ past }) => pastWords(past) },
  { key: 'source', label: 'Who says so', value: ({ source }) => source },
];
</script>

<template>
  <PageHead title="Practice" about="What others say works: a start for a coupon, never proof">
    <RouterLink to="/practice/bring" data-test-id="bring-old">Bring old records</RouterLink>
    <Button v-if="!adding" label="Note a stated setting" data-test-id="add-stated" @click="adding = true" />
  </PageHead>
  <div class="body">
    <form v-if="adding" class="grid" novalidate @submit.prevent="keep">
      <FormNote />
      <TextField name="title" class="two" label="What it marks" test-id="stated-title" />
      <ChoiceField name="family" label="Material" :options="families" test-id="stated-family" />
      <ChoiceField name="wavelengthClass" label="Beam" :options="beams" test-id="stated-beam" />
      <TextField
        name="compound"
        label="Compound"
        hint="By its name, or its kind; empty for none"
        test-id="stated-compound"
      />
      <NumberField
        name="ratedW"
        optional
        label="Rated power of that head"
        unit="W"
        hint="Leave empty when nobody knows"
        test-id="stated-rated"
      />
      <NumberField
        name="topSpeedMmPerS"
        optional
        label="Top speed of that head"
        quantity="speed"
        hint="Needed to read a speed in %"
        test-id="stated-top"
      />
      <EnteredField v-if="values.power" name="power" label="Power" :units="POWER_UNITS" test-id="stated-power" />
      <EnteredField v-if="values.speed" name="speed" label="Speed" :units="SPEED_UNITS" test-id="stated-speed" />
      <EnteredField
        v-if="values.interval"
        name="interval"
        label="Line interval"
        :units="INTERVAL_UNITS"
        test-id="stated-interval"
      />
      <SettingRestFields :pulsed="{ frequency: true, pulse: true }" fired unsure />
      <p class="wide ticks">
        Stated were:
        <TickField
          v-for="name in ['power', 'speed', 'interval'] as const"
          :key="name"
          v-model="parts[name]"
          :test-id="`stated-has-${name}`"
          >{{ name }}</TickField
        >
      </p>
      <TextField name="source" class="two" label="Who says so" test-id="stated-source" />
      <TextField name="note" class="two" label="Note" />
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
    <DataList v-else name="stated-settings" :rows="settings" :columns="COLUMNS" row-test-id="stated-row">
      <template #cell-title="{ row }">
        <strong>{{ row.title }}</strong><br /><span class="quiet small">{{ row.family }}</span>
      </template>
      <template #cell-makes="{ row }">
        <span class="so"
          ><span v-for="line in known(row)" :key="line" class="mono">{{ line }}<br /></span
          ><span v-if="unknown(row)" class="quiet small">unknown: {{ unknown(row) }}</span></span
        >
      </template>
      <template #cell-source="{ row }">
        {{ row.source }}<br /><span class="quiet small">{{ row.note }}</span
        ><br v-if="row.note" /><GradeMark grade="stated" />
      </template>
    </DataList>
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
}

.so .mono {
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
