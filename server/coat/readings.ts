import { COAT_ENTRIES, type CoatEntriesOf, type CoatReading, type CreateCoatReading } from '@unto/contract';
import { workOutCoatReading } from '@unto/domain';
import { type Context, createOnce, find, insert, list, OLDEST_FIRST } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { atField, fault, ApiError } from '../errors/api-error.js';
import { inventoryItem } from '../inventory/service.js';

/** Keeps a comb reading or the looks of a coat with the film that follows, worked out here. */
export async function createCoatReading(
  context: Context,
  ticketId: string,
  request: CreateCoatReading,
): Promise<CoatReading[]> {
  await createOnce(context, 'coat reading', request, async () => {
    const ticket = await find(context, 'tickets', ticketId);
    if (!ticket.compoundId)
      throw new ApiError('wrong-stage', 'This ticket has no compound, so there is no coat to read.');
    await requireOwnWeighing(context, ticketId, request.weighingId ?? null);
    const { kind } = request;
    const entries = (await COAT_ENTRIES[kind].validate(request.entries, {
      strict: true,
      abortEarly: false,
    })) as CoatEntriesOf[typeof kind];
    const compound = await inventoryItem(context, 'compound', ticket.compoundId);
    const ref = { kind: 'compound', id: compound.id, revision: compound.revision };
    const worked = atField('entries', () => workOutCoatReading(kind, entries, compound.body, ref));
    await insert(context, 'coatReadings', {
      ...request,
      weighingId: request.weighingId ?? null,
      entries,
      ...worked,
      ticketId,
      compoundId: compound.id,
      compoundRevisionId: compound.revisionId,
      at: context.now,
      byId: context.actor,
    });
  });
  return coatReadingsOf(context, ticketId);
}

/** @throws ApiError when the weighing belongs to another ticket */
export async function requireOwnWeighing(context: Context, ticketId: string, weighingId: string | null): Promise<void> {
  if (weighingId === null) return;
  const weighing = await find(context, 'weighings', weighingId);
  if (weighing.ticketId !== ticketId) throw fault('weighingId', 'That weighing belongs to another ticket.');
}

/** Readings of a ticket's coats, oldest first. */
export async function coatReadingsOf(context: Context, ticketId: string): Promise<CoatReading[]> {
  const rows = await list(context, 'coatReadings', { where: { ticketId }, order: OLDEST_FIRST });
  return rows.map(
    ({ byId, at, compoundRevisionId: _revision, ...row }: Rows['coatReadings']) =>
      ({ ...row, at: at.toISOString(), by: byId }) as CoatReading,
  );
}
