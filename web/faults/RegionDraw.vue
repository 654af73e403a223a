<script setup lang="ts">
import type { ArtworkDrawing } from '@unto/contract';
import { computed, ref } from 'vue';
import MarkDrawing from './MarkDrawing.vue';

/** A part of the mark, drawn by dragging; mm from its lower left corner. */
interface Region {
  xMm: number;
  yMm: number;
  widthMm: number;
  heightMm: number;
}
const region = defineModel<Region>({ required: true });
const props = defineProps<{ widthMm: number; heightMm: number; drawing: ArtworkDrawing | null }>();
const from = ref<{ x: number; y: number } | null>(null);
/** A flat mark is drawn higher than it is, so that a finger finds its edge. */
const stretch = computed(() => Math.max(1, props.widthMm / 7 / props.heightMm));
const shown = computed(() => {
  const { xMm, yMm, widthMm, heightMm } = region.value;
  const finite = [xMm, yMm, widthMm, heightMm].every(Number.isFinite);
  return finite
    ? {
        x: xMm,
        y: (props.heightMm - yMm - heightMm) * stretch.value,
        width: Math.max(0, widthMm),
        height: Math.max(0, heightMm) * stretch.value,
      }
    : null;
});
function at(event: PointerEvent): { x: number; y: number } {
  const box = (event.currentTarget as Element).getBoundingClientRect();
  const share = (value: number, size: number) => Math.min(1, Math.max(0, value / size));
  return {
    x: share(event.clientX - box.left, box.width) * props.widthMm,
    y: (1 - share(event.clientY - box.top, box.height)) * props.heightMm,
  };
}
function begin(event: PointerEvent): void {
  from.value = at(event);
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
}
function move(event: PointerEvent): void {
  if (!from.value) return;
  const to = at(event);
  const round = (value: number) => Number(value.toFixed(1));
  const size = (a: number, b: number) => Math.max(0.5, round(Math.abs(a - b)));
  region.value = {
    xMm: round(Math.min(from.value.x, to.x)),
    yMm: round(Math.min(from.value.y, to.y)),
    widthMm: size(from.value.x, to.x),
    heightMm: size(from.value.y, to.y),
  };
}
</script>

<template>
  <svg
    class="region"
    :viewBox="`0 0 ${widthMm} ${heightMm * stretch}`"
    role="img"
    aria-label="The mark; drag over the part that is made again"
    data-test-id="region-draw"
    @pointerdown="begin"
    @pointermove="move"
    @pointerup="from = null"
    @pointercancel="from = null"
  >
    <rect class="mark" x="0" y="0" :width="widthMm" :height="heightMm * stretch" />
    <MarkDrawing v-if="drawing" :drawing="drawing" :x="0" :y="0" :width="widthMm" :height="heightMm * stretch" />
    <rect v-if="shown" class="part" v-bind="shown" />
  </svg>
</template>

<style scoped>
.region {
  display: block;
  width: 100%;
  max-height: 150px;
  cursor: crosshair;
  touch-action: none;
}

.mark {
  fill: var(--unto-metal);
  stroke: var(--unto-metal-line);
  vector-effect: non-scaling-stroke;
}

.part {
  fill: var(--unto-danger);
  fill-opacity: 0.18;
  stroke: var(--unto-danger);
  stroke-width: 2px;
  stroke-dasharray: 5 3;
  vector-effect: non-scaling-stroke;
}
</style>
