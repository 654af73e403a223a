<script setup lang="ts">
import Button from 'primevue/button';
import { RouterLink } from 'vue-router';
import { useTicket } from '../stores/ticket';
import { windowAddress } from '../window/address';

/** What was proved of the open ticket’s pairing before, with one press to take it. */
defineProps<{ take: string; busy: boolean; outlined?: boolean; testId: string }>();
defineEmits<{ take: [] }>();
const ticket = useTicket();
</script>

<template>
  <section class="before">
    <slot />
    <p class="row">
      <Button :label="take" :outlined="outlined" :loading="busy" :data-test-id="testId" @click="$emit('take')" />
      <RouterLink :to="windowAddress(ticket.ticket!, ticket.ticket!.id)">Look at its window</RouterLink>
    </p>
  </section>
</template>

<style scoped>
.before {
  padding: 0.7rem 0.9rem;
  border: 1px solid var(--unto-rule);
  border-left: 4px solid var(--unto-bonded);
}

.row {
  display: flex;
  align-items: center;
  gap: 1rem;
  margin-bottom: 0;
}
</style>
