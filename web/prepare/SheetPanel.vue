<script setup lang="ts">
import { sheetDxf, sheetSvg } from '@unto/core';
import Button from 'primevue/button';
import { computed } from 'vue';
import NumberRows from '../place/NumberRows.vue';
import { useTicket } from '../stores/ticket';
import NumberField from '../ui/NumberField.vue';
import { saveFile } from '../ui/save-file';
import { KEEP_OUT_COLUMNS, useSheet } from './useSheet';

/** What a measured sheet really gives, laid out for cutting or as a jig, and taken out as SVG or DXF. */
const props = defineProps<{ wanted: number }>();
const { entries, job, layout, fault } = useSheet();
defineExpose({ job, layout });
const name = computed(() => `sheet-${useTicket().ticket!.number}`);
const enough = computed(() => (layout.value ? Math.ceil(props.wanted / layout.value.places.length) : 0));

function take(kind: 'svg' | 'dxf'): void {
  if (!layout.value) return;
  if (kind === 'svg') saveFile(`${name.value}.svg`, 'image/svg+xml', sheetSvg(job.value, layout.value));
  else saveFile(`${name.value}.dxf`, 'image/vnd.dxf', sheetDxf(job.value, layout.value));
}
</script>

<template>
  <div class="form-grid">
    <NumberField v-model="entries.sheetWidthMm" label="Sheet, measured width" unit="mm" test-id="sheet-width" />
    <NumberField v-model="entries.sheetHeightMm" label="Sheet, measured height" unit="mm" test-id="sheet-height" />
    <NumberField v-model="entries.pieceWidthMm" label="Piece width" unit="mm" test-id="piece-width" />
    <NumberField v-model="entries.pieceHeightMm" label="Piece height" unit="mm" test-id="piece-height" />
    <NumberField v-model="entries.gapMm" label="Between pieces" unit="mm" test-id="sheet-gap" />
    <NumberField v-model="entries.marginMm" label="Margin round the sheet" unit="mm" test-id="sheet-margin" />
  </div>
  <h3>Places nothing may lie on</h3>
  <NumberRows v-model="entries.keepOuts" :columns="KEEP_OUT_COLUMNS" name="keep-out" test-id="keep-out" />
  <div class="panel-foot">
    <p v-if="layout" data-test-id="sheet-gives">
      <strong>{{ layout.places.length }} pieces</strong>{{ layout.turned ? ', turned a quarter' : '' }}:
      {{ layout.columns }} × {{ layout.rows
      }}<template v-if="layout.lost">, {{ layout.lost }} lost to keep-outs</template>;
      {{ Math.round(100 * layout.used) }} % of the sheet. {{ wanted }} with spares take {{ enough }} sheet{{
        enough === 1 ? '' : 's'
      }}.
    </p>
    <p v-else class="quiet small" data-test-id="sheet-fault">{{ fault }}</p>
    <div class="files">
      <Button outlined label="SVG, true scale" :disabled="!layout" data-test-id="sheet-svg" @click="take('svg')" />
      <Button outlined label="DXF" :disabled="!layout" data-test-id="sheet-dxf" @click="take('dxf')" />
    </div>
  </div>
</template>

<style scoped>
.files {
  display: flex;
  gap: 0.6rem;
}
</style>
