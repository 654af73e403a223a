<script setup lang="ts">
import type { FaultSpot } from '@unto/core';
import type { ArtworkDrawing } from '@unto/contract';
import { computed } from 'vue';
import MarkDrawing from './MarkDrawing.vue';

/** Where it lies on the mark: press it; press a place again to take it away. */
const spots = defineModel<FaultSpot[]>({ required: true });
const props = defineProps<{
  widthMm: number;
  heightMm: number;
  words: string;
  /** What was to be marked, where that is known. */
  drawing: ArtworkDrawing | null;
}>();
const NEAR = 0.08;
const most = computed(() => Math.max(props.widthMm, props.heightMm));
/** A flat mark is drawn high enough to be pressed. */
const box = computed(() => ({ width: props.widthMm, height: Math.max(props.heightMm, props.widthMm / 9) }));
const size = computed(() => Math.min(box.value.width, box.value.height) / 14);
/** The mark stands a little within what may be pressed. */
const inner = computed(() => ({
  ...{
    x: size.value,
    y: size.value,
    width: box.value.width - 2 * size.value,
    height: box.value.height - 2 * size.value,
  },
}));
const at = ({ x, y }: FaultSpot) => ({ x: x * box.value.width, y: y * box.value.height });

function press(event: MouseEvent): void {
  const area = (event.currentTarget as SVGElement).getBoundingClientRect();
  const share = (from: number, size: number) => Math.min(1, Math.max(0, from / size));
  const spot = {
    x: Number(share(event.clientX - area.left, area.width).toFixed(3)),
    y: Number(share(event.clientY - area.top, area.height).toFixed(3)),
  };
  const hit = spots.value.findIndex((one) => Math.hypot(one.x - spot.x, one.y - spot.y) < NEAR);
  spots.value = hit >= 0 ? spots.value.filter((_, i) => i !== hit) : [...spots.value, spot];
}
</script>

<template>
  <section>
    <div class="lead">
      <h2>Where it lies</h2>
      <span class="quiet small">{{ words }}</span>
    </div>
    <svg
      class="place"
      :viewBox="`0 0 ${box.width} ${box.height}`"
      role="img"
      :aria-label="`The mark, ${spots.length} places pressed`"
      :style="{ maxHeight: heightMm * 3 > most ? '190px' : '120px' }"
      data-test-id="fault-place"
      @click="press"
    >
      <rect class="blank" x="0" y="0" :width="box.width" :height="box.height" :rx="most / 120" />
      <MarkDrawing :drawing="drawing" v-bind="inner" />
      <g v-for="(spot, i) in spots" :key="i">
        <circle class="spot" :cx="at(spot).x" :cy="at(spot).y" :r="size * 1.9" />
        <circle class="dot" :cx="at(spot).x" :cy="at(spot).y" :r="size * 0.5" />
      </g>
    </svg>
  </section>
</template>

<style scoped>
.lead {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 0.2rem 1rem;
}

.place {
  display: block;
  width: 100%;
  cursor: crosshair;
  color: #4c545a;
}

.blank {
  fill: var(--unto-metal);
  stroke: var(--unto-metal-line);
  vector-effect: non-scaling-stroke;
}

.spot {
  fill: none;
  stroke: var(--unto-danger);
  stroke-width: 3px;
  stroke-dasharray: 5 3;
  vector-effect: non-scaling-stroke;
}

.dot {
  fill: var(--unto-danger);
}
</style>
