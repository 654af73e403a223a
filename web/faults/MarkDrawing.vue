<script setup lang="ts">
import type { ArtworkDrawing } from '@unto/contract';
import ArtworkPaths from '../artwork/ArtworkPaths.vue';

/** A mark in a box of some drawing: as it was laid out, else as the area it takes. */
defineProps<{ drawing: ArtworkDrawing | null; x: number; y: number; width: number; height: number }>();
</script>

<template>
  <svg
    v-if="drawing"
    class="laid"
    :x="x"
    :y="y"
    :width="width"
    :height="height"
    :viewBox="`0 0 ${drawing.widthMm} ${drawing.heightMm}`"
    preserveAspectRatio="none"
    data-test-id="mark-drawing"
  >
    <ArtworkPaths :paths="drawing.paths" />
  </svg>
  <rect v-else class="mark" :x="x" :y="y" :width="width" :height="height" />
</template>

<style scoped>
.laid {
  color: #4c545a;
  --artwork-bare: var(--unto-metal);
}

.mark {
  fill: #4c545a;
  opacity: 0.85;
}
</style>
