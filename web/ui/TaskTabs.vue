<script setup lang="ts" generic="T extends string">
import { computed } from 'vue';

/** The tasks of a station side by side, one open. */
const open = defineModel<T>({ required: true });
const props = defineProps<{ tasks: readonly { readonly key: T; readonly label: string }[]; name: string }>();
/** More than six stand in two rows. */
const across = computed(() => (props.tasks.length > 6 ? Math.ceil(props.tasks.length / 2) : props.tasks.length));
</script>

<template>
  <div class="tasks" :style="{ '--across': across }" role="tablist" aria-label="What to do here">
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
  flex-wrap: wrap;
  gap: 1px;
  border: 1px solid var(--unto-rule);
  background: var(--unto-rule);
}

button {
  flex: 1 0 calc(100% / var(--across) - 2px);
  min-width: 0;
  min-height: 44px;
  padding: 0 0.15rem;
  border: 0;
  background: var(--unto-surface);
  color: var(--unto-ink);
  cursor: pointer;
}

.on {
  background: var(--unto-ink);
  color: var(--unto-ground);
  font-weight: 700;
}
</style>
