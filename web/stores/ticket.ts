import { useQuery } from '@pinia/colada';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import type { InventoryItem } from '@unto/contract';
import type { FittedEquipment } from '@unto/domain';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import { fittedEquipment } from './fitted-equipment';
import { useShop } from './shop';

/** The open ticket with its substrate, compound and equipment. */
export const useTicket = defineStore('ticket', () => {
  const id = ref<string | null>(null);
  const shop = useShop();
  const query = useQuery({
    key: () => KEYS.ticket(id.value ?? ''),
    query: () => api.call('ticket', { params: { id: id.value! } }),
    enabled: () => id.value !== null,
  });
  const page = computed(() => (id.value === null ? null : (query.data.value ?? null)));
  const ticket = computed(() => page.value?.ticket ?? null);
  const substrate = computed(() => shop.item('substrate', ticket.value?.substrateId));
  const compound = computed<InventoryItem<'compound'> | null>(() => shop.item('compound', ticket.value?.compoundId));
  const fitted = computed<FittedEquipment | null>(() => (ticket.value ? fittedEquipment(shop, ticket.value) : null));

  /** Opens a ticket; one that is there already is shown at once and asked again. @throws ApiProblem, Unreachable */
  async function open(ticketId: string): Promise<void> {
    id.value = ticketId;
    const { status, error } = await query.refresh();
    if (status === 'error') throw error;
  }

  /** Asks again what others may have changed since. */
  const look = () => void query.refetch();

  function clear(): void {
    id.value = null;
  }

  return { page, ticket, substrate, compound, fitted, open, look, clear };
});
