<script setup lang="ts">
import { computed } from 'vue';
import type { MapLevel } from './map-shown';

/** What the map's tints and signs stand for. */
const props = defineProps<{ next: boolean; levels: readonly MapLevel[]; unit: string }>();
/** A level lies on those below it: each lets through what they leave. */
const depth = (levels: readonly { readonly opacity: number }[]) =>
  1 - levels.reduce((through, { opacity }) => through * (1 - opacity), 1);
const tints = computed(() => [
  { name: `under ${props.levels[0]?.word ?? ''}`, tint: 0 },
  ...props.levels.map(({ word }, i) => ({
    name: i === props.levels.length - 1 ? `${word} and more` : word,
    tint: depth(props.levels.slice(0, i + 1)),
  })),
]);
</script>

<template>
  <p class="legend small">
    <span>{{ unit }}:</span>
    <span v-for="{ name, tint } in tints" :key="name"
      ><i class="tint"><i :style="{ opacity: tint }"></i></i>{{ name }}</span
    >
    <span>● held</span><span>○ too little</span><span class="too-much">✕ too much</span
    ><span class="quiet">···· same dose</span><span class="quiet">- - same heat</span
    ><span class="setting">◆ the setting, in what it may drift</span><span v-if="next">┄ next coupon</span>
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
