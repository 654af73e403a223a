import type { ChangeTicket, Check, CreateCheck, CreateTicket, ListTicketsQuery, Ticket } from '@unto/contract';
import { createOnce, find, insert, list, requireVersion, type Context } from '../db/context.js';
import { pageOf } from '../db/page.js';
import type { Rows } from '../db/models/index.js';
import { loadEquipment, requireInUse } from '../inventory/service.js';

/** A page of tickets, newest first. */
export async function listTickets(
  context: Context,
  { state, ...asked }: ListTicketsQuery,
): Promise<{ records: Ticket[]; next: string | null }> {
  const { rows, next } = await pageOf(context, 'tickets', { key: 'number', where: state ? { state } : {} }, asked);
  return { records: rows.map(ticketView), next };
}

/** All tickets that are open, newest first. */
export async function openTickets(context: Context): Promise<Ticket[]> {
  return (await list(context, 'tickets', { where: { state: 'open' }, order: [['number', 'DESC']] })).map(ticketView);
}

export async function getTicket(context: Context, id: string): Promise<Ticket> {
  return ticketView(await find(context, 'tickets', id));
}

export async function createTicket(context: Context, request: CreateTicket): Promise<Ticket> {
  await createOnce(context, 'ticket', request, async () => {
    await requireInventory(context, { ...request, compoundId: null });
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
  await requireInventory(context, request);
  const change = { ...request, version: stored.version + 1, changedAt: context.now, byId: context.actor };
  await context.models.tickets.update(change as Partial<Rows['tickets']>, {
    where: { id },
    transaction: context.transaction ?? null,
  });
  return getTicket(context, id);
}

async function requireInventory(
  context: Context,
  ticket: { substrateId: string; headId: string; lensId: string; compoundId: string | null },
): Promise<void> {
  await requireInUse(context, [
    { path: 'substrateId', id: ticket.substrateId },
    { path: 'headId', id: ticket.headId },
    { path: 'lensId', id: ticket.lensId },
    { path: 'compoundId', id: ticket.compoundId },
  ]);
  await loadEquipment(context, ticket);
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

function ticketView({ byId: _by, createdAt, changedAt, ...row }: Rows['tickets']): Ticket {
  return { ...row, createdAt: createdAt.toISOString(), changedAt: changedAt.toISOString() };
}
