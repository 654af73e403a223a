<script setup lang="ts">
import { LEVELS } from './window-chart';

/** What the map's tints and signs stand for. */
defineProps<{ next: boolean }>();
/** A level lies on those below it: each lets through what they leave. */
const depth = (levels: readonly { readonly opacity: number }[]) =>
  1 - levels.reduce((through, { opacity }) => through * (1 - opacity), 1);
const TINTS = [
  { name: 'under 50', tint: 0 },
  { name: '50', tint: depth(LEVELS.slice(0, 1)) },
  { name: '80', tint: depth(LEVELS.slice(0, 2)) },
  { name: '95 and more', tint: depth(LEVELS) },
];
</script>

<template>
  <p class="legend small">
    <span>of 100 hold:</span>
    <span v-for="{ name, tint } in TINTS" :key="name"
      ><i class="tint"><i :style="{ opacity: tint }"></i></i>{{ name }}</span
    >
    <span>● held</span><span>○ too little</span><span class="too-much">✕ too much</span
    ><span class="quiet">···· same dose</span><span class="setting">◆ the setting, in what it may drift</span
    ><span v-if="next">┄ next coupon</span>
  </p>
</template>

<style scoped>
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1rem;
  padding: 0 0.5rem 0.4rem;
}

.tint {
  display: inline-block;
  width: 1rem;
  height: 0.8rem;
  margin-right: 0.3rem;
  border: 1px solid var(--unto-bonded);
}

.tint > i {
  display: block;
  height: 100%;
  background: var(--unto-bonded);
}

.too-much {
  color: var(--unto-danger);
}

.setting {
  color: var(--unto-action);
}
</style>
