<script setup lang="ts">
import type { SheetJob, SheetLayout } from '@unto/core';

/** The sheet at its proportions with the pieces it gives and the places nothing may lie on. */
defineProps<{ job: SheetJob; layout: SheetLayout }>();
</script>

<template>
  <svg
    :viewBox="`-2 -2 ${job.sheet.widthMm + 4} ${job.sheet.heightMm + 4}`"
    role="img"
    :aria-label="`${layout.places.length} pieces on the sheet`"
    data-test-id="sheet-map"
  >
    <g :transform="`translate(0 ${job.sheet.heightMm}) scale(1 -1)`">
      <rect :width="job.sheet.widthMm" :height="job.sheet.heightMm" class="sheet" vector-effect="non-scaling-stroke" />
      <rect
        v-for="(place, i) in layout.places"
        :key="i"
        :x="place.xMm"
        :y="place.yMm"
        :width="place.widthMm"
        :height="place.heightMm"
        class="piece"
        vector-effect="non-scaling-stroke"
      />
      <rect
        v-for="(box, i) in job.keepOuts"
        :key="`out-${i}`"
        :x="box.xMm"
        :y="box.yMm"
        :width="box.widthMm"
        :height="box.heightMm"
        class="out"
      />
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-height: 420px;
}

.sheet {
  fill: var(--unto-metal);
  stroke: var(--unto-ink);
  stroke-width: 1.5;
}

.piece {
  fill: var(--unto-surface);
  stroke: var(--unto-ink);
  stroke-width: 1;
}

.out {
  fill: var(--unto-danger);
  fill-opacity: 0.35;
}
</style>
