import { numbersText, openForRun, panelReading, shopUnits } from '@unto/domain';
import { piecesLeft, piecesReady, PLAIN_SETTING, readIn, type Quantity, type UnitOf } from '@unto/core';
import type { CreateRun } from '@unto/contract';
import { computed } from 'vue';
import { useNow } from '../stores/now';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';

/** What a run of the open ticket is entered from: its recipe as the panel shows it, what is ready to be run, what stands open before it. */
export function useRunEntry() {
  const ticket = useTicket();
  const shop = useShop();
  const time = useNow();
  const recipe = computed(() => ticket.page?.recipes[0] ?? null);
  const left = computed(() =>
    piecesLeft({ pieces: ticket.ticket!.pieces, ...(ticket.page?.progress ?? { markedPieces: 0, rejectedPieces: 0 }) }),
  );
  /** Offered to be run: what is coated and ready, as far as the ticket still wants it. */
  const offered = computed(() => {
    const { page, ticket: own } = ticket;
    const ready = own?.compoundId && page ? piecesReady(page.progress) : 0;
    return Math.max(1, ready ? Math.min(ready, left.value) : left.value);
  });
  /** Blanks of this substrate on the shelf. */
  const blanks = computed(() =>
    shop
      .inUse('blank')
      .filter(({ body }) => body.substrateId === ticket.ticket!.substrateId)
      .map(({ id, body }) => ({
        value: id,
        label: `${body.name}, ${body.supplier}${body.lot ? `, lot ${body.lot}` : ''}`,
      })),
  );

  /** The setting as planned, in the panel’s own units; how the air stood is for whoever was there to say. */
  function planned(): Omit<CreateRun, 'id' | 'ticketId' | 'correctsId' | 'minutes' | 'minutesFrom'> {
    const reading = panelReading(shopUnits(shop.workshop!), ticket.fitted!);
    const asRead = <Q extends Quantity>(quantity: Q, value: number | undefined) => {
      const { value: shown, unit } = readIn(reading, quantity, value ?? Number.NaN);
      return { value: Number(shown.toPrecision(4)), unit: value === undefined ? reading.units[quantity] : unit } as {
        value: number;
        unit: UnitOf<Q>;
      };
    };
    const { passes, hatches, angleDeg, fill, focusOffsetMm, frequencyKHz, pulseNs, directions, powerMode } =
      recipe.value ?? PLAIN_SETTING;
    return {
      recipeId: recipe.value?.id ?? null,
      blankId: blanks.value.length === 1 ? blanks.value[0]!.value : null,
      pieces: offered.value,
      power: asRead('power', recipe.value?.powerPercent),
      speed: asRead('speed', recipe.value?.speedMmPerS),
      interval: asRead('interval', recipe.value?.intervalMm),
      ...{ passes, hatches, angleDeg, fill, focusOffsetMm, frequencyKHz, pulseNs, directions, powerMode },
      ...{ air: '' as never, extraction: null, note: '', reason: '' },
    };
  }

  /** So many pieces that come next, by their numbers on the ticket; null where nothing tells one from another. */
  function nextNumbers(pieces = offered.value): string | null {
    const { page } = ticket;
    if (!page?.layout?.entered.fields.length) return null;
    const from = Math.min(ticket.ticket!.pieces, page.progress.markedPieces + 1);
    const to = Math.min(ticket.ticket!.pieces, from + pieces - 1);
    return numbersText(Array.from({ length: to - from + 1 }, (_, i) => from + i));
  }

  /** Stations that stand open before some pieces. */
  function openBefore(pieces: number, air: CreateRun['air'] | null) {
    const { page, ticket: own, substrate, compound } = ticket;
    if (!page || !own || !substrate) return [];
    const fittedName = shop.item('head', page.fitting?.headId ?? null)?.body.name ?? '';
    const { progress, checks, fitting, questions } = page;
    const facts = { ticket: own, progress, checks, fitting, questions, fittedName };
    return openForRun(
      { ...facts, substrate: substrate.body, compound: compound?.body ?? null },
      pieces || 1,
      new Date(time.now),
      air || null,
    );
  }
  /** What stands open before the pieces of a form under its air, and what of it no reason lets pass. */
  function openFor(entered: () => Pick<CreateRun, 'pieces' | 'air'>) {
    const open = computed(() => openBefore(entered().pieces, entered().air));
    return { open, never: computed(() => open.value.filter((one) => one.never)) };
  }
  return { recipe, left, blanks, planned, nextNumbers, openFor };
}
