import { PLACE_ENTRIES, type PlaceDecision, type PlaceEntriesOf, type PlaceKind } from '@unto/contract';
import { focusDepth, workOutPlace } from '@unto/domain';
import { v4 as uuid } from 'uuid';
import { computed, type ComputedRef } from 'vue';
import { useNotices } from '../stores/notices';
import { useTicket } from '../stores/ticket';
import { useAct } from '../stores/useAct';
import { orFault } from '../ui/or-fault';

/** A reading while it is typed: what follows from it, or what is wrong with it in words, and keeping it on the ticket. */
export function usePlaceEntry<K extends PlaceKind>(kind: K, entries: ComputedRef<PlaceEntriesOf[K]>) {
  const ticket = useTicket();
  const { act, busy } = useAct();
  const depth = computed(() => focusDepth(ticket.fitted!.lens, ticket.page?.huntedDepth ?? null));

  const worked = computed(() =>
    orFault(() => {
      PLACE_ENTRIES[kind].validateSync(entries.value, { strict: true });
      return workOutPlace(kind, entries.value, { ...ticket.ticket!, depth: depth.value, lens: ticket.fitted!.lens });
    }),
  );

  async function keep(decision: PlaceDecision): Promise<boolean> {
    const body = { id: uuid(), kind, entries: entries.value, decision, note: '' };
    const answer = await act('createPlaceReading', { params: { id: ticket.ticket!.id }, body }, `a reading of ${kind}`);
    if (answer) useNotices().say(`Kept: ${kind}, ${decision}.`);
    return answer !== null;
  }

  return { depth, result: computed(() => worked.value.result), fault: computed(() => worked.value.fault), keep, busy };
}

/** The newest reading of a kind on the open ticket, to begin from. */
export function newestReading<K extends PlaceKind>(kind: K): PlaceEntriesOf[K] | null {
  const found = useTicket().page?.placeReadings.find((reading) => reading.kind === kind);
  return (found?.entries as PlaceEntriesOf[K] | undefined) ?? null;
}
