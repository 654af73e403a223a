<script setup lang="ts">
import { fitCircle, type PlanePoint } from '@unto/core';
import { computed } from 'vue';

/** Rim points and the circle through them, centre marked. */
const props = defineProps<{ points: readonly PlanePoint[] }>();
const fit = computed(() => fitCircle(props.points));
const box = computed(() => {
  const { centre, radiusMm } = fit.value;
  const half = 1.25 * radiusMm;
  return { x: centre.xMm - half, y: centre.yMm - half, side: 2 * half };
});
</script>

<template>
  <svg
    :viewBox="`0 0 ${box.side} ${box.side}`"
    role="img"
    aria-label="Rim points with the circle through them"
    data-test-id="rim-plot"
  >
    <g :transform="`translate(${-box.x} ${box.y + box.side}) scale(1 -1)`" :stroke-width="box.side / 300">
      <circle :cx="fit.centre.xMm" :cy="fit.centre.yMm" :r="fit.radiusMm" class="circle" />
      <path
        :d="`M${fit.centre.xMm - box.side / 30} ${fit.centre.yMm}h${box.side / 15}M${fit.centre.xMm} ${fit.centre.yMm - box.side / 30}v${box.side / 15}`"
        class="centre"
      />
      <circle
        v-for="(point, i) in points"
        :key="i"
        :cx="point.xMm"
        :cy="point.yMm"
        :r="box.side / 90"
        :class="i === fit.worst.index && points.length > 3 ? 'worst' : 'point'"
      />
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: min(100%, 460px);
  margin: 0 auto;
}

.circle {
  fill: var(--unto-metal);
  stroke: var(--unto-ink);
}

.centre {
  fill: none;
  stroke: var(--unto-action);
}

.point {
  fill: var(--unto-ink);
}

.worst {
  fill: var(--unto-danger);
}
</style>
