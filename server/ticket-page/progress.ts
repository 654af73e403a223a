import { Op } from 'sequelize';
import type { StationState } from '@unto/core';
import type { Ticket, TicketProgress } from '@unto/contract';
import { stationStates } from '@unto/domain';
import { list, together, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { listInventory } from '../inventory/service.js';
import { newestFittings } from '../place/fittings.js';
import { openTickets } from '../tickets/service.js';

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
  const ids = tickets.map(({ id }) => id);
  const [progress, checks, fittings, substrates, compounds, heads] = await together(
    context,
    () => progressOf(context, ids),
    () => list(context, 'checks', { where: { ticketId: { [Op.in]: ids }, kind: 'check' } }),
    () => newestFittings(context),
    () => listInventory(context, { kind: 'substrate', retired: 1 }),
    () => listInventory(context, { kind: 'compound', retired: 1 }),
    () => listInventory(context, { kind: 'head', retired: 1 }),
  );
  const bodyIn = <B>(items: readonly { readonly id: string; readonly body: B }[], id: string | null) =>
    items.find((item) => item.id === id)?.body ?? null;
  return tickets.map((ticket) => {
    const fitting = fittings.get(bodyIn(heads, ticket.headId)!.machineId) ?? null;
    const own = checks.filter(({ ticketId }) => ticketId === ticket.id);
    const facts = {
      ticket,
      progress: progress.get(ticket.id)!,
      checks: own.map(({ at, station, kind, code }) => ({ station, kind, code, at: at.toISOString() })),
      fitting,
      substrate: bodyIn(substrates, ticket.substrateId)!,
      compound: bodyIn(compounds, ticket.compoundId),
      fittedName: bodyIn(heads, fitting?.headId ?? null)?.name ?? '',
    };
    return { ticket, stations: stationStates(facts, context.now) };
  });
}
