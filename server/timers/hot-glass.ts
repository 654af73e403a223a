import { literal, Op } from 'sequelize';
import { isVitreous } from '@unto/core';
import { COOL_S } from '@unto/contract';
import { list, type Context } from '../db/context.js';
import { ApiError } from '../errors/api-error.js';
import { inventoryItem } from '../inventory/service.js';

/**
 * Refuses to rinse glass and its kin while it is hot: a quarter of an hour after the beam, unless its cooling clock was ended since.
 * @param ticketId null for a coupon of no ticket, which has no clock
 */
export async function refuseHotGlass(
  context: Context,
  table: 'runs' | 'coupons',
  fired: { readonly id: string; readonly ticketId: string | null; readonly substrateId: string; readonly at: Date },
): Promise<void> {
  const { body } = await inventoryItem(context, 'substrate', fired.substrateId);
  if (!isVitreous(body.family)) return;
  const firing = table === 'runs' ? 'sequence' : 'burnt_sequence';
  const after = literal(`sequence > (SELECT ${firing} FROM ${table} WHERE id = '${fired.id}')`);
  const own = { ticketId: fired.ticketId, kind: 'cool' };
  const since = fired.ticketId ? await list(context, 'timers', { where: { [Op.and]: [own, after] } }) : [];
  if (since.some(({ outcome }) => outcome === 'passed')) return;
  // A clock that was set back leaves no more to go than the whole.
  const leftS = Math.min(COOL_S, COOL_S - (context.now.getTime() - fired.at.getTime()) / 1000);
  const running = since.some(({ endedAt }) => endedAt === null);
  if (leftS > 0 || running)
    throw new ApiError(
      'wrong-stage',
      `Hot ${body.family} cracks when rinsed: ${leftS > 0 ? `${Math.ceil(leftS / 60)} min to go` : 'end its cooling clock'}, and only once it is cool to the hand.`,
    );
}
