import { laidPlaces } from '@unto/domain';
import type { PlaceReading } from '@unto/contract';
import { computed } from 'vue';
import { useTicket } from './ticket';

/** Where the pieces of the open ticket lie under the head; null where they are laid in one after the other. */
export function useLaidPlaces() {
  const ticket = useTicket();
  const pictured = computed(
    () =>
      (ticket.page?.placeReadings.find(({ kind, decision }) => kind === 'laid' && decision === 'taken') as
        PlaceReading<'laid'> | undefined) ?? null,
  );
  const places = computed(() => laidPlaces(ticket.page?.sheet, pictured.value));
  return { places, pictured };
}
