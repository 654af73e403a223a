import { Op } from 'sequelize';
import { list, rowsOf, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';

/** What a coupon was sprayed from, and by whom. */
export interface Sprayed {
  readonly lot: string;
  readonly by: string;
}

/** What coupons were sprayed from: the newest coat of their ticket as they were fired; those that nobody can tell are left out. */
export async function sprayedOf(
  context: Context,
  coupons: readonly Pick<Rows['coupons'], 'id' | 'ticketId' | 'burntAt' | 'compoundId'>[],
): Promise<ReadonlyMap<string, Sprayed>> {
  const tickets = [...new Set(coupons.map(({ ticketId }) => ticketId))].filter((id) => id !== null);
  if (!tickets.length) return new Map();
  const coats = await list(context, 'standingWeighings', {
    where: { ticketId: { [Op.in]: tickets } },
    order: [['at', 'DESC']],
  });
  const revisions = await rowsOf(context, 'inventoryRevisions', new Set(coats.map((coat) => coat.containerRevisionId)));
  const lotOf = new Map(revisions.map(({ id, body }) => [id, String((body as { lot?: string }).lot ?? '')]));
  return new Map(
    coupons.flatMap(({ id, ticketId, burntAt, compoundId }) => {
      const coat = coats.find(
        (one) => one.ticketId === ticketId && one.compoundId === compoundId && (!burntAt || one.at <= burntAt),
      );
      return coat ? [[id, { lot: lotOf.get(coat.containerRevisionId) ?? '', by: coat.byId }] as const] : [];
    }),
  );
}
