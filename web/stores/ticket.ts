import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import type { InventoryItem, TicketPage } from '@unto/contract';
import type { FittedEquipment } from '@unto/domain';
import { request } from '../api/client';
import { fittedEquipment } from './fitted-equipment';
import { useShop } from './shop';

/** The open ticket with its substrate, compound and bench. */
export const useTicket = defineStore('ticket', () => {
  const page = shallowRef<TicketPage | null>(null);
  const shop = useShop();
  const ticket = computed(() => page.value?.ticket ?? null);
  const substrate = computed(() => shop.item('substrate', ticket.value?.substrateId));
  const compound = computed<InventoryItem<'compound'> | null>(() => shop.item('compound', ticket.value?.compoundId));
  const fitted = computed<FittedEquipment | null>(() => (ticket.value ? fittedEquipment(shop, ticket.value) : null));

  async function load(id: string): Promise<void> {
    page.value = await request<TicketPage>('GET', `/api/tickets/${id}`);
  }

  function clear(): void {
    page.value = null;
  }

  return { page, ticket, substrate, compound, fitted, load, clear };
});
