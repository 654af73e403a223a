import { Op } from 'sequelize';
import type { ChangeTicket, Check, CreateCheck, CreateTicket, ListTicketsQuery, Ticket } from '@unto/contract';
import { type Context, createOnce, find, insert, list, OLDEST_FIRST, requireVersion } from '../db/context.js';
import { pageOf } from '../db/page.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
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
  await requirePieces(context, id, request.pieces);
  const other = (key: 'substrateId' | 'headId' | 'lensId') => request[key] !== stored[key];
  const restarts = other('substrateId') || other('headId') || other('lensId');
  // A compound that was chosen for another part is no choice for this one.
  const unchosen = other('substrateId') && request.compoundId === stored.compoundId;
  // A size typed by hand is another mark than the artwork's.
  const resized = request.markWidthMm !== stored.markWidthMm || request.markHeightMm !== stored.markHeightMm;
  const change = {
    ...request,
    ...(resized ? { layoutId: null, sweptWidthMm: null, sweptHeightMm: null } : {}),
    ...(unchosen ? { compoundId: null, choiceReason: '' } : {}),
    ...(restarts ? { restartedAt: context.now } : {}),
    version: stored.version + 1,
    changedAt: context.now,
    byId: context.actor,
  };
  await context.models.tickets.update(change as Partial<Rows['tickets']>, {
    where: { id },
    transaction: context.transaction ?? null,
  });
  return getTicket(context, id);
}

/** A ticket has no fewer pieces than are marked and good. */
async function requirePieces(context: Context, ticketId: string, pieces: number): Promise<void> {
  const [row] = await list(context, 'ticketProgress', { where: { ticketId } });
  const good = row ? row.markedPieces - row.rejectedPieces : 0;
  if (pieces < good) throw fault('pieces', `${good} pieces are marked already: the ticket has no fewer.`);
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
  return (await standingChecks(context, [ticketId])).map(
    ({ byId, at, ...row }) => ({ ...row, at: at.toISOString(), by: byId }) as Check,
  );
}

/** What is ticked off or understood on some tickets and was not taken back since, nor begun anew with another part or head. */
export async function standingChecks(context: Context, ticketIds: readonly string[]): Promise<Rows['checks'][]> {
  const among = { [Op.in]: [...ticketIds] };
  const rows = await list(context, 'checks', { where: { ticketId: among }, order: OLDEST_FIRST });
  const tickets = await list(context, 'tickets', { where: { id: among }, attributes: ['id', 'restartedSequence'] });
  const restarted = new Map(tickets.map(({ id, restartedSequence }) => [id, restartedSequence]));
  const standing = new Map<string, Rows['checks']>();
  for (const row of rows) {
    const key = [row.ticketId, row.station, row.code].join(' ');
    const since = restarted.get(row.ticketId);
    if (row.kind === 'taken back') standing.delete(key);
    else if (row.kind === 'caution' || !since || row.sequence > since) standing.set(key, row);
  }
  return [...standing.values()];
}

function ticketView({
  byId: _by,
  restartedAt: _restarted,
  restartedSequence: _place,
  createdAt,
  changedAt,
  ...row
}: Rows['tickets']): Ticket {
  return { ...row, createdAt: createdAt.toISOString(), changedAt: changedAt.toISOString() };
}
