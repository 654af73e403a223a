<script setup lang="ts">
/** A layer of the section: pointed at or reached with Tab it says its numbers. */
defineProps<{ words: string }>();
defineEmits<{ read: [words: string] }>();
</script>

<template>
  <g
    class="layer"
    tabindex="0"
    role="img"
    :aria-label="words"
    @focus="$emit('read', words)"
    @mouseenter="$emit('read', words)"
  >
    <slot />
  </g>
</template>

<style scoped>
.layer {
  outline: none;
}

.layer:hover,
.layer:focus-visible {
  filter: brightness(0.94);
}

.layer:focus-visible > :slotted(:first-child) {
  stroke: var(--unto-action);
  stroke-width: 3;
}
</style>
