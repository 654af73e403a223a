import type { MarkedPiece } from '@unto/contract';
import { countedPieces } from '@unto/domain';
import { list, OLDEST_FIRST, type Context } from '../db/context.js';

/** Pieces of a marking of which something was said, each as it was said last. */
export async function countedOf(context: Context, markingId: string): Promise<MarkedPiece[]> {
  const events = await list(context, 'pieceEvents', { where: { markingId }, order: OLDEST_FIRST });
  return countedPieces(events.map((event) => ({ ...event, at: event.at.toISOString(), by: event.byId })));
}
