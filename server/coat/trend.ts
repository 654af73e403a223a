import type { CoatSample } from '@unto/contract';
import type { Context } from '../db/context.js';
import { pageOf, type Asked } from '../db/page.js';
import { roomOf } from './weighings.js';
import { ticketTitles } from '../tickets/titles.js';

/** A page of coats as weighed, newest first, of one compound or of all; corrected weighings left out. */
export async function coatTrend(
  context: Context,
  { compoundId, ...asked }: { compoundId?: string | undefined } & Asked,
): Promise<{ records: CoatSample[]; next: string | null }> {
  const where = compoundId ? { compoundId } : {};
  const { rows, next } = await pageOf(context, 'standingWeighings', { key: 'at', where }, asked);
  const titles = await ticketTitles(context, rows);
  const records = rows.map(
    ({ id, at, byId, ticketId, pieces, film, transferValue, beforeG, afterG, strokes, entered }) => ({
      ...{ id, ticketId, pieces, film, transferValue, strokes },
      at: at.toISOString(),
      by: byId,
      ticketTitle: titles.get(ticketId)!,
      massAppliedG: beforeG - afterG,
      ...roomOf(entered),
    }),
  );
  return { records, next };
}
