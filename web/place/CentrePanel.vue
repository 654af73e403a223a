<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import FigureTile from '../evidence/FigureTile.vue';
import TileStrip from '../ui/TileStrip.vue';
import NumberRows from './NumberRows.vue';
import { emptyRow, wholeRows, type NumberColumn, type NumberRow } from './rows';
import { newestReading, usePlaceEntry } from './usePlaceEntry';
import PointerTick from './PointerTick.vue';
import { usePointer } from './usePointer';

/** Centre of a round piece from points touched on its rim. */
const COLUMNS: readonly NumberColumn[] = [
  { key: 'xMm', label: 'x', unit: 'mm' },
  { key: 'yMm', label: 'y', unit: 'mm' },
];
const before = newestReading('centre');
const rows = ref<NumberRow[]>(
  before ? before.points.map((point) => ({ ...point })) : Array.from({ length: 4 }, () => emptyRow(COLUMNS)),
);
const { offset, applied, toBeam } = usePointer(before === null);
const entries = computed(() => ({
  points: wholeRows(COLUMNS, rows.value).map(({ xMm, yMm }) => toBeam(xMm!, yMm!)),
}));
const { result, fault, keep, busy } = usePlaceEntry('centre', entries);
defineExpose({ entries, result });
</script>

<template>
  <p class="quiet small">
    Jog the pointer to the rim, three places or more, spread round; read the machine’s x and y at each.
  </p>
  <NumberRows
    v-model="rows"
    :columns="COLUMNS"
    name="point"
    test-id="rim"
    :marked="result && entries.points.length > 3 ? result.worst : undefined"
  />
  <PointerTick v-model="applied" :offset="offset" />
  <TileStrip v-if="result">
    <FigureTile label="centre x" :figure="result.x" :digits="5" test-id="centre-x" />
    <FigureTile label="centre y" :figure="result.y" :digits="5" test-id="centre-y" />
    <FigureTile label="diameter" :figure="result.diameter" :digits="4" test-id="centre-diameter" />
  </TileStrip>
  <p v-if="result && entries.points.length > 3" class="quiet small">
    Point {{ result.worst + 1 }} lies farthest off the circle: touch it again if that is more than you would accept.
  </p>
  <p v-if="!result" class="quiet small" data-test-id="centre-fault">{{ fault }}</p>
  <div class="panel-foot">
    <Button
      label="Keep this centre"
      :disabled="!result"
      :loading="busy"
      data-test-id="keep-centre"
      @click="keep('taken')"
    />
  </div>
</template>
