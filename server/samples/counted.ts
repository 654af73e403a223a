import type { MarkedPiece } from '@unto/contract';
import { countedPieces } from '@unto/domain';
import { list, OLDEST_FIRST, type Context } from '../db/context.js';
import { fault } from '../errors/api-error.js';

/** Pieces of a marking of which something was said, each as it was said last. */
export async function countedOf(context: Context, markingId: string): Promise<MarkedPiece[]> {
  const events = await list(context, 'pieceEvents', { where: { markingId }, order: OLDEST_FIRST });
  return countedPieces(events.map((event) => ({ ...event, at: event.at.toISOString(), by: event.byId })));
}

/** @throws invalid-input at a piece that a run does not have */
export function requirePieceOf(run: { readonly pieces: number }, piece: number): void {
  if (piece > run.pieces) throw fault('piece', `This run is of ${run.pieces} pieces; there is no ${piece}.`);
}
