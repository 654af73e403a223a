import { Op } from 'sequelize';
import { list, type Context } from '../db/context.js';

/** A ticket whose title need not be asked for. */
export interface TitledTicket {
  readonly id: string;
  readonly title: string;
}

/** Titles of the tickets that some rows belong to, by id, in one query, or in none where they all belong to one that is at hand. */
export async function ticketTitles(
  context: Context,
  rows: readonly { readonly ticketId: string | null }[],
  atHand?: TitledTicket,
): Promise<ReadonlyMap<string, string>> {
  const ids = [...new Set(rows.map(({ ticketId }) => ticketId))].filter((id) => id !== null && id !== atHand?.id);
  const asked = ids.length
    ? await list(context, 'tickets', { where: { id: { [Op.in]: ids } }, attributes: ['id', 'title'] })
    : [];
  return new Map([...asked, ...(atHand ? [atHand] : [])].map(({ id, title }) => [id, title]));
}
