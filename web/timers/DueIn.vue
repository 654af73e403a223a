<script setup lang="ts">
import { computed, useTemplateRef } from 'vue';
import { useShownNow } from './useShownNow';
import { formatTimer, LOCALE } from '../ui/format';

/** When something is due, as one says it: now, in 2:40, 14:05, by 3 Dec. Alone in a component so that a second re-draws only this. */
const props = defineProps<{ at: string | null; urgent: boolean }>();
const due = useTemplateRef<HTMLElement>('due');
const now = useShownNow(due);
const words = computed(() => {
  if (props.urgent) return 'now';
  if (!props.at) return 'next';
  const moment = new Date(props.at);
  const left = (moment.getTime() - now.value) / 1000;
  if (left <= 0) return 'now';
  if (left < 3600) return `in ${formatTimer(left)}`;
  if (left < 43_200) return moment.toLocaleTimeString(LOCALE, { hour: '2-digit', minute: '2-digit', hour12: false });
  return `by ${moment.toLocaleDateString(LOCALE, { day: 'numeric', month: 'short' })}`;
});
</script>

<template>
  <span ref="due" class="mono at">{{ words }}</span>
</template>

<style scoped>
.at {
  font-size: 0.95rem;
}
</style>
