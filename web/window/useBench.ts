import { sweptMark } from '@unto/domain';
import type { Pairing } from '@unto/contract';
import { computed, ref } from 'vue';
import { fittedEquipment } from '../stores/fitted-equipment';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';

/** A mark whose time and price the settings are told for, where no ticket says its own; mm. */
const TYPICAL_MARK = { widthMm: 40, heightMm: 12 };

/** What a window is looked at for: its compound and equipment, and the job: a ticket’s, or a mark somebody types. */
export function useBench(pairing: () => Pairing, ticketId: () => string | null) {
  const shop = useShop();
  const store = useTicket();
  const typed = ref({ ...TYPICAL_MARK });
  const of = computed(pairing);
  const ticket = computed(() => (store.ticket && store.ticket.id === ticketId() ? store.ticket : null));
  return {
    pairing: of,
    ticket,
    fitted: computed(() => fittedEquipment(shop, of.value)),
    compound: computed(() => shop.item('compound', of.value.compoundId)),
    typed,
    mark: computed(() => (ticket.value ? sweptMark(ticket.value) : typed.value)),
    /** Opens the ticket, where the address names one. */
    open: async () => {
      const id = ticketId();
      if (id && store.ticket?.id !== id) await store.open(id);
    },
  };
}
export type WindowBench = ReturnType<typeof useBench>;
