<script setup lang="ts" generic="T extends string">
import Tab from 'primevue/tab';
import TabList from 'primevue/tablist';
import Tabs from 'primevue/tabs';
import { computed } from 'vue';

/** The tasks of a station side by side, one open; arrow keys go from one to the next. */
const open = defineModel<T>({ required: true });
const props = defineProps<{ tasks: readonly { readonly key: T; readonly label: string }[]; name: string }>();
/** More than six stand in two rows. */
const across = computed(() => (props.tasks.length > 6 ? Math.ceil(props.tasks.length / 2) : props.tasks.length));
</script>

<template>
  <Tabs v-model:value="open" class="tasks" :show-navigators="false" :style="{ '--across': across }">
    <TabList aria-label="What to do here">
      <!-- What a tab opens has no id of its own to be named by. -->
      <Tab
        v-for="entry in tasks"
        :key="entry.key"
        :value="entry.key"
        :pt="{ root: { 'aria-controls': undefined } }"
        :data-test-id="`${name}-${entry.key}`"
      >
        {{ entry.label }}
      </Tab>
    </TabList>
  </Tabs>
</template>

<style scoped>
.tasks :deep(.p-tablist-tab-list) {
  display: flex;
  flex-wrap: wrap;
  gap: 1px;
  border: 1px solid var(--unto-rule);
  background: var(--unto-rule);
}

.tasks :deep(.p-tablist-active-bar) {
  display: none;
}

.tasks :deep(.p-tab) {
  flex: 1 0 calc(100% / var(--across) - 2px);
  justify-content: center;
  min-width: 0;
  min-height: 44px;
  margin: 0;
  padding: 0 0.15rem;
  border: 0;
  background: var(--unto-surface);
  color: var(--unto-ink);
  font-weight: 400;
  text-align: center;
}

.tasks :deep(.p-tab-active) {
  background: var(--unto-ink);
  color: var(--unto-ground);
  font-weight: 700;
}
</style>
