import type { Timer, CreateTimer } from '@unto/contract';
import { readTimerAt } from '@unto/domain';
import { type Context, createOnce, find, insert, list, OLDEST_FIRST } from '../db/context.js';
import { fault, ApiError } from '../errors/api-error.js';
import { inventoryItem } from '../inventory/service.js';
import { ticketTitles, type TitledTicket } from '../tickets/titles.js';

export async function createTimer(context: Context, ticketId: string, request: CreateTimer): Promise<Timer> {
  await createOnce(context, 'clock', request, async () => {
    const ticket = await find(context, 'tickets', ticketId, { lock: true });
    if (request.kind === 'dry' && ticket.compoundId) await requireDryingTime(context, ticket.compoundId, request);
    const running = await list(context, 'timers', {
      where: { ticketId, kind: request.kind, label: request.label, endedAt: null },
    });
    if (running.length > 0)
      throw new ApiError('wrong-stage', `A clock “${request.label}” runs already on this ticket.`);
    await insert(context, 'timers', {
      ...request,
      tray: request.tray ?? 1,
      pieces: request.pieces ?? null,
      ticketId,
      startedAt: context.now,
      endedAt: null,
      outcome: null,
      byId: context.actor,
    });
  });
  return (await timersWhere(context, { id: request.id }))[0]!;
}

/** A drying clock runs at least as long as its compound’s record says. */
async function requireDryingTime(context: Context, compoundId: string, request: CreateTimer): Promise<void> {
  const { body } = await inventoryItem(context, 'compound', compoundId);
  if (request.minimumS < body.dryS)
    throw fault(
      'minimumS',
      `${body.name} dries in no less than ${body.dryS} s; mend its record in Stores if that is wrong.`,
    );
}

/** Ends a clock. A coat cannot be called dry before its minimum has run, whatever its gloss; a mix may be used up at any time. */
export async function endTimer(context: Context, id: string, outcome: 'passed' | 'dropped'): Promise<Timer> {
  const timer = await find(context, 'timers', id, { lock: true });
  if (timer.endedAt && timer.outcome !== outcome) throw new ApiError('wrong-stage', 'This clock has ended already.');
  const { leftS } = readTimerAt(timer, context.now.getTime());
  if (!timer.endedAt && outcome === 'passed' && leftS > 0 && timer.kind !== 'pot') {
    throw new ApiError('wrong-stage', `Not before its minimum: ${Math.ceil(leftS)} s to go.`);
  }
  if (!timer.endedAt) {
    await context.models.timers.update(
      { endedAt: context.now, outcome },
      { where: { id }, transaction: context.transaction ?? null },
    );
  }
  return (await timersWhere(context, { id }))[0]!;
}

export async function timersWhere(context: Context, where: object, atHand?: TitledTicket): Promise<Timer[]> {
  const rows = await list(context, 'timers', { where, order: OLDEST_FIRST });
  const titles = await ticketTitles(context, rows, atHand);
  return rows.map((row) => ({
    id: row.id,
    ticketId: row.ticketId,
    ticketTitle: titles.get(row.ticketId)!,
    kind: row.kind as Timer['kind'],
    label: row.label,
    minimumS: row.minimumS,
    tray: row.tray,
    pieces: row.pieces,
    startedAt: row.startedAt.toISOString(),
    endedAt: row.endedAt?.toISOString() ?? null,
    outcome: row.outcome,
  }));
}

/** Whether a mix of this ticket is past its time. */
export async function potLifeOver(context: Context, ticketId: string): Promise<boolean> {
  const mixes = await list(context, 'timers', { where: { ticketId, kind: 'pot', endedAt: null } });
  return mixes.some((mix) => readTimerAt(mix, context.now.getTime()).due);
}
