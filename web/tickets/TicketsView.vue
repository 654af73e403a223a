<script setup lang="ts">
import { useQuery, useQueryCache } from '@pinia/colada';
import type { Ticket } from '@unto/contract';
import Button from 'primevue/button';
import { computed } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';
import DataList from '../ui/DataList.vue';
import { formatDay, formatNumber } from '../ui/format';
import type { ListColumn } from '../ui/list-column';
import PageHead from '../ui/PageHead.vue';
import { useUnits } from '../ui/useUnits';

const { data: tickets } = useQuery({ key: KEYS.tickets(), query: () => api.all('listTickets', {}) });
const cache = useQueryCache();
const shop = useShop();
const router = useRouter();
const open = computed(() => tickets.value?.filter(({ state }) => state === 'open') ?? []);
const done = computed(() => tickets.value?.filter(({ state }) => state === 'done') ?? []);
const units = useUnits();
const side = (mm: number) => formatNumber(units.read('length', mm).value);
const columns = computed<readonly ListColumn<Ticket>[]>(() => [
  { key: 'number', label: 'No.', numeric: true, value: ({ number }) => number },
  { key: 'title', label: 'What is marked', value: ({ title }) => title },
  { key: 'pieces', label: 'Pieces', numeric: true, value: ({ pieces }) => pieces },
  {
    key: 'mark',
    label: `Mark, ${units.unit('length')}`,
    numeric: true,
    value: ({ markWidthMm, markHeightMm }) => `${side(markWidthMm)} × ${side(markHeightMm)}`,
  },
  { key: 'substrate', label: 'Substrate', value: ({ substrateId }) => shop.nameOf(substrateId) },
  {
    key: 'compound',
    label: 'Compound',
    value: ({ compoundId, choiceReason }) => shop.nameOf(compoundId) || (choiceReason ? 'none' : null),
  },
  { key: 'head', label: 'Head', value: ({ headId }) => shop.nameOf(headId) },
  { key: 'wanted', label: 'Wanted', value: ({ wantedOn }) => wantedOn },
]);

/** What is about to be opened is asked for while the pointer rests on it. */
function lookAhead(id: string): void {
  const entry = cache.ensure({ key: KEYS.ticket(id), query: () => api.call('ticket', { params: { id } }) });
  void cache.refresh(entry).catch(() => undefined);
}
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
        <h2 class="group">{{ group.title }}</h2>
        <DataList
          :name="`tickets-${group.title.toLowerCase()}`"
          :rows="group.rows"
          :columns="columns"
          :to="({ id }) => `/tickets/${id}`"
        >
          <template #cell-title="{ row }">
            <RouterLink :to="`/tickets/${row.id}`" @mouseenter="lookAhead(row.id)" @focus="lookAhead(row.id)"
              ><strong>{{ row.title }}</strong></RouterLink
            >
          </template>
          <template #cell-wanted="{ row }">{{ row.wantedOn ? formatDay(row.wantedOn) : '–' }}</template>
        </DataList>
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
}

.group {
  margin-bottom: 0.5rem;
}
</style>
