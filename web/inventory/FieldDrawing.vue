<script setup lang="ts">
/** A drawing where words fail: what an empty container, a spot and a depth of focus are. */
defineProps<{ field: string }>();
</script>

<template>
  <svg v-if="field === 'tareG'" viewBox="0 0 150 56" aria-hidden="true">
    <path d="M20 12h18v34H20ZM24 6h10v6H24Z" class="can" />
    <path d="M20 24h18v22H20Z" class="full" />
    <path d="M76 12h18v34H76ZM80 6h10v6H80Z" class="can" />
    <path d="M10 50h38M66 50h38" class="line" />
    <text x="29" y="34" text-anchor="middle">net</text>
    <text x="110" y="34">this</text>
  </svg>
  <svg v-else-if="field === 'spotXMm'" viewBox="0 0 150 56" aria-hidden="true">
    <ellipse cx="60" cy="26" rx="22" ry="14" class="beam" />
    <path d="M38 48H82M38 44v8M82 44v8" class="line" />
    <text x="92" y="51">width</text>
  </svg>
  <svg v-else-if="field === 'depthOfFocusMm'" viewBox="0 0 150 56" aria-hidden="true">
    <path d="M30 2Q62 22 62 28Q62 34 30 54M98 2Q66 22 66 28Q66 34 98 54" class="line" />
    <path d="M40 18H116M40 38H116" class="dash" />
    <path d="M110 18v10m0 10v-10" class="line" />
    <text x="118" y="26">this</text>
  </svg>
</template>

<style scoped>
svg {
  width: 150px;
  height: 56px;
  font-size: 12px;
}

text {
  fill: var(--unto-quiet);
}

.can {
  fill: var(--unto-metal);
  stroke: var(--unto-metal-line);
}

.full {
  fill: var(--unto-coat-fill);
}

.beam {
  fill: var(--unto-danger-tint);
  stroke: var(--unto-danger);
}

.line {
  fill: none;
  stroke: var(--unto-ink);
}

.dash {
  stroke: var(--unto-quiet);
  stroke-dasharray: 4 3;
}
</style>
