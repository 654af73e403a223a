<script setup lang="ts">
import { useTicket } from '../stores/ticket';
import Button from 'primevue/button';
import { useRouter } from 'vue-router';
import CoatTasks from './CoatTasks.vue';

/** The coat, on tickets that have one. */
const ticket = useTicket();
const router = useRouter();
</script>

<template>
  <CoatTasks v-if="ticket.compound && ticket.page" :key="`${ticket.ticket!.id}-${ticket.compound.id}`" />
  <div v-else class="none">
    <h2>No coat here</h2>
    <p v-if="ticket.ticket?.choiceReason">This ticket is marked without a compound.</p>
    <p v-else>Choose a compound first.</p>
    <Button label="Go to Choose" @click="router.push(`/tickets/${ticket.ticket!.id}/choose`)" />
  </div>
</template>

<style scoped>
.none {
  padding: 2rem;
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  align-items: flex-start;
}
</style>
