import type { Clock, CreateClock } from '@unto/contract';
import { readClockAt } from '@unto/domain';
import { createOnce, find, insert, list, type Context } from '../db/context.js';
import { fault, Refusal } from '../http/refusal.js';
import { storeItem } from '../stores/service.js';
import { ticketTitles } from '../tickets/titles.js';

export async function createClock(context: Context, ticketId: string, request: CreateClock): Promise<Clock> {
  await createOnce(context, 'clock', request, async () => {
    const ticket = await find(context, 'tickets', ticketId, { lock: true });
    if (request.kind === 'dry' && ticket.compoundId) await requireDryingTime(context, ticket.compoundId, request);
    const running = await list(context, 'clocks', {
      where: { ticketId, kind: request.kind, label: request.label, endedAt: null },
    });
    if (running.length > 0) throw new Refusal('wrong-stage', `A clock “${request.label}” runs already on this ticket.`);
    await insert(context, 'clocks', {
      ...request,
      ticketId,
      startedAt: context.now,
      endedAt: null,
      outcome: null,
      byId: context.actor,
    });
  });
  return (await clocksWhere(context, { id: request.id }))[0]!;
}

/** A drying clock runs at least as long as its compound’s record says. */
async function requireDryingTime(context: Context, compoundId: string, request: CreateClock): Promise<void> {
  const { body } = await storeItem(context, 'compound', compoundId);
  if (request.minimumS < body.dryS)
    throw fault(
      'minimumS',
      `${body.name} dries in no less than ${body.dryS} s; mend its record in Stores if that is wrong.`,
    );
}

/** Ends a clock. A coat cannot be called dry before its minimum has run, whatever its gloss; a mix may be used up at any time. */
export async function endClock(context: Context, id: string, outcome: 'passed' | 'dropped'): Promise<Clock> {
  const clock = await find(context, 'clocks', id, { lock: true });
  if (clock.endedAt && clock.outcome !== outcome) throw new Refusal('wrong-stage', 'This clock has ended already.');
  const { leftS } = readClockAt(clock, context.now.getTime());
  if (!clock.endedAt && outcome === 'passed' && leftS > 0 && clock.kind !== 'pot') {
    throw new Refusal('wrong-stage', `Not before its minimum: ${Math.ceil(leftS)} s to go.`);
  }
  if (!clock.endedAt) {
    await context.models.clocks.update(
      { endedAt: context.now, outcome },
      { where: { id }, transaction: context.transaction ?? null },
    );
  }
  return (await clocksWhere(context, { id }))[0]!;
}

export async function clocksWhere(context: Context, where: object): Promise<Clock[]> {
  const rows = await list(context, 'clocks', { where, order: [['startedAt', 'ASC']] });
  const titles = await ticketTitles(context, rows);
  return rows.map((row) => ({
    id: row.id,
    ticketId: row.ticketId,
    ticketTitle: titles.get(row.ticketId)!,
    kind: row.kind as Clock['kind'],
    label: row.label,
    minimumS: row.minimumS,
    startedAt: row.startedAt.toISOString(),
    endedAt: row.endedAt?.toISOString() ?? null,
    outcome: row.outcome,
  }));
}

/** Whether a mix of this ticket is past its time. */
export async function potLifeOver(context: Context, ticketId: string): Promise<boolean> {
  const mixes = await list(context, 'clocks', { where: { ticketId, kind: 'pot', endedAt: null } });
  return mixes.some((mix) => readClockAt(mix, context.now.getTime()).due);
}
