import { Op } from 'sequelize';
import { list, type Context } from '../db/context.js';

/** Titles of the tickets that some rows belong to, by id, in one query. */
export async function ticketTitles(
  context: Context,
  rows: readonly { readonly ticketId: string | null }[],
): Promise<ReadonlyMap<string, string>> {
  const ids = [...new Set(rows.map(({ ticketId }) => ticketId))].filter((id) => id !== null);
  const tickets = ids.length
    ? await list(context, 'tickets', {
        where: { id: { [Op.in]: ids } },
        attributes: ['id', 'title'],
      })
    : [];
  return new Map(tickets.map(({ id, title }) => [id, title]));
}
