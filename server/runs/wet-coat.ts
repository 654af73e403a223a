import { clocksWhere } from '../clocks/service.js';
import type { Context } from '../db/context.js';
import { Refusal } from '../http/refusal.js';

/** Refuses to fire anything of a ticket whose coat still dries. */
export async function refuseWetCoat(context: Context, ticketId: string): Promise<void> {
  const wet = await clocksWhere(context, { ticketId, kind: 'dry', endedAt: null });
  if (wet.length > 0)
    throw new Refusal(
      'wrong-stage',
      `The coat “${wet[0]!.label}” still dries. Never fire a wet coat: wait for its clock, then look for gloss.`,
    );
}
