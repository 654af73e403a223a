import { Op } from 'sequelize';
import type { StationState } from '@unto/core';
import type { InventoryBodyOf, InventoryKind, Ticket, TicketProgress } from '@unto/contract';
import { stationStates, type StationFacts } from '@unto/domain';
import { list, together, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { itemsById } from '../inventory/service.js';
import { newestFittings } from '../place/fittings.js';
import { askedOf } from '../questions/service.js';
import { openTickets, standingChecks } from '../tickets/service.js';

/** How far some tickets are, by ticket. */
export async function progressOf(
  context: Context,
  ticketIds: readonly string[],
): Promise<ReadonlyMap<string, TicketProgress>> {
  const rows = await list(context, 'ticketProgress', { where: { ticketId: { [Op.in]: [...ticketIds] } } });
  return new Map(rows.map((row) => [row.ticketId, progressView(row)]));
}

function progressView({ ticketId: _, storedUntil, dryingUntil, ...row }: Rows['ticketProgress']): TicketProgress {
  return {
    ...row,
    storedUntil: storedUntil?.toISOString() ?? null,
    dryingUntil: dryingUntil?.toISOString() ?? null,
  };
}

/** Open tickets with the state of their stations. */
export async function openTicketLines(context: Context): Promise<{ ticket: Ticket; stations: StationState[] }[]> {
  const tickets = await openTickets(context);
  const facts = await stationFacts(context, tickets);
  return tickets.map((ticket, i) => ({ ticket, stations: stationStates(facts[i]!, context.now) }));
}

/** What the station lines of some tickets are told from, in their order. */
export async function stationFacts(context: Context, tickets: readonly Ticket[]): Promise<StationFacts[]> {
  const ids = tickets.map(({ id }) => id);
  const [progress, checks, fittings] = await together(
    context,
    () => progressOf(context, ids),
    async () => (await standingChecks(context, ids)).filter(({ kind }) => kind === 'check'),
    () => newestFittings(context),
  );
  const named = tickets.flatMap(({ substrateId, compoundId, headId }) => [substrateId, headId, compoundId ?? '']);
  const fitted = [...fittings.values()].map(({ headId }) => headId);
  const items = await itemsById(context, [...named, ...fitted]);
  const bodyOf = <K extends InventoryKind>(id: string | null) =>
    (items.get(id ?? '')?.body ?? null) as InventoryBodyOf[K] | null;
  const fittingOf = ({ headId }: Ticket) => fittings.get(bodyOf<'head'>(headId)!.machineId) ?? null;
  const ticketOf = new Map(tickets.map((ticket) => [ticket.id, ticket]));
  const checksOf = (id: string) => checks.filter(({ ticketId }) => ticketId === id);
  const asked = await askedOf(context, tickets, (id) => ({
    checks: checksOf(id),
    fitting: fittingOf(ticketOf.get(id)!),
  }));
  return tickets.map((ticket) => ({
    ticket,
    progress: progress.get(ticket.id)!,
    checks: checksOf(ticket.id).map(({ sequence, station, kind, code }) => ({ station, kind, code, sequence })),
    fitting: fittingOf(ticket),
    questions: asked.get(ticket.id)!,
    substrate: bodyOf<'substrate'>(ticket.substrateId)!,
    compound: bodyOf<'compound'>(ticket.compoundId),
    fittedName: bodyOf<'head'>(fittingOf(ticket)?.headId ?? null)?.name ?? '',
  }));
}
