<script setup lang="ts">
import { sheetDxf, sheetSvg, type DrawnSheet } from '@unto/core';
import Button from 'primevue/button';
import ProgressBar from 'primevue/progressbar';
import { computed } from 'vue';
import NumberRows from '../place/NumberRows.vue';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import NumberField from '../ui/NumberField.vue';
import { saveFile } from '../ui/save-file';
import { KEEP_OUT_COLUMNS, PIECE_COLUMNS, useSheet } from './useSheet';
import { useUnits } from '../ui/useUnits';

/** What a measured sheet really gives, in rows or nested, for cutting or as a jig; kept, printed at true scale, taken out as SVG or DXF. */
const props = defineProps<{ wanted: number }>();
const { typed, entries, mixed, layout, fault, ready, nesting, keep, busy } = useSheet();
const { progress, running } = nesting;
const units = useUnits();
defineExpose({ entries, layout });
const MODES = [
  { value: 'rows', label: 'One size, in rows (sheet or jig)' },
  { value: 'mixed', label: 'Mixed sizes, nested' },
] as const;
const name = computed(() => `sheet-${useTicket().ticket!.number}`);
const good = computed(() => layout.value?.places.filter(({ test }) => !test).length ?? 0);
const tests = computed(() => (layout.value?.places.length ?? 0) - good.value);
const sheets = computed(() => (good.value > 0 ? Math.ceil(props.wanted / good.value) : 0));
const drawn = computed<DrawnSheet | null>(() => {
  const found = layout.value;
  if (!found) return null;
  const { sheetWidthMm, sheetHeightMm, keepOuts } = entries.value;
  const sheet = { widthMm: sheetWidthMm, heightMm: sheetHeightMm };
  return { sheet, keepOuts, places: found.places, isTest: (i) => found.places[i]!.test };
});
/** What was measured against what the label says. */
const short = computed(() => {
  const { labelWidthMm, labelHeightMm, sheetWidthMm, sheetHeightMm } = entries.value;
  if (!labelWidthMm || !labelHeightMm || !layout.value) return '';
  const off = (measured: number, label: number) =>
    `${units.rounded('length', Math.abs(measured - label), 0.1)} ${measured < label ? 'under' : 'over'}`;
  const sizes = `${off(sheetWidthMm, labelWidthMm)} across, ${off(sheetHeightMm, labelHeightMm)} up`;
  const { promised } = layout.value;
  return promised === null
    ? `Measured ${sizes} its label.`
    : `Measured ${sizes} its label, which promises ${promised} pieces.`;
});
const printed = computed(() => (drawn.value ? sheetSvg(drawn.value) : ''));

function take(kind: 'svg' | 'dxf'): void {
  if (!drawn.value) return;
  if (kind === 'svg') saveFile(`${name.value}.svg`, 'image/svg+xml', sheetSvg(drawn.value));
  else saveFile(`${name.value}.dxf`, 'image/vnd.dxf', sheetDxf(drawn.value));
}
const print = () => window.print();
</script>

<template>
  <div class="form-grid">
    <ChoiceField v-model="typed.mode" class="wide" label="Layout" :options="MODES" test-id="sheet-mode" />
    <NumberField v-model="typed.sheetWidthMm" label="Sheet, measured width" quantity="length" test-id="sheet-width" />
    <NumberField
      v-model="typed.sheetHeightMm"
      label="Sheet, measured height"
      quantity="length"
      test-id="sheet-height"
    />
    <NumberField
      v-model="typed.labelWidthMm"
      optional
      label="Width on its label"
      quantity="length"
      test-id="label-width"
    />
    <NumberField
      v-model="typed.labelHeightMm"
      optional
      label="Height on its label"
      quantity="length"
      test-id="label-height"
    />
    <template v-if="!mixed">
      <NumberField v-model="typed.pieceWidthMm" label="Piece width" quantity="length" test-id="piece-width" />
      <NumberField v-model="typed.pieceHeightMm" label="Piece height" quantity="length" test-id="piece-height" />
    </template>
    <NumberField v-model="typed.gapMm" label="Between pieces" quantity="length" test-id="sheet-gap" />
    <NumberField v-model="typed.marginMm" label="Margin round the sheet" quantity="length" test-id="sheet-margin" />
    <NumberField v-if="!mixed" v-model="typed.testPlaces" label="Places for test pieces" test-id="sheet-tests" />
  </div>
  <template v-if="mixed">
    <h3>Sizes</h3>
    <NumberRows v-model="typed.pieces" :columns="PIECE_COLUMNS" name="size" test-id="size" />
  </template>
  <details v-else :open="typed.pitchXMm !== null || typed.firstXMm !== null">
    <summary>Raster of a jig</summary>
    <div class="form-grid">
      <NumberField v-model="typed.pitchXMm" optional label="Pitch across" quantity="length" test-id="pitch-x" />
      <NumberField v-model="typed.pitchYMm" optional label="Pitch up" quantity="length" test-id="pitch-y" />
      <NumberField
        v-model="typed.firstXMm"
        optional
        label="First place from the left"
        quantity="length"
        test-id="first-x"
      />
      <NumberField
        v-model="typed.firstYMm"
        optional
        label="First place from below"
        quantity="length"
        test-id="first-y"
      />
      <NumberField v-model="typed.shiftMm" label="Every second row shifted by" quantity="length" test-id="shift" />
    </div>
  </details>
  <h3>Places nothing may lie on</h3>
  <NumberRows v-model="typed.keepOuts" :columns="KEEP_OUT_COLUMNS" name="keep-out" test-id="keep-out" />
  <div class="panel-foot">
    <p v-if="layout" data-test-id="sheet-gives">
      <strong>{{ layout.places.length }} pieces</strong>: {{ layout.words
      }}<template v-if="layout.lost">, {{ layout.lost }} lost to keep-outs and margin</template
      ><template v-if="tests">, {{ tests }} of them for testing</template
      ><template v-if="mixed">, {{ layout.leftOut ? `${layout.leftOut} find no place` : 'all placed' }}</template
      >; {{ Math.round(100 * layout.used) }} % of the sheet.
      <template v-if="!mixed">{{ wanted }} with spares take {{ sheets }} sheet{{ sheets === 1 ? '' : 's' }}.</template>
    </p>
    <p v-if="short" class="small" data-test-id="sheet-label">{{ short }}</p>
    <p v-if="fault" class="quiet small" data-test-id="sheet-fault">{{ fault }}</p>
    <div v-if="running" class="files">
      <ProgressBar
        class="progress"
        :value="progress ? Math.round((100 * progress.round) / progress.rounds) : 0"
        aria-label="Nesting"
      />
      <Button outlined label="Stop" data-test-id="nest-stop" @click="nesting.stop()" />
    </div>
    <div class="files">
      <Button
        v-if="mixed"
        :outlined="layout !== null"
        label="Nest them"
        :disabled="!ready || running"
        data-test-id="nest"
        @click="nesting.start()"
      />
      <Button label="Keep" :disabled="!layout || running" :loading="busy" data-test-id="keep-sheet" @click="keep" />
      <Button outlined label="SVG" :disabled="!layout" data-test-id="sheet-svg" @click="take('svg')" />
      <Button outlined label="DXF" :disabled="!layout" data-test-id="sheet-dxf" @click="take('dxf')" />
      <Button outlined label="Print" :disabled="!layout" data-test-id="sheet-print" @click="print" />
    </div>
  </div>
  <!-- Made from numbers alone; what a person typed as words is not in it. -->
  <!-- eslint-disable-next-line vue/no-v-html -->
  <Teleport to="body"><div class="true-scale" aria-hidden="true" v-html="printed" /></Teleport>
</template>

<style scoped>
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
}

.progress {
  flex: 1;
}

summary {
  min-height: 44px;
  cursor: pointer;
}
</style>

<style>
.true-scale {
  display: none;
}

@media print {
  body:has(> .true-scale > svg) > :not(.true-scale) {
    display: none !important;
  }

  .true-scale {
    display: block;
  }
}
</style>
