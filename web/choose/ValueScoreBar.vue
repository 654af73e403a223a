<script setup lang="ts">
/** A number on the common axis from worst to best: range and dot, dashed range where it is missing, a diamond for the best. */
defineProps<{ valueScore: number; low: number; high: number; known: boolean; best: boolean }>();
const at = (share: number) => 4 + 92 * Math.min(1, Math.max(0, share));
</script>

<template>
  <svg viewBox="0 0 100 16" preserveAspectRatio="none" class="bar" aria-hidden="true">
    <line x1="4" y1="8" x2="96" y2="8" class="axis" vector-effect="non-scaling-stroke" />
    <line
      :x1="at(low)"
      :x2="Math.max(at(high), at(low) + 0.6)"
      y1="8"
      y2="8"
      :class="known ? 'range' : 'missing'"
      vector-effect="non-scaling-stroke"
    />
  </svg>
  <svg
    v-if="known"
    class="mark"
    viewBox="0 0 16 16"
    :style="{ left: `calc(${at(valueScore)}% - 8px)` }"
    aria-hidden="true"
  >
    <path v-if="best" d="M8 1 15 8 8 15 1 8Z" class="best" />
    <circle v-else cx="8" cy="8" r="5" class="dot" />
  </svg>
</template>

<style scoped>
.bar {
  display: block;
  width: 100%;
  height: 16px;
}

.axis {
  stroke: var(--unto-rule);
  stroke-width: 2;
}

.range {
  stroke: var(--unto-slate);
  stroke-opacity: 0.55;
  stroke-width: 7;
}

.missing {
  stroke: var(--unto-coat-line);
  stroke-width: 3;
  stroke-dasharray: 3 3;
}

.mark {
  position: absolute;
  top: 0;
  width: 16px;
  height: 16px;
}

.dot {
  fill: var(--unto-ink);
}

.best {
  fill: var(--unto-bonded);
  stroke: var(--unto-surface);
}
</style>
