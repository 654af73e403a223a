<script setup lang="ts">
import { TEXT_ALIGNS, TEXT_KINDS } from '@unto/core';
import Button from 'primevue/button';
import { computed } from 'vue';
import ChoiceField from '../ui/ChoiceField.vue';
import FileLabel from '../ui/FileLabel.vue';
import NumberField from '../ui/NumberField.vue';
import TextField from '../ui/TextField.vue';
import type { ArtworkState } from './useArtwork';

/** Texts that are another on every piece: from a table, or counted up; each piece to be looked at, and what would go wrong told. */
const props = defineProps<{ state: ArtworkState }>();
const { typed, pieces, shown, preview, textFault, table, tableFault, takeTable, dropTable, addText, dropText } =
  props.state;
const kinds = TEXT_KINDS.map((value) => ({ value, label: value }));
const aligns = TEXT_ALIGNS.map((value) => ({ value, label: value }));
const faults = computed(() => preview.value?.faults ?? []);
/** What may stand in braces. */
const placeholders = computed(() => {
  const columns = typed.value.table.columns.map((column) => `{${column}}`).join(' ');
  return `{n} is the piece’s number, {n:3} in three digits${columns ? `; ${columns} from the table` : ''}.`;
});
const rows = computed(() => typed.value.table.rows.length);
const turnTo = (to: number) => (shown.value = Math.min(pieces, Math.max(1, to)));
const few = (list: readonly number[]) =>
  list.length > 6 ? `${list.slice(0, 6).join(', ')} and ${list.length - 6} more` : list.join(', ');
async function bringTable(file: File): Promise<void> {
  takeTable(await file.text());
}
</script>

<template>
  <section class="texts">
    <h3>Texts that change from piece to piece</h3>
    <div v-for="(field, i) in typed.fields" :key="i" class="text" :data-test-id="`text-${i}`">
      <div class="form-grid">
        <ChoiceField v-model="field.kind" label="Written as" :options="kinds" :test-id="`text-kind-${i}`" />
        <TextField v-model="field.says" label="Says" :test-id="`text-says-${i}`" />
        <NumberField
          v-model="field.heightMm"
          :label="field.kind === 'letters' ? 'Height of a capital' : 'Side'"
          quantity="length"
          :test-id="`text-height-${i}`"
        />
        <NumberField
          v-if="field.kind === 'letters'"
          v-model="field.widthMm"
          optional
          label="Room across"
          quantity="length"
          :test-id="`text-width-${i}`"
        />
        <NumberField v-model="field.xMm" label="From the left" quantity="length" :test-id="`text-x-${i}`" />
        <NumberField v-model="field.yMm" label="From below" quantity="length" :test-id="`text-y-${i}`" />
        <ChoiceField
          v-if="field.kind === 'letters' && field.widthMm"
          v-model="field.align"
          label="Stands"
          :options="aligns"
          :test-id="`text-align-${i}`"
        />
      </div>
      <Button text size="small" label="Take this text away" :data-test-id="`text-drop-${i}`" @click="dropText(i)" />
    </div>
    <p v-if="typed.fields.length" class="quiet small">{{ placeholders }}</p>
    <div class="line">
      <Button outlined label="Add a text" data-test-id="text-add" @click="addText" />
      <FileLabel
        label="Bring a table (CSV)"
        accept=".csv,.tsv,.txt,text/csv,text/plain"
        test-id="table-file"
        @brought="bringTable"
      />
    </div>
    <details>
      <summary>Paste a table</summary>
      <TextField v-model="table" :lines="4" label="One row a piece" test-id="table-text" />
      <Button outlined size="small" label="Take it" data-test-id="table-take" @click="takeTable(table)" />
    </details>
    <p v-if="tableFault" class="fault" role="alert" data-test-id="table-fault">{{ tableFault }}</p>
    <p v-if="rows" class="small" data-test-id="table-rows">
      {{ rows }} rows for {{ pieces }} pieces: {{ typed.table.columns.join(', ') }}.
      <Button text size="small" label="Without it" data-test-id="table-drop" @click="dropTable" />
    </p>
    <template v-if="typed.fields.length">
      <div class="line" data-test-id="piece-turn">
        <Button outlined size="small" label="Piece before" :disabled="shown <= 1" @click="turnTo(shown - 1)" />
        <strong class="mono">{{ shown }} of {{ pieces }}</strong>
        <Button
          outlined
          size="small"
          label="Next piece"
          data-test-id="piece-next"
          :disabled="shown >= pieces"
          @click="turnTo(shown + 1)"
        />
        <span class="quiet">{{ preview?.names[shown - 1] }}</span>
      </div>
      <p v-if="textFault" class="fault" role="alert" data-test-id="text-fault">{{ textFault }}</p>
      <ul v-if="faults.length" class="faults" data-test-id="text-faults">
        <li v-for="one in faults" :key="one.kind + one.words" :class="{ stops: one.stops }">
          <button v-if="one.pieces.length" class="plain" @click="turnTo(one.pieces[0]!)">
            {{ one.words }} {{ one.pieces.length === 1 ? 'Piece' : 'Pieces' }} {{ few(one.pieces) }}
          </button>
          <template v-else>{{ one.words }}</template>
        </li>
      </ul>
      <div class="form-grid">
        <NumberField v-model="typed.numberFrom" label="First number {n}" test-id="number-from" />
        <NumberField v-model="typed.numberStep" label="Counted by" test-id="number-step" />
      </div>
    </template>
  </section>
</template>

<style scoped>
.texts {
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
}

.text {
  padding: 0.5rem 0.7rem;
  border: 1px solid var(--unto-rule);
}

.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.7rem;
}

.faults {
  margin: 0;
  padding-left: 1.2rem;
}

.stops {
  color: var(--unto-danger);
}

.plain {
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  text-decoration: underline dotted;
  cursor: pointer;
}
</style>
