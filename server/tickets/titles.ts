import { Op } from 'sequelize';
import { list, type Context } from '../db/context.js';

/** Titles of the tickets that some rows belong to, by id, in one query. */
export async function ticketTitles(
  context: Context,
  rows: readonly { readonly ticketId: string }[],
): Promise<ReadonlyMap<string, string>> {
  const ids = [...new Set(rows.map(({ ticketId }) => ticketId))];
  const tickets = ids.length ? await list(context, 'tickets', { where: { id: { [Op.in]: ids } } }) : [];
  return new Map(tickets.map(({ id, title }) => [id, title]));
}
