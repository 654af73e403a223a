<script setup lang="ts">
import type { PlaceEntriesOf, PlaceResultOf } from '@unto/contract';
import { computed } from 'vue';
import { withUnit } from '../ui/format';

/** The artwork as it falls on the bed: its outline turned and moved, the points found, the drawing's zero. */
const props = defineProps<{ result: PlaceResultOf['align']; entries: PlaceEntriesOf['align'] }>();
const SIDE = 400;
const points = computed(() => [...props.result.corners, ...props.entries.found]);
const frame = computed(() => {
  const xs = points.value.map(({ xMm }) => xMm);
  const ys = points.value.map(({ yMm }) => yMm);
  const [left, low] = [Math.min(...xs), Math.min(...ys)];
  const span = Math.max(Math.max(...xs) - left, Math.max(...ys) - low, 1);
  const scale = (SIDE - 90) / span;
  return {
    x: (mm: number) => 45 + (mm - left) * scale,
    y: (mm: number) => SIDE - 45 - (mm - low) * scale,
  };
});
const at = ({ xMm, yMm }: { xMm: number; yMm: number }) =>
  `${frame.value.x(xMm).toFixed(1)},${frame.value.y(yMm).toFixed(1)}`;
const zero = computed(() => props.result.corners[0]!);
</script>

<template>
  <svg
    :viewBox="`0 0 ${SIDE} ${SIDE}`"
    role="img"
    :aria-label="`Artwork turned by ${withUnit(Number(result.turn.value.toFixed(2)), '°')}`"
    data-test-id="align-plot"
  >
    <polygon :points="result.corners.map(at).join(' ')" class="art" />
    <line
      :x1="frame.x(entries.found[0]!.xMm)"
      :y1="frame.y(entries.found[0]!.yMm)"
      :x2="frame.x(entries.found[1]!.xMm)"
      :y2="frame.y(entries.found[1]!.yMm)"
      class="base"
    />
    <g v-for="(point, i) in entries.found" :key="i">
      <path :d="`M${frame.x(point.xMm) - 8} ${frame.y(point.yMm)}h16m-8 -8v16`" class="cross" />
      <text :x="frame.x(point.xMm) + 8" :y="frame.y(point.yMm) - 8">{{ i + 1 }}</text>
    </g>
    <circle :cx="frame.x(zero.xMm)" :cy="frame.y(zero.yMm)" r="5" class="zero" />
    <text :x="frame.x(zero.xMm) - 8" :y="frame.y(zero.yMm) + 22" text-anchor="middle">zero</text>
  </svg>
</template>

<style scoped>
svg {
  flex: 1;
  min-height: 0;
  max-height: 520px;
}

.art {
  fill: var(--unto-surface);
  stroke: var(--unto-ink);
  stroke-width: 2;
}

.base {
  stroke: var(--unto-quiet);
  stroke-dasharray: 5 4;
}

.cross {
  stroke: var(--unto-danger);
  stroke-width: 2.5;
}

.zero {
  fill: var(--unto-action);
}

text {
  fill: var(--unto-ink);
  font-size: 15px;
}
</style>
