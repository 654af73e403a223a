<script setup lang="ts">
import { QUANTITIES, SUBSTRATE_FAMILIES, WAVELENGTH_CLASSES, WAVELENGTH_WORDS } from '@unto/core';
import { OLD_FIELD_WORDS, DAY_ORDERS, OLD_FIELDS, OLD_QUANTITIES, type OldField } from '@unto/domain';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { ApiProblem } from '../api/client';
import GradeMark from '../evidence/GradeMark.vue';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { choicesOf } from '../ui/choices';
import ChoiceField from '../ui/ChoiceField.vue';
import FileLabel from '../ui/FileLabel.vue';
import { pastWords } from '../stated-settings/past-words';
import { withUnit } from '../ui/format';
import NumberField from '../ui/NumberField.vue';
import PageHead from '../ui/PageHead.vue';
import TextField from '../ui/TextField.vue';
import { useOldRecords } from './useOldRecords';

/** Old notes in whatever table: columns told apart, units said, and every line brought in as stated, never more. */
const sheet = useOldRecords();
const { text, fault, table, plan, records, good, bad, strange } = sheet;
const outbox = useOutbox();
const notices = useNotices();
const router = useRouter();
const busy = ref(false);
const SHOWN = 12;

/** A column that is none of the fields. */
const REST = 'rest';
const FIELDS = [
  { value: REST, label: 'keep in the note' },
  ...OLD_FIELDS.map((value) => ({ value, label: OLD_FIELD_WORDS[value] })),
] as { value: OldField | typeof REST; label: string }[];
const unitsOf = (field: OldField) => {
  if (field === 'when') return choicesOf(DAY_ORDERS);
  const quantity = OLD_QUANTITIES[field];
  return quantity ? choicesOf(QUANTITIES[quantity].units as readonly string[]) : [];
};
const heading = (i: number) => table.value?.header?.[i] || `Column ${i + 1}`;
const sample = (i: number) =>
  (table.value?.rows ?? [])
    .map(({ cells }) => cells[i] ?? '')
    .filter(Boolean)
    .slice(0, 3)
    .join(' · ');
const families = choicesOf(SUBSTRATE_FAMILIES);
const beams = WAVELENGTH_CLASSES.map((value) => ({ value, label: WAVELENGTH_WORDS[value] }));
const entered = (quantity: { value: number; unit: string } | null) =>
  quantity ? withUnit(quantity.value, quantity.unit) : '–';
/** Faults by what is wrong, with the lines that it is wrong in. */
const faults = computed(() => {
  const lines = new Map<string, number[]>();
  for (const { line, faults: found } of bad.value)
    for (const message of found) lines.set(message, [...(lines.get(message) ?? []), line]);
  return [...lines].map(([message, of]) => ({
    message,
    lines: of.length === 1 ? `Line ${of[0]}` : `Lines ${of.slice(0, 8).join(', ')}${of.length > 8 ? ' …' : ''}`,
  }));
});
const shown = computed(() => records.value.slice(0, SHOWN));

async function keep(): Promise<void> {
  busy.value = true;
  const count = good.value.length;
  try {
    for (const settings of sheet.parts())
      await outbox.send('createStatedSettings', { body: { settings } }, `${settings.length} old records`);
    notices.say(`${count} old records are kept as stated: a start for a coupon, never proof.`);
    await router.push('/practice');
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    notices.say(`${error.problem.detail} What you brought still stands here.`, 'danger');
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <PageHead title="Old records" about="Any table, columns in any order: it comes in as stated, never more" />
  <div class="old">
    <section class="panel">
      <h2>1. Bring it</h2>
      <p class="quiet small">Copy the cells out of a spreadsheet and paste them here, or bring a CSV file.</p>
      <TextField v-model="text" label="Cells" :lines="table ? 3 : 8" test-id="old-text" />
      <FileLabel
        class="file"
        label="Bring a file"
        look="outlined"
        accept=".csv,.tsv,.txt"
        test-id="old-file"
        @brought="sheet.bring"
      />
      <p v-if="fault" class="fault" role="alert" data-test-id="old-fault">{{ fault }}</p>
    </section>
    <template v-if="table">
      <section class="panel">
        <h2>2. What its columns hold</h2>
        <div class="scroll">
          <table class="plain" data-test-id="old-columns">
            <thead>
              <tr>
                <th>Column</th>
                <th>For instance</th>
                <th>Holds</th>
                <th>In</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(column, i) in plan.columns" :key="i">
                <td>
                  <strong>{{ heading(i) }}</strong>
                </td>
                <td class="quiet small">{{ sample(i) }}</td>
                <td>
                  <ChoiceField
                    :model-value="column?.field ?? REST"
                    :label="`What “${heading(i)}” holds`"
                    class="bare"
                    :options="FIELDS"
                    :test-id="`old-column-${i}`"
                    @update:model-value="sheet.take(i, $event === REST ? null : $event!)"
                  />
                </td>
                <td>
                  <ChoiceField
                    v-if="column && unitsOf(column.field).length"
                    :model-value="column.unit"
                    :label="`Unit of “${heading(i)}”`"
                    class="bare"
                    :options="unitsOf(column.field)"
                    :test-id="`old-unit-${i}`"
                    @update:model-value="sheet.readIn(i, $event!)"
                  />
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
      <section class="panel">
        <h2>3. What holds where a cell is empty</h2>
        <div class="grid">
          <ChoiceField v-model="plan.beam" label="Beam" :options="beams" test-id="old-beam" />
          <ChoiceField v-model="plan.family" label="Material" :options="families" test-id="old-family" />
          <TextField v-model="plan.compound" label="Compound" test-id="old-compound" />
          <NumberField v-model="plan.ratedW" label="Rated power of the head" unit="W" optional test-id="old-rated" />
          <NumberField
            v-model="plan.topSpeedMmPerS"
            label="Top speed of the head"
            quantity="speed"
            optional
            hint="Needed to read a speed in %."
            test-id="old-top"
          />
          <TextField v-model="plan.source" label="Who says so" test-id="old-source" />
          <ChoiceField
            v-for="word in strange"
            :key="word"
            :model-value="plan.materials[word]"
            :label="`“${word}” is`"
            :options="families"
            :test-id="`old-word-${word}`"
            @update:model-value="sheet.means(word, $event!)"
          />
        </div>
      </section>
      <section class="panel" data-test-id="old-preview">
        <h2>4. What comes of it <GradeMark grade="stated" /></h2>
        <ul v-if="bad.length" class="faults" role="alert" data-test-id="old-faults">
          <li v-for="{ message, lines } in faults.slice(0, SHOWN)" :key="message">
            <strong>{{ lines }}:</strong> {{ message }}
          </li>
          <li v-if="faults.length > SHOWN" class="quiet">and {{ faults.length - SHOWN }} more.</li>
        </ul>
        <div class="scroll">
          <table class="plain">
            <thead>
              <tr>
                <th>Line</th>
                <th>What it marks</th>
                <th>Material</th>
                <th>Compound</th>
                <th class="number">Power</th>
                <th class="number">Speed</th>
                <th class="number">Interval</th>
                <th>Run</th>
                <th>Note</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="{ line, setting } in shown" :key="line" :class="{ out: !setting }" data-test-id="old-row">
                <td class="mono">{{ line }}</td>
                <template v-if="setting">
                  <td>{{ setting.title }}</td>
                  <td>{{ setting.family }}</td>
                  <td>{{ setting.compound || '–' }}</td>
                  <td class="number">{{ entered(setting.power) }}</td>
                  <td class="number">{{ entered(setting.speed) }}</td>
                  <td class="number">{{ entered(setting.interval) }}</td>
                  <td>{{ pastWords(setting.past) }}</td>
                  <td class="quiet small">{{ setting.note }}</td>
                </template>
                <td v-else colspan="7" class="quiet">left out</td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="records.length > SHOWN" class="quiet small">The first {{ SHOWN }} of {{ records.length }} lines.</p>
      </section>
      <footer class="foot">
        <Button
          :label="`Keep ${good.length} of ${records.length} lines`"
          :disabled="!good.length"
          :loading="busy"
          data-test-id="old-keep"
          @click="keep"
        />
        <span v-if="bad.length" class="quiet"
          >{{ bad.length }} are left out; mend them above, or bring them later.</span
        >
      </footer>
    </template>
  </div>
</template>

<style scoped>
.old {
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  max-width: 76rem;
  padding: 0.8rem 1.5rem 0;
}

.panel {
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
  padding: 0.7rem 1rem 0.9rem;
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
  background: var(--unto-surface);
}

.file {
  align-self: start;
}

.scroll {
  overflow-x: auto;
}

.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 0.6rem 1rem;
  align-items: start;
}

.bare {
  position: relative;
}

.bare :deep(label) {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}

td {
  min-width: 5rem;
}

.out {
  background: var(--unto-coat-tint);
}

.faults {
  padding: 0.5rem 0.8rem 0.5rem 1.6rem;
  margin: 0;
  border-left: 4px solid var(--unto-danger);
  background: var(--unto-danger-tint);
}

.foot {
  position: sticky;
  bottom: 0;
  display: flex;
  gap: 1rem;
  align-items: center;
  padding: 0.6rem 0 0.9rem;
  background: var(--unto-ground);
}
</style>
