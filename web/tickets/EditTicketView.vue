<script setup lang="ts">
import { createTicket, type CreateTicket } from '@unto/contract';
import Button from 'primevue/button';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { useTicket } from '../stores/ticket';
import { useTicketChange } from '../stores/ticket-change';
import FormNote from '../ui/FormNote.vue';
import { useForm } from '../ui/useForm';
import { ticketFieldsOf, undoneBy } from './ticket-fields';
import TicketFields from './TicketFields.vue';

/** Changes what a ticket was asked, and says before what that undoes. */
const ticket = useTicket();
const changes = useTicketChange();
const router = useRouter();
const before = ticket.ticket!;
const form = useForm<CreateTicket>(createTicket, () => ({ id: before.id, ...ticketFieldsOf(before) }), {
  draft: `ticket-${before.id}`,
});
const { values, busy } = form;
const undone = computed(() => undoneBy(before, values.value));

async function keep(): Promise<void> {
  await form.submit(async ({ id, ...patch }) => {
    const done = await changes.change(patch, 'Ticket changed.');
    if (done) await router.push(`/tickets/${id}`);
    return done;
  });
}
</script>

<template>
  <form class="paper-form" novalidate @submit.prevent="keep">
    <FormNote />
    <TicketFields />
    <div v-if="undone.length" class="undone" role="status" data-test-id="undone">
      <p v-for="line in undone" :key="line">{{ line }}</p>
    </div>
    <div class="foot">
      <Button type="submit" label="Keep the changes" :loading="busy" data-test-id="keep" />
      <Button type="button" outlined label="Back" @click="router.push(`/tickets/${before.id}`)" />
    </div>
  </form>
</template>

<style scoped>
.foot {
  display: flex;
  gap: 0.6rem;
}

.undone {
  margin: 0;
  padding: 0.6rem 0.9rem;
  border-left: 4px solid var(--unto-coat-line);
  background: var(--unto-coat-tint);
}
</style>
