import { timersWhere } from './service.js';
import type { Context } from '../db/context.js';
import { ApiError } from '../errors/api-error.js';

/** Refuses to fire anything of a ticket whose coat still dries. */
export async function refuseWetCoat(context: Context, ticketId: string): Promise<void> {
  const wet = await timersWhere(context, { ticketId, kind: 'dry', endedAt: null });
  if (wet.length > 0)
    throw new ApiError(
      'wrong-stage',
      `The coat “${wet[0]!.label}” still dries. Never fire a wet coat: wait for its clock, then look for gloss.`,
    );
}
