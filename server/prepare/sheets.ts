import type { CreateSheet, PlaceEntriesOf, Sheet } from '@unto/contract';
import { laidPlaces, pieceSize, type LaidPlace } from '@unto/domain';
import { type Context, createOnce, find, insert, list, NEWEST_FIRST } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { inventoryItem } from '../inventory/service.js';

/** Keeps the layout of a sheet, laid out again here. */
export async function createSheet(context: Context, ticketId: string, request: CreateSheet): Promise<Sheet> {
  await createOnce(context, 'sheet', request, async () => {
    await find(context, 'tickets', ticketId);
    const { entries } = request;
    const { places, leftOut, used } = await context.pool.run('layOutSheet', entries);
    const counted = { places: places.length, leftOut, used };
    await insert(context, 'sheets', {
      id: request.id,
      ticketId,
      entries,
      ...counted,
      at: context.now,
      byId: context.actor,
    });
  });
  return sheetView(await find(context, 'sheets', request.id));
}

/** The newest layout of a ticket; null where none was kept. */
export async function newestSheet(context: Context, ticketId: string): Promise<Sheet | null> {
  const [row] = await list(context, 'sheets', { where: { ticketId }, order: NEWEST_FIRST, limit: 1 });
  return row ? sheetView(row) : null;
}

/** Places of a ticket's pieces under the head; null where they are laid in one after the other. */
export async function placesOf(context: Context, ticketId: string): Promise<LaidPlace[] | null> {
  const where = { ticketId, kind: 'laid', decision: 'taken' };
  const [laid] = await list(context, 'placeReadings', { where, order: NEWEST_FIRST, limit: 1 });
  const pictured = laid && { entries: laid.entries as PlaceEntriesOf['laid'], at: laid.at.toISOString() };
  return laidPlaces(await newestSheet(context, ticketId), pictured);
}

/** Size of a ticket's pieces: the places of its jig, else its blank, else its mark with the margin of its coat. */
export async function pieceSizeOf(context: Context, ticket: Rows['tickets'], blankId: string | null | undefined) {
  const [place] = (await placesOf(context, ticket.id)) ?? [];
  if (place) return { widthMm: place.widthMm, heightMm: place.heightMm };
  return pieceSize(ticket, blankId ? (await inventoryItem(context, 'blank', blankId)).body : null);
}

function sheetView({ at, byId, ...row }: Rows['sheets']): Sheet {
  return { ...row, at: at.toISOString(), by: byId };
}
