import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import type { StoreItem, TicketPage } from '@unto/contract';
import type { FittedBench } from '@unto/domain';
import { request } from '../api/client';
import { fittedBench } from './fitted';
import { useBench } from './bench';

/** The open ticket with its substrate, compound and bench. */
export const useTicket = defineStore('ticket', () => {
  const page = shallowRef<TicketPage | null>(null);
  const bench = useBench();
  const ticket = computed(() => page.value?.ticket ?? null);
  const substrate = computed(() => bench.item('substrate', ticket.value?.substrateId));
  const compound = computed<StoreItem<'compound'> | null>(() => bench.item('compound', ticket.value?.compoundId));
  const fitted = computed<FittedBench | null>(() => (ticket.value ? fittedBench(bench, ticket.value) : null));

  async function load(id: string): Promise<void> {
    page.value = await request<TicketPage>('GET', `/api/tickets/${id}`);
  }

  function clear(): void {
    page.value = null;
  }

  return { page, ticket, substrate, compound, fitted, load, clear };
});
