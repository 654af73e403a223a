<script setup lang="ts">
import type { Ticket } from '@unto/contract';
import Button from 'primevue/button';
import { computed, onMounted, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { request } from '../api/client';
import { useShop } from '../stores/shop';
import PageHead from '../ui/PageHead.vue';
import { formatDay } from '../ui/format';

const tickets = ref<Ticket[] | null>(null);
const shop = useShop();
const router = useRouter();
const open = computed(() => tickets.value?.filter(({ state }) => state === 'open') ?? []);
const done = computed(() => tickets.value?.filter(({ state }) => state === 'done') ?? []);
onMounted(async () => {
  tickets.value = await request<Ticket[]>('GET', '/api/tickets');
});
</script>

<template>
  <PageHead title="Tickets" :about="tickets ? `${open.length} open` : ''">
    <Button label="Open a ticket" data-test-id="new-ticket" @click="router.push('/tickets/new')" />
  </PageHead>
  <div class="body">
    <p v-if="tickets && !tickets.length">
      A ticket is one job: a part, how many, what the mark should be. Open the first one.
    </p>
    <template
      v-for="group in [
        { title: 'Open', rows: open },
        { title: 'Done', rows: done },
      ]"
      :key="group.title"
    >
      <section v-if="group.rows.length">
        <h2>{{ group.title }}</h2>
        <table class="plain">
          <thead>
            <tr>
              <th class="number">No.</th>
              <th>What is marked</th>
              <th class="number">Pieces</th>
              <th class="number">Mark, mm</th>
              <th>Substrate</th>
              <th>Compound</th>
              <th>Head</th>
              <th>Wanted</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="ticket in group.rows" :key="ticket.id">
              <td class="number">{{ ticket.number }}</td>
              <td>
                <RouterLink :to="`/tickets/${ticket.id}`"
                  ><strong>{{ ticket.title }}</strong></RouterLink
                >
              </td>
              <td class="number">{{ ticket.pieces }}</td>
              <td class="number">{{ ticket.markWidthMm }} × {{ ticket.markHeightMm }}</td>
              <td>{{ shop.nameOf(ticket.substrateId) }}</td>
              <td>{{ shop.nameOf(ticket.compoundId) || (ticket.choiceReason ? 'none' : '–') }}</td>
              <td>{{ shop.nameOf(ticket.headId) }}</td>
              <td>{{ ticket.wantedOn ? formatDay(ticket.wantedOn) : '–' }}</td>
            </tr>
          </tbody>
        </table>
      </section>
    </template>
  </div>
</template>

<style scoped>
.body {
  padding: 1rem 1.5rem;
  display: flex;
  flex-direction: column;
  gap: 1.5rem;
  overflow-x: auto;
}

td:first-child,
th:first-child {
  width: 3rem;
}
</style>
