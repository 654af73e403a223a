<script setup lang="ts">
import { STAGES } from '@unto/core';
import type { Coupon } from '@unto/contract';
import { couponEquipment, newestOutcomes, type FittedEquipment } from '@unto/domain';
import Button from 'primevue/button';
import Menu from 'primevue/menu';
import { computed, useTemplateRef } from 'vue';
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

const menu = useTemplateRef<InstanceType<typeof Menu>>('menu');
const items = computed(() => [
  {
    label: 'Working sheet',
    what: 'PDF, to write on',
    key: 'working-sheet',
    url: `/api/coupons/${props.coupon.id}/sheet.pdf`,
  },
  { label: 'Drawing', what: 'SVG', key: 'export-svg', command: () => exportAs('svg') },
  { label: 'Drawing', what: 'DXF', key: 'export-dxf', command: () => exportAs('dxf') },
  ...(props.fitted.machine.motion === 'gantry'
    ? [{ label: 'Program', what: 'G-code', key: 'export-gcode', command: () => exportAs('gcode') }]
    : []),
  { label: 'Cells', what: 'CSV', key: 'export-csv', command: () => exportAs('csv') },
]);

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
    <Button
      text
      size="small"
      label="Take it along"
      aria-haspopup="true"
      data-test-id="take-along"
      @click="menu?.toggle($event)"
    />
    <Menu ref="menu" :model="items" popup>
      <template #item="{ item, props: link }">
        <a v-bind="link.action" :data-test-id="item.key" :href="item.url"
          >{{ item.label }} <span class="quiet small">{{ item.what }}</span></a
        >
      </template>
    </Menu>
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
</style>
