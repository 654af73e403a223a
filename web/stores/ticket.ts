import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import type { StationState } from '@unto/core';
import type {
  Check,
  Clock,
  CouponSummary,
  FittedBench,
  LedgerRecord,
  Recipe,
  StoreItem,
  Ticket,
  Weighing,
} from '@unto/contract';
import { request } from '../api/client';
import { fittedBench } from './fitted';
import { useBench } from './bench';

/** A ticket's page as the server answers it. */
export interface TicketPage {
  readonly ticket: Ticket;
  readonly stations: readonly StationState[];
  readonly checks: readonly Check[];
  readonly clocks: readonly Clock[];
  readonly weighings: readonly Weighing[];
  readonly coupons: readonly CouponSummary[];
  readonly recipes: readonly Recipe[];
  readonly runs: readonly LedgerRecord[];
  readonly transferSamples: readonly number[];
}

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
