<script setup lang="ts">
import { computed } from 'vue';
import { useReach } from '../stores/reach';
import { LOCALE } from '../ui/format';

/** Says that the server does not answer, and as of when everything below stands. */
const reach = useReach();
const at = computed(() =>
  new Date(reach.heardAt).toLocaleTimeString(LOCALE, { hour: '2-digit', minute: '2-digit', hour12: false }),
);
</script>

<template>
  <aside v-if="reach.away" class="away-strip no-print" role="status" data-test-id="away">
    <strong>The server does not answer just now.</strong> What stands here is as it was at
    <span class="mono">{{ at }}</span>; clocks go on, and what you enter is kept and sent later.
  </aside>
</template>

<style scoped>
.away-strip {
  padding: 0.5rem 1.5rem;
  background: var(--unto-coat-tint);
  border-bottom: 2px solid var(--unto-coat-line);
  font-size: 0.92rem;
}
</style>
