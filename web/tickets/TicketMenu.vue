<script setup lang="ts">
import type { Ticket } from '@unto/contract';
import Button from 'primevue/button';
import Menu from 'primevue/menu';
import { computed, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import { useTicketChange } from '../stores/ticket-change';

/** What is done with a ticket as a whole: edited, made again, put away, opened again. */
const props = defineProps<{ ticket: Ticket }>();
const changes = useTicketChange();
const router = useRouter();
const menu = useTemplateRef<InstanceType<typeof Menu>>('menu');
const putAway = computed(() => props.ticket.state === 'done');
const items = computed(() => [
  { label: 'Edit', key: 'edit-ticket', command: () => router.push(`/tickets/${props.ticket.id}/edit`) },
  { label: 'Duplicate', key: 'duplicate-ticket', command: () => router.push(`/tickets/new?like=${props.ticket.id}`) },
  { label: putAway.value ? 'Open again' : 'Put away', key: 'put-away', command: change },
]);

async function change(): Promise<void> {
  const [state, said] = putAway.value ? (['open', 'Open again.'] as const) : (['done', 'Put away.'] as const);
  if (await changes.change({ state }, said))
    await router.push(state === 'done' ? '/tickets' : `/tickets/${props.ticket.id}`);
}
</script>

<template>
  <span class="no-print">
    <Button
      text
      size="small"
      label="More"
      aria-label="More: edit, duplicate or put away this ticket"
      aria-haspopup="true"
      data-test-id="ticket-menu"
      @click="menu?.toggle($event)"
    />
    <Menu ref="menu" :model="items" popup>
      <template #item="{ item, props: link }">
        <a v-bind="link.action" :data-test-id="item.key">{{ item.label }}</a>
      </template>
    </Menu>
  </span>
</template>
