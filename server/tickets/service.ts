import type { ChangeTicket, Check, Clock, CreateCheck, CreateClock, CreateTicket, Ticket } from '@unto/contract';
import { createOnce, find, insert, list, requireVersion, type Context } from '../db/context.js';
import type { Rows } from '../db/models.js';
import { Refusal } from '../http/refusal.js';
import { loadBench, requireInUse } from '../stores/service.js';

export async function listTickets(context: Context, query: { state?: string }): Promise<Ticket[]> {
  const rows = await list(context, 'tickets', {
    where: query.state ? { state: query.state } : {},
    order: [['number', 'DESC']],
  });
  return rows.map(ticketView);
}

export async function getTicket(context: Context, id: string): Promise<Ticket> {
  return ticketView(await find(context, 'tickets', id));
}

export async function createTicket(context: Context, request: CreateTicket): Promise<Ticket> {
  await createOnce(context, 'ticket', request, async () => {
    await requireStores(context, { ...request, compoundId: null });
    const moment = { createdAt: context.now, changedAt: context.now, byId: context.actor };
    await insert(context, 'tickets', {
      ...request,
      ...moment,
      version: 1,
      state: 'open',
      compoundId: null,
      choiceReason: '',
    } as Partial<Rows['tickets']>);
  });
  return getTicket(context, request.id);
}

export async function changeTicket(context: Context, id: string, request: ChangeTicket): Promise<Ticket> {
  const stored = await find(context, 'tickets', id, { lock: true });
  requireVersion(stored.version, request.version, ticketView(stored));
  await requireStores(context, request);
  const change = { ...request, version: stored.version + 1, changedAt: context.now, byId: context.actor };
  await context.models.tickets.update(change as Partial<Rows['tickets']>, {
    where: { id },
    transaction: context.transaction ?? null,
  });
  return getTicket(context, id);
}

async function requireStores(
  context: Context,
  ticket: { substrateId: string; headId: string; lensId: string; compoundId: string | null },
): Promise<void> {
  await requireInUse(context, [
    { path: 'substrateId', id: ticket.substrateId },
    { path: 'headId', id: ticket.headId },
    { path: 'lensId', id: ticket.lensId },
    { path: 'compoundId', id: ticket.compoundId },
  ]);
  await loadBench(context, ticket);
}

export async function createCheck(context: Context, ticketId: string, request: CreateCheck): Promise<Check[]> {
  await createOnce(context, 'check', request, async () => {
    await find(context, 'tickets', ticketId);
    await insert(context, 'checks', { ...request, ticketId, at: context.now, byId: context.actor });
  });
  return checksOf(context, ticketId);
}

export async function checksOf(context: Context, ticketId: string): Promise<Check[]> {
  const rows = await list(context, 'checks', { where: { ticketId }, order: [['at', 'ASC']] });
  return rows.map(({ byId, at, ...row }) => ({ ...row, at: at.toISOString(), by: byId }) as Check);
}

export async function createClock(context: Context, ticketId: string, request: CreateClock): Promise<Clock> {
  await createOnce(context, 'clock', request, async () => {
    await find(context, 'tickets', ticketId, { lock: true });
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

/** Ends a clock. A coat cannot be called dry before its minimum has run, whatever its gloss. */
export async function endClock(context: Context, id: string, outcome: 'passed' | 'dropped'): Promise<Clock> {
  const clock = await find(context, 'clocks', id, { lock: true });
  if (clock.endedAt && clock.outcome !== outcome) throw new Refusal('wrong-stage', 'This clock has ended already.');
  const left = clock.startedAt.getTime() + clock.minimumS * 1000 - context.now.getTime();
  if (!clock.endedAt && outcome === 'passed' && left > 0) {
    throw new Refusal('wrong-stage', `Not before its minimum: ${Math.ceil(left / 1000)} s to go.`);
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
  const titles = new Map<string, string>();
  for (const { ticketId } of rows) {
    if (!titles.has(ticketId)) titles.set(ticketId, (await find(context, 'tickets', ticketId)).title);
  }
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

function ticketView({ byId: _by, createdAt, changedAt, ...row }: Rows['tickets']): Ticket {
  return { ...row, createdAt: createdAt.toISOString(), changedAt: changedAt.toISOString() };
}
