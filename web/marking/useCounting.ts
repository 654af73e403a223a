import { countedPieces, countedSoFar, pieceName, type PieceEvent } from '@unto/domain';
import type { CreatePieceEvent, MarkedPiece, Marking } from '@unto/contract';
import { v4 as uuid } from 'uuid';
import { computed } from 'vue';
import { useAct } from '../stores/useAct';
import { useNow } from '../stores/now';
import { useOutbox } from '../stores/outbox';
import { useTicket } from '../stores/ticket';
import { orFault } from '../ui/or-fault';

/** A run that is being counted: what was said of its pieces, what waits to be sent among it, and how far it is. */
export function useCounting() {
  const ticket = useTicket();
  const outbox = useOutbox();
  const time = useNow();
  const { act } = useAct();
  const marking = computed<Marking | null>(() => ticket.page?.marking ?? null);
  /** What was pressed here and has not reached the server. */
  const waiting = computed<PieceEvent[]>(() =>
    outbox.waiting
      .filter(({ path }) => path === `/api/markings/${marking.value?.id}/pieces`)
      .map(({ key, body, operator }) => ({
        ...(body as CreatePieceEvent),
        at: new Date(Number(key.split('-')[0])).toISOString(),
        by: operator,
      })),
  );
  const counted = computed<MarkedPiece[]>(() =>
    countedPieces([...(marking.value?.counted ?? []).map(asEvent), ...waiting.value]),
  );
  const plannedS = computed(
    () => ticket.page?.recipes.find(({ id }) => id === marking.value?.recipeId)?.secondsPerPiece ?? null,
  );
  const sofar = computed(
    () => marking.value && countedSoFar({ ...marking.value, counted: counted.value }, plannedS.value, time.now),
  );

  /** What a piece of this run is called: by its text, else by its number on the ticket. */
  function nameOf(piece: number): string {
    const { numbers, layoutId } = marking.value!;
    const number = numbers[piece - 1] ?? piece;
    const layout = ticket.page!.layout;
    const own = layout && layout.id === layoutId ? orFault(() => pieceName(layout.entered, number)).result : null;
    return own || `Piece ${number}`;
  }

  /** Says something of a piece; waits in the browser where the server is away. */
  async function say(piece: number, what: CreatePieceEvent['what'], of: Partial<CreatePieceEvent> = {}): Promise<void> {
    const body: CreatePieceEvent = { id: uuid(), piece, what, why: null, ...of };
    await act('createPieceEvent', { params: { id: marking.value!.id }, body }, `piece ${piece}: ${what}`);
  }

  return { marking, counted, waiting, sofar, plannedS, nameOf, say };
}

function asEvent({ state, ...piece }: MarkedPiece): PieceEvent {
  return { ...piece, what: state === 'to go' ? 'taken back' : state };
}
