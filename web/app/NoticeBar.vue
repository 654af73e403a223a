<script setup lang="ts">
import Button from 'primevue/button';
import { useNotices } from '../stores/notices';

/** What was kept or refused, in a strip of its own: it takes its place from the page and covers nothing. */
const notices = useNotices();
</script>

<template>
  <div class="notices no-print" aria-live="polite">
    <div v-if="notices.notice" class="notice" :class="notices.notice.tone" data-test-id="notice">
      <span class="words">{{ notices.notice.text }}</span>
      <Button
        v-if="notices.notice.undo"
        text
        size="small"
        label="Take it back"
        data-test-id="notice-undo"
        @click="(notices.notice.undo(), notices.dismiss())"
      />
      <Button text severity="secondary" size="small" label="Close" @click="notices.dismiss()" />
    </div>
  </div>
</template>

<style scoped>
.notice {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 48px;
  padding: 0 1rem 0 1.3rem;
  background: var(--unto-surface);
  border-top: 1px solid var(--unto-rule);
  box-shadow: inset 4px 0 0 var(--unto-bonded);
}

.notice.danger {
  background: var(--unto-danger-tint);
  box-shadow: inset 4px 0 0 var(--unto-danger);
}

.words {
  flex: 1;
}

/* Where the window itself scrolls it stands under the index. */
@media (max-width: 900px) {
  .notices {
    position: sticky;
    top: 0;
    order: -1;
    z-index: 4;
  }

  .notice {
    border-top: 0;
    border-bottom: 1px solid var(--unto-rule);
  }
}

@media (max-width: 700px) {
  .notices {
    top: 45px;
  }
}
</style>
