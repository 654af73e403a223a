<script setup lang="ts">
/** A mark on a picture to be dragged, or moved by the arrow keys; who uses it listens to pointer and keys. */
defineProps<{ x: number; y: number; scale: number; name: string; caption?: string | undefined; testId: string }>();
</script>

<template>
  <g
    class="handle"
    tabindex="0"
    role="button"
    :aria-label="`${name} mark, ${Math.round(x)}, ${Math.round(y)}; arrow keys move it`"
    :data-test-id="testId"
    :transform="`translate(${x} ${y}) scale(${scale})`"
  >
    <circle r="16" class="reach" />
    <path d="M-10 0h20M0 -10v20" class="cross" />
    <text v-if="caption" y="31" text-anchor="middle">{{ caption }}</text>
  </g>
</template>

<style scoped>
.handle {
  cursor: grab;
  outline: none;
}

.reach {
  fill: rgb(255 253 248 / 45%);
  stroke: var(--unto-action);
  stroke-width: 2.5;
}

.handle:focus-visible .reach {
  stroke: var(--unto-danger);
  stroke-width: 5;
}

.cross {
  stroke: #1f262b;
  stroke-width: 1.5;
}

text {
  font-size: 15px;
  font-weight: 700;
  fill: #1f262b;
  paint-order: stroke;
  stroke: #fffdf8;
  stroke-width: 4px;
}
</style>
