<script setup lang="ts">
import type { SheetEntries } from '@unto/contract';
import type { SheetResult } from '@unto/domain';

/** The sheet at its proportions with the pieces it gives, those for testing hatched, and the places nothing may lie on. */
defineProps<{ entries: SheetEntries; layout: SheetResult }>();
</script>

<template>
  <svg
    :viewBox="`-2 -2 ${entries.sheetWidthMm + 4} ${entries.sheetHeightMm + 4}`"
    role="img"
    :aria-label="`${layout.places.length} pieces on the sheet`"
    data-test-id="sheet-map"
  >
    <defs>
      <pattern id="test-hatch" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V4" class="hatch" vector-effect="non-scaling-stroke" />
      </pattern>
    </defs>
    <g :transform="`translate(0 ${entries.sheetHeightMm}) scale(1 -1)`">
      <rect
        :width="entries.sheetWidthMm"
        :height="entries.sheetHeightMm"
        class="sheet"
        vector-effect="non-scaling-stroke"
      />
      <g v-for="(place, i) in layout.places" :key="i">
        <title>{{ place.label || `piece ${i + 1}` }}{{ place.test ? ', for testing' : '' }}</title>
        <rect
          :x="place.xMm"
          :y="place.yMm"
          :width="place.widthMm"
          :height="place.heightMm"
          class="piece"
          vector-effect="non-scaling-stroke"
        />
        <rect
          v-if="place.test"
          :x="place.xMm"
          :y="place.yMm"
          :width="place.widthMm"
          :height="place.heightMm"
          fill="url(#test-hatch)"
          data-test-id="test-place"
        />
      </g>
      <rect
        v-for="(box, i) in entries.keepOuts"
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
  flex: 1;
  min-height: 0;
  max-height: 520px;
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

.hatch {
  stroke: var(--unto-coat-line);
  stroke-width: 1.5;
}

.out {
  fill: var(--unto-danger);
  fill-opacity: 0.35;
}
</style>
