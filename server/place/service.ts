import {
  PLACE_ENTRIES,
  type CreatePlaceReading,
  type PlaceEntriesOf,
  type PlaceKind,
  type PlaceReading,
} from '@unto/contract';
import { focusDepth, workOutPlace } from '@unto/domain';
import type { Figure } from '@unto/core';
import { type Context, createOnce, find, insert, list, NEWEST_FIRST } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { atField } from '../errors/api-error.js';
import { loadEquipment } from '../inventory/service.js';

/** Keeps a reading with what follows from it, worked out here, under the head and lens that the ticket has fitted. */
export async function createPlaceReading(
  context: Context,
  ticketId: string,
  request: CreatePlaceReading,
): Promise<PlaceReading[]> {
  await createOnce(context, 'place', request, async () => {
    const ticket = await find(context, 'tickets', ticketId);
    const kind = request.kind as PlaceKind;
    const entries = (await PLACE_ENTRIES[kind].validate(request.entries, {
      strict: true,
      abortEarly: false,
    })) as PlaceEntriesOf[PlaceKind];
    const { equipment } = await loadEquipment(context, ticket);
    const depth = focusDepth(equipment.lens, await huntedDepth(context, ticket.lensId));
    const result = atField('entries', () => workOutPlace(kind, entries, { ...ticket, depth, lens: equipment.lens }));
    const { id, decision, note } = request;
    await insert(context, 'placeReadings', {
      ...{ id, ticketId, kind, decision, note, entries, result },
      headId: ticket.headId,
      lensId: ticket.lensId,
      at: context.now,
      byId: context.actor,
    });
  });
  return placeReadingsOf(context, ticketId);
}

/** Readings of a ticket, newest first. */
export async function placeReadingsOf(context: Context, ticketId: string): Promise<PlaceReading[]> {
  const rows = await list(context, 'placeReadings', { where: { ticketId }, order: NEWEST_FIRST });
  return rows.map(readingView);
}

/** The newest reading of a kind that was taken with a head, on whatever ticket; null when nobody made one. */
export async function newestOfHead<K extends 'pointer' | 'zero'>(
  context: Context,
  headId: string,
  kind: K,
): Promise<PlaceReading<K> | null> {
  const where = { headId, kind, decision: 'taken' };
  const [row] = await list(context, 'placeReadings', { where, order: NEWEST_FIRST, limit: 1 });
  return row ? (readingView(row) as PlaceReading<K>) : null;
}

function readingView({ byId, at, ...row }: Rows['placeReadings']): PlaceReading {
  return { ...row, at: at.toISOString(), by: byId } as PlaceReading;
}

/** Depth of focus of a lens as its newest dot hunt found it, on whatever ticket; null when nobody hunted. */
export async function huntedDepth(context: Context, lensId: string): Promise<Figure | null> {
  const [row] = await list(context, 'placeReadings', {
    where: { lensId, kind: 'focus' },
    order: NEWEST_FIRST,
    limit: 1,
  });
  return row ? (row.result as PlaceReading<'focus'>['result']).depth : null;
}
