import { keepUntil, storedState } from '@unto/core';
import type { EndStoredCoat, StoreCoat, StoredCoat } from '@unto/contract';
import { timersWhere } from '../timers/service.js';
import { type Context, createOnce, find, insert, list, OLDEST_FIRST } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault, ApiError } from '../errors/api-error.js';
import { inventoryItem } from '../inventory/service.js';
import { progressOf } from '../progress/service.js';
import { ticketTitles, type TitledTicket } from '../tickets/titles.js';

/** Lays coated, dry pieces on the shelf under the handling rule and shelf life of their compound as it stands. */
export async function storeCoat(context: Context, ticketId: string, request: StoreCoat): Promise<StoredCoat> {
  await createOnce(context, 'stored coat', request, async () => {
    const ticket = await find(context, 'tickets', ticketId, { lock: true });
    if (!ticket.compoundId) throw new ApiError('wrong-stage', 'This ticket has no compound, so nothing is coated.');
    const [wet] = await timersWhere(context, { ticketId, kind: 'dry', endedAt: null });
    if (wet)
      throw new ApiError('wrong-stage', `“${wet.label}” still dries. A wet coat is not stored: wait for its gloss.`);
    const stored = await storedPieces(context, ticketId);
    const { coatedPieces, markedPieces } = (await progressOf(context, [ticketId])).get(ticketId)!;
    const lying = Math.max(0, coatedPieces - markedPieces - stored);
    if (request.pieces > lying)
      throw fault('pieces', `${lying} coated pieces lie unmarked and not stored: weigh the others as coated first.`);
    if (stored + request.pieces > ticket.pieces)
      throw fault('pieces', `The ticket has ${ticket.pieces} pieces, and ${stored} of them are stored already.`);
    const compound = await inventoryItem(context, 'compound', ticket.compoundId);
    const until = keepUntil(context.now.getTime(), compound.body.shelfLifeDays);
    await insert(context, 'storedCoats', {
      ...request,
      ticketId,
      compoundId: compound.id,
      compoundRevisionId: compound.revisionId,
      handling: compound.body.handling,
      storedAt: context.now,
      keepUntil: until === null ? null : new Date(until),
      byId: context.actor,
      endedAt: null,
      outcome: null,
      endReason: '',
      endedById: null,
    });
  });
  return (await storedCoatsWhere(context, { id: request.id }))[0]!;
}

/** Takes stored pieces up after a look at them, or rinses them off. */
export async function endStoredCoat(context: Context, id: string, request: EndStoredCoat): Promise<StoredCoat> {
  const row = await find(context, 'storedCoats', id, { lock: true });
  if (row.endedAt) {
    if (row.outcome !== request.outcome) throw new ApiError('wrong-stage', `These pieces were ${row.outcome} already.`);
    return (await storedCoatsWhere(context, { id }))[0]!;
  }
  if (request.outcome === 'taken up') requireGood(row, request, context.now);
  await context.models.storedCoats.update(
    { endedAt: context.now, outcome: request.outcome, endReason: request.reason, endedById: context.actor },
    { where: { id }, transaction: context.transaction ?? null },
  );
  return (await storedCoatsWhere(context, { id }))[0]!;
}

function requireGood(row: Rows['storedCoats'], request: EndStoredCoat, now: Date): void {
  if (!request.dry) throw fault('dry', 'A coat that took up damp is not fired: rinse it off and coat anew.');
  if (!request.untouched) throw fault('untouched', 'A touched coat marks patchy: touch it up, or rinse it off.');
  const past = row.keepUntil !== null && now > row.keepUntil;
  if (past && request.reason.trim() === '')
    throw fault(
      'reason',
      `Its compound names no more than until ${row.keepUntil!.toISOString().slice(0, 10)}. Say why it may be fired all the same, or rinse it off.`,
    );
}

/** Pieces of a ticket that lie on the shelf. */
export async function storedPieces(context: Context, ticketId: string): Promise<number> {
  const rows = await list(context, 'storedCoats', { where: { ticketId, endedAt: null } });
  return rows.reduce((sum, { pieces }) => sum + pieces, 0);
}

export async function storedCoatsWhere(context: Context, where: object, atHand?: TitledTicket): Promise<StoredCoat[]> {
  const rows = await list(context, 'storedCoats', { where, order: OLDEST_FIRST });
  const titles = await ticketTitles(context, rows, atHand);
  return Promise.all(
    rows.map(async ({ byId, storedAt, keepUntil: until, endedAt, endedById, compoundRevisionId: _pin, ...row }) => ({
      ...row,
      ticketTitle: titles.get(row.ticketId)!,
      compoundName: (await inventoryItem(context, 'compound', row.compoundId)).body.name,
      storedAt: storedAt.toISOString(),
      keepUntil: until?.toISOString() ?? null,
      state: storedState(
        { storedAtMs: storedAt.getTime(), keepUntilMs: until?.getTime() ?? null },
        (endedAt ?? context.now).getTime(),
      ),
      by: byId,
      endedAt: endedAt?.toISOString() ?? null,
      endedBy: endedById,
    })),
  );
}
