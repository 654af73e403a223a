<script setup lang="ts">
import { computed, inject } from 'vue';
import { FORM } from './useForm';

/** What is to be said over a form: a refusal that belongs to no field, that it waits for the server, or that it was typed before. */
const form = inject(FORM)!;
const general = computed(() => form.general.value);
const waiting = computed(() => form.waiting.value);
const restored = computed(() => form.restored.value);
</script>

<template>
  <p v-if="general" class="fault" role="alert">{{ general }}</p>
  <p v-else-if="waiting" class="waits" role="status" data-test-id="form-waits">
    Waiting to be sent: the server does not answer just now. What you entered is kept and goes out by itself.
  </p>
  <p v-else-if="restored" class="quiet small before" role="status" data-test-id="form-restored">
    As you typed it before, not kept yet.
    <button type="button" class="link" data-test-id="start-over" @click="form.reset()">Start over</button>
  </p>
</template>

<style scoped>
.waits {
  margin: 0;
  padding: 0.4rem 0.6rem;
  border-left: 4px solid var(--unto-coat);
}

.before {
  grid-column: 1 / -1;
}
</style>
