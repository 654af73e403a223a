<script setup lang="ts">
import { STAGES } from '@unto/core';
import type { Coupon } from '@unto/contract';
import { couponEquipment, newestOutcomes, type FittedEquipment } from '@unto/domain';
import Button from 'primevue/button';
import FileLabel from '../ui/FileLabel.vue';
import { saveFile } from '../ui/save-file';
import { valueOf, type DesignedCoupon } from '../workers/computations';
import type { useComputations } from '../workers/useComputations';

/** A coupon's files: drawings, program, table of cells, working sheet; and a table brought back. */
const props = defineProps<{
  coupon: Coupon;
  made: DesignedCoupon;
  fitted: FittedEquipment;
  worker: ReturnType<typeof useComputations>;
}>();
const emit = defineEmits<{ table: [File] }>();

async function exportAs(kind: 'svg' | 'dxf' | 'gcode' | 'csv'): Promise<void> {
  const { layout, predictions } = props.made;
  const { core } = props.worker;
  const { code } = props.coupon.design;
  if (kind === 'svg') return saveFile(`${code}.svg`, 'image/svg+xml', valueOf(await core.drawing(layout)));
  if (kind === 'dxf') return saveFile(`${code}.dxf`, 'image/vnd.dxf', valueOf(await core.dxf(layout)));
  if (kind === 'gcode') {
    const bench = couponEquipment(props.fitted);
    const spotMm = Math.sqrt(bench.spotXMm * bench.spotYMm);
    const options = {
      motion: bench.motion,
      fullScaleS: props.fitted.machine.fullScaleS,
      laserOn: 'M3' as const,
      spotMm,
    };
    return saveFile(`${code}.gcode`, 'text/plain', valueOf(await core.program({ layout, options })));
  }
  const found = STAGES.map((stage) => newestOutcomes(props.coupon, stage));
  const outcomes = layout.cells.map(({ index }) => ({
    cell: index,
    rinsed: found[0]!.get(index),
    scrubbed: found[1]!.get(index),
  }));
  saveFile(`${code}.csv`, 'text/csv', valueOf(await core.table({ layout, predictions, outcomes })));
}
</script>

<template>
  <span class="files">
    <a :href="`/api/coupons/${coupon.id}/sheet.pdf`" class="link" data-test-id="working-sheet">Sheet</a>
    <Button size="small" text label="SVG" data-test-id="export-svg" @click="exportAs('svg')" />
    <Button size="small" text label="DXF" data-test-id="export-dxf" @click="exportAs('dxf')" />
    <Button
      v-if="fitted.machine.motion === 'gantry'"
      size="small"
      text
      label="G-code"
      data-test-id="export-gcode"
      @click="exportAs('gcode')"
    />
    <Button size="small" text label="CSV" data-test-id="export-csv" @click="exportAs('csv')" />
    <FileLabel label="Bring a CSV" accept=".csv,text/csv" test-id="import-csv" @brought="emit('table', $event)" />
  </span>
</template>

<style scoped>
.files {
  margin-left: auto;
  display: flex;
  align-items: center;
  font-size: 0.9rem;
}

.link {
  padding: 0.5rem;
  color: var(--unto-action);
  font-weight: 700;
  text-decoration: none;
}
</style>
