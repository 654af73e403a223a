<script setup lang="ts">
import type { HeightReading } from '@unto/core';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useTicket } from '../stores/ticket';
import FigureTile from '../evidence/FigureTile.vue';
import NumberField from '../ui/NumberField.vue';
import TileStrip from '../ui/TileStrip.vue';
import NumberRows from './NumberRows.vue';
import { wholeRows, type NumberColumn, type NumberRow } from './rows';
import { newestReading, usePlaceEntry } from './usePlaceEntry';
import { useUnits } from '../ui/useUnits';
import TickField from '../ui/TickField.vue';

/** A few heights over the artwork: what is in focus, and what to do about the rest. */
const COLUMNS: readonly NumberColumn[] = [
  { key: 'xMm', label: 'From the left', unit: 'mm' },
  { key: 'yMm', label: 'From below', unit: 'mm' },
  { key: 'heightMm', label: 'Height', unit: 'mm' },
];
const ticket = useTicket();
const units = useUnits();
const { markWidthMm: w, markHeightMm: h } = ticket.ticket!;
const before = newestReading('flatness');
// Corners and middle are what one reads first.
const corners: NumberRow[] = [
  [0, 0],
  [w, 0],
  [w, h],
  [0, h],
  [w / 2, h / 2],
].map(([xMm, yMm]) => ({ xMm: xMm!, yMm: yMm!, heightMm: Number.NaN }));
const rows = ref<NumberRow[]>(before ? before.readings.map((reading) => ({ ...reading })) : corners);
const focusMm = ref<number>(before?.focusMm ?? 0);
const entries = computed(() => ({
  readings: wholeRows(COLUMNS, rows.value) as unknown as HeightReading[],
  focusMm: focusMm.value,
}));
const { depth, result, fault, keep, busy } = usePlaceEntry('flatness', entries);
const split = ref(false);
defineExpose({ entries, result, depth, split });

const advice = computed(() => {
  const found = result.value;
  if (!found) return null;
  const best = units.rounded('length', found.best.value, 0.01);
  const reach = Math.round(100 * found.bestShare);
  switch (found.advice) {
    case 'accept':
      return {
        word: 'Flat enough.',
        text: 'All that is marked lies within the depth of focus.',
        decision: 'taken',
        label: 'Take it as it lies',
      } as const;
    case 'refocus':
      return {
        word: 'Refocus.',
        text: `One height reaches ${reach} %: set the focus to ${best}.`,
        decision: 'refocused',
        label: `Refocused to ${best}`,
      } as const;
    case 'steps':
      return {
        word: 'Clamp it, or mark in steps.',
        text: `One height reaches ${reach} % at most; ${found.steps.length} steps of focus reach all of it.`,
        decision: 'in steps',
        label: `Mark in ${found.steps.length} steps`,
      } as const;
    default:
      return {
        word: 'Not like this.',
        text: `It would take ${found.steps.length} steps of focus: clamp it, lay it anew, or take another.`,
        decision: 'clamped',
        label: 'Clamped, read again',
      } as const;
  }
});
</script>

<template>
  <p class="quiet small">
    Heights at a few places of the artwork, from its lower left corner; up is positive. Depth of focus
    <span class="mono">± {{ units.rounded('length', depth.value, 0.01) }}</span
    >.
  </p>
  <NumberRows v-model="rows" :columns="COLUMNS" name="place" test-id="height" />
  <NumberField v-model="focusMm" label="Focus is set to" quantity="length" test-id="focus-at" />
  <TileStrip v-if="result">
    <FigureTile label="in focus" :figure="result.inFocus" :digits="3" test-id="in-focus" />
    <FigureTile label="one best height" :figure="result.best" test-id="best-focus" />
  </TileStrip>
  <p v-if="!result" class="quiet small" data-test-id="flatness-fault">{{ fault }}</p>
  <div v-if="result && advice" class="panel-foot">
    <p class="advice" :class="result.advice" data-test-id="flatness-advice">
      <strong>{{ advice.word }}</strong> {{ advice.text }}
    </p>
    <ol v-if="result.advice === 'steps'" class="steps" data-test-id="focus-steps">
      <li v-for="(step, i) in result.steps" :key="i">
        <span class="mono">{{ units.rounded('length', step.focusMm, 0.01) }}</span> marks
        {{ Math.round(100 * step.share) }} %
      </li>
    </ol>
    <TickField v-if="result.steps.length > 1" v-model="split" class="small">show the steps on the map</TickField>
    <div class="decide">
      <Button :label="advice.label" :loading="busy" data-test-id="keep-flatness" @click="keep(advice.decision)" />
      <Button
        v-if="result.advice !== 'accept'"
        outlined
        label="Reject this piece"
        data-test-id="reject-piece"
        @click="keep('rejected')"
      />
    </div>
  </div>
</template>

<style scoped>
.advice {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-coat-line);
  background: var(--unto-coat-tint);
}

.advice.accept {
  border-left-color: var(--unto-bonded);
  background: var(--unto-bonded-tint);
}

.advice.clamp {
  border-left-color: var(--unto-danger);
  background: var(--unto-danger-tint);
}

.steps {
  margin: 0;
  padding-left: 1.2rem;
}

.decide {
  display: flex;
  gap: 0.6rem;
}
</style>
