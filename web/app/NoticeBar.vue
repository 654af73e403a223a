<script setup lang="ts">
import { useNotices } from '../stores/notices';

const notices = useNotices();
</script>

<template>
  <div class="notices no-print" aria-live="polite">
    <div v-if="notices.notice" class="notice" :class="notices.notice.tone" data-test-id="notice">
      <span>{{ notices.notice.text }}</span>
      <button
        v-if="notices.notice.undo"
        type="button"
        data-test-id="notice-undo"
        @click="(notices.notice.undo(), notices.dismiss())"
      >
        Undo
      </button>
      <button type="button" @click="notices.dismiss()">Close</button>
    </div>
  </div>
</template>

<style scoped>
.notice {
  position: fixed;
  left: 50%;
  bottom: 1rem;
  transform: translateX(-50%);
  z-index: 2000;
  display: flex;
  align-items: center;
  gap: 0.75rem;
  max-width: min(44rem, 94vw);
  padding: 0.6rem 1rem;
  background: var(--unto-ink);
  color: var(--unto-ground);
  border-radius: 4px;
}

.notice.danger {
  background: var(--unto-danger);
  color: var(--unto-ground);
}

button {
  border: 0;
  background: none;
  color: inherit;
  text-decoration: underline;
  cursor: pointer;
  min-height: 32px;
}
</style>
