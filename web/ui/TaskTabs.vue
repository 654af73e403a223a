<script setup lang="ts" generic="T extends string">
/** The tasks of a station side by side, one open. */
const open = defineModel<T>({ required: true });
defineProps<{ tasks: readonly { readonly key: T; readonly label: string }[]; name: string }>();
</script>

<template>
  <div class="tasks" role="tablist" aria-label="What to do here">
    <button
      v-for="entry in tasks"
      :key="entry.key"
      type="button"
      role="tab"
      :aria-selected="open === entry.key"
      :class="{ on: open === entry.key }"
      :data-test-id="`${name}-${entry.key}`"
      @click="open = entry.key"
    >
      {{ entry.label }}
    </button>
  </div>
</template>

<style scoped>
.tasks {
  display: flex;
  border: 1px solid var(--unto-rule);
}

button {
  flex: 1;
  min-height: 44px;
  padding: 0 0.3rem;
  border: 0;
  border-right: 1px solid var(--unto-rule);
  background: var(--unto-surface);
  color: var(--unto-ink);
  cursor: pointer;
}

button:last-child {
  border-right: 0;
}

.on {
  background: var(--unto-ink);
  color: var(--unto-ground);
  font-weight: 700;
}
</style>
