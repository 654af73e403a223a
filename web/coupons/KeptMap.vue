<script setup lang="ts">
import type { CouponLayout } from '@unto/core';
import { computed } from 'vue';
import { keptShare, type StagePictures } from './measures';

/** What every cell kept of its contrast through the scrub, in per cent, cell by cell as on the coupon; press one to see it. */
const props = defineProps<{ layout: CouponLayout; entries: StagePictures; selected: number }>();
const emit = defineEmits<{ select: [number] }>();
/** Columns and rows as they follow on the coupon; how far apart they stand does not matter here. */
const boxes = computed(() => {
  const ranks = (values: readonly number[]) => [...new Set(values)].sort((a, b) => a - b);
  const xs = ranks(props.layout.cells.map(({ xMm }) => xMm));
  const ys = ranks(props.layout.cells.map(({ yMm }) => -yMm));
  return {
    columns: xs.length,
    rows: ys.length,
    cells: props.layout.cells.map(({ index, xMm, yMm }) => ({
      index,
      x: xs.indexOf(xMm) * WIDE,
      y: ys.indexOf(-yMm) * HIGH,
      kept: keptShare(props.entries, index),
    })),
  };
});
const WIDE = 50;
const HIGH = 15;
</script>

<template>
  <svg
    :viewBox="`0 0 ${boxes.columns * WIDE} ${boxes.rows * HIGH}`"
    role="img"
    aria-label="Share of the contrast that every cell kept"
    data-test-id="kept-map"
  >
    <g v-for="box in boxes.cells" :key="box.index" @click="emit('select', box.index)">
      <rect
        :x="box.x + 0.5"
        :y="box.y + 0.5"
        :width="WIDE - 1"
        :height="HIGH - 1"
        class="kept"
        :class="{ here: box.index === selected }"
        :fill-opacity="box.kept === null ? 0 : Math.min(1, box.kept)"
      />
      <text :x="box.x + WIDE / 2" :y="box.y + HIGH / 2 + 0.5" :class="{ light: (box.kept ?? 0) > 0.55 }">
        {{ box.kept === null ? '–' : Math.round(100 * box.kept) }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  flex: none;
  width: 100%;
  max-height: 150px;
}

.kept {
  fill: var(--unto-bonded);
  stroke: var(--unto-rule);
  stroke-width: 0.5;
  cursor: pointer;
}

.kept.here {
  stroke: var(--unto-action);
  stroke-width: 2;
}

text {
  font-size: 11px;
  text-anchor: middle;
  dominant-baseline: central;
  font-family: var(--unto-mono, 'JetBrains Mono', monospace);
  fill: var(--unto-ink);
  pointer-events: none;
}

.light {
  fill: #fffdf8;
}
</style>
