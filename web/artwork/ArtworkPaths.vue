<script setup lang="ts">
/** What is marked on a piece as it is drawn: fills, what lies bare on them, lines; in the colour of whatever it lies in. */
defineProps<{
  paths: readonly { readonly as: string; readonly d: string; readonly evenodd?: string | null | undefined }[];
}>();
</script>

<template>
  <path
    v-for="(path, i) in paths"
    :key="i"
    :d="path.d"
    :class="path.as.replace(' ', '-')"
    :fill-rule="path.evenodd ? 'evenodd' : undefined"
    vector-effect="non-scaling-stroke"
  />
</template>

<style scoped>
.marked {
  fill: currentcolor;
}

.left-bare {
  fill: var(--artwork-bare, var(--unto-surface));
}

.line {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.5px;
}
</style>
