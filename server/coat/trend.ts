import type { CoatSample } from '@unto/contract';
import { list, type Context } from '../db/context.js';
import { ticketTitles } from '../tickets/titles.js';

/** Coats as weighed, oldest first, of one compound or of all; corrected weighings left out. */
export async function coatTrend(context: Context, query: { compoundId?: string }): Promise<CoatSample[]> {
  const where = query.compoundId ? { compoundId: query.compoundId } : {};
  const rows = await list(context, 'weighings', { where, order: [['at', 'ASC']] });
  const corrected = new Set(rows.map(({ correctsId }) => correctsId));
  const titles = await ticketTitles(context, rows);
  return rows
    .filter(({ id }) => !corrected.has(id))
    .map((row) => ({
      id: row.id,
      at: row.at.toISOString(),
      by: row.byId,
      ticketId: row.ticketId,
      ticketTitle: titles.get(row.ticketId)!,
      pieces: row.pieces,
      film: row.film,
      transferValue: row.transferValue,
      laidG: row.beforeG - row.afterG,
      strokes: row.strokes,
    }));
}
