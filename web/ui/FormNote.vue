<script setup lang="ts">
/** What is to be said over a form: a refusal that belongs to no field, or that what was entered waits for the server. */
defineProps<{ general: string; waiting: boolean }>();
</script>

<template>
  <p v-if="general" class="fault" role="alert">{{ general }}</p>
  <p v-else-if="waiting" class="waits" role="status" data-test-id="form-waits">
    Waiting to be sent: the server does not answer just now. What you entered is kept and goes out by itself.
  </p>
</template>

<style scoped>
.waits {
  margin: 0;
  padding: 0.4rem 0.6rem;
  border-left: 4px solid var(--unto-coat);
}
</style>
