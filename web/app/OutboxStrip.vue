<script setup lang="ts">
import { useOutbox } from '../stores/outbox';

/** Entries that wait to be sent, and entries refused when they were sent at last. */
const outbox = useOutbox();
</script>

<template>
  <aside v-if="outbox.queue.length" class="outbox no-print" aria-live="polite" data-test-id="outbox">
    <p v-if="outbox.waiting.length">
      <strong
        >{{ outbox.waiting.length }} {{ outbox.waiting.length > 1 ? 'entries' : 'entry' }} waiting to be sent.</strong
      >
      The server does not answer; nothing is lost: {{ outbox.waiting.map(({ label }) => label).join(', ') }}.
    </p>
    <p v-for="entry in outbox.refused" :key="entry.key">
      <strong>{{ entry.label }} was refused:</strong> {{ entry.refused!.detail }}
      <button type="button" @click="outbox.drop(entry.key)">Let it go</button>
    </p>
  </aside>
</template>

<style scoped>
.outbox {
  padding: 0.5rem 1.5rem;
  background: var(--unto-coat-tint);
  border-bottom: 2px solid var(--unto-coat-line);
  font-size: 0.92rem;
}

button {
  border: 0;
  background: none;
  color: var(--unto-action);
  text-decoration: underline;
  cursor: pointer;
}
</style>
