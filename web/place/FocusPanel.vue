<script setup lang="ts">
import type { DotReading } from '@unto/core';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import FigureTile from '../evidence/FigureTile.vue';
import TileStrip from '../ui/TileStrip.vue';
import FocusSet from './FocusSet.vue';
import NumberRows from './NumberRows.vue';
import { emptyRow, wholeRows, type NumberColumn, type NumberRow } from './rows';
import { newestReading, usePlaceEntry } from './usePlaceEntry';

/** Dot hunt: widths of dots at some heights on a scrap, and where between them the waist lies. */
const COLUMNS: readonly NumberColumn[] = [
  { key: 'heightMm', label: 'Height', unit: 'mm' },
  { key: 'widthMm', label: 'Dot width', unit: 'mm' },
];
const before = newestReading('focus');
const rows = ref<NumberRow[]>(
  before ? before.dots.map((dot) => ({ ...dot })) : Array.from({ length: 5 }, () => emptyRow(COLUMNS)),
);
const entries = computed(() => {
  const whole = wholeRows(COLUMNS, rows.value) as unknown as DotReading[];
  return { dots: whole, growth: 0.05 };
});
const { result, fault, keep, busy } = usePlaceEntry('focus', entries);
const drawn = computed(() => (result.value ? entries.value.dots : []));
defineExpose({ drawn });
</script>

<template>
  <FocusSet />
  <h3>Dot hunt</h3>
  <p class="quiet small">
    Fire single dots on a scrap of the same thickness, a step of height apart, on both sides of the narrowest. Read each
    width with a glass. Firing to find focus is a firing: enclosure shut, eyewear on.
  </p>
  <NumberRows v-model="rows" :columns="COLUMNS" name="dot" test-id="dot" />
  <TileStrip v-if="result">
    <FigureTile label="best height" :figure="result.height" test-id="focus-height" />
    <FigureTile label="spot" :figure="result.spot" test-id="focus-spot" />
    <FigureTile label="depth of focus, ±" :figure="result.depth" test-id="focus-depth" />
  </TileStrip>
  <p v-if="result && !result.bracketed" class="fault" role="alert">
    The best height lies outside the dots: hunt farther that way before you trust it.
  </p>
  <p v-if="!result" class="quiet small" data-test-id="focus-fault">{{ fault }}</p>
  <div class="panel-foot">
    <Button
      label="Keep this focus"
      :disabled="!result"
      :loading="busy"
      data-test-id="keep-focus"
      @click="keep('taken')"
    />
  </div>
</template>
