<script setup lang="ts">
import type { PlanePoint } from '@unto/core';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useTicket } from '../stores/ticket';
import FigureTile from '../evidence/FigureTile.vue';
import TileStrip from '../ui/TileStrip.vue';
import NumberRows from './NumberRows.vue';
import OutlineFrame from './OutlineFrame.vue';
import PointerFrame from './PointerFrame.vue';
import PointerTick from './PointerTick.vue';
import { wholeRows, type NumberColumn, type NumberRow } from './rows';
import { newestReading, usePlaceEntry } from './usePlaceEntry';
import { usePointer } from './usePointer';
import { useUnits } from '../ui/useUnits';

/** A pre-cut piece laid by two of its marks, the pointer's offset taken off; an outline to lay it into; that offset, measured once. */
const COLUMNS: readonly NumberColumn[] = [
  { key: 'drawnX', label: 'Drawn x', unit: 'mm' },
  { key: 'drawnY', label: 'Drawn y', unit: 'mm' },
  { key: 'foundX', label: 'Found x', unit: 'mm' },
  { key: 'foundY', label: 'Found y', unit: 'mm' },
];
/** A piece this much off its drawing is not the piece that was drawn, mm. */
const OFF_MM = 0.3;
const ticket = useTicket();
const units = useUnits();
const before = newestReading('align');
const { markWidthMm, markHeightMm } = ticket.ticket!;
const { offset, applied, toBeam } = usePointer(true);
const rows = ref<NumberRow[]>(
  [0, 1].map((i) => ({
    drawnX: before?.drawn[i]?.xMm ?? (i ? markWidthMm : 0),
    drawnY: before?.drawn[i]?.yMm ?? (i ? markHeightMm : 0),
    foundX: Number.NaN,
    foundY: Number.NaN,
  })),
);
const entries = computed(() => {
  const whole = wholeRows(COLUMNS, rows.value);
  return {
    drawn: whole.map(({ drawnX, drawnY }): PlanePoint => ({ xMm: drawnX!, yMm: drawnY! })),
    found: whole.map(({ foundX, foundY }) => toBeam(foundX!, foundY!)),
  };
});
const { result, fault, keep, busy } = usePlaceEntry('align', entries);
const wrong = computed(() => result.value !== null && Math.abs(result.value.longer.value) > OFF_MM);
defineExpose({ result, entries });
</script>

<template>
  <h3>Two points of the piece</h3>
  <p class="quiet small">
    Two marks as far apart as the piece allows: where its drawing has them, and where the machine finds them.
  </p>
  <NumberRows v-model="rows" :columns="COLUMNS" name="point" test-id="align" fixed />
  <PointerTick v-model="applied" :offset="offset" />
  <TileStrip v-if="result">
    <FigureTile label="turn the drawing" :figure="result.turn" :digits="4" test-id="align-turn" />
    <FigureTile label="its zero at x" :figure="result.zeroX" :digits="5" test-id="align-x" />
    <FigureTile label="and y" :figure="result.zeroY" :digits="5" test-id="align-y" />
  </TileStrip>
  <p v-if="result" :class="wrong ? 'fault' : 'quiet small'" data-test-id="align-longer">
    The piece is {{ units.rounded('length', Math.abs(result.longer.value), 0.01) }}
    {{ result.longer.value >= 0 ? 'longer' : 'shorter' }} than its drawing{{
      wrong ? ': touch both points again, or it is another piece' : ', half of it left at each end'
    }}.
  </p>
  <p v-else class="quiet small" data-test-id="align-fault">{{ fault }}</p>
  <Button
    label="Keep this alignment"
    :disabled="!result"
    :loading="busy"
    data-test-id="keep-align"
    @click="keep('taken')"
  />
  <OutlineFrame />
  <PointerFrame />
</template>
