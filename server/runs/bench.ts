import { literal, Op } from 'sequelize';
import type { RunBench } from '@unto/contract';
import { type Context, list, NEWEST_FIRST, OLDEST_FIRST, together } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { inventoryItem, listInventory } from '../inventory/service.js';

/** What lies under the beam of a ticket now: its coat, focus, blank, and the coupons behind a recipe. */
export async function benchOf(
  context: Context,
  ticket: Rows['tickets'],
  { blankId, couponIds }: { blankId: string | null; couponIds: readonly string[] },
): Promise<RunBench> {
  const [coat, focus, blank, coupons] = await together(
    context,
    () => coatOf(context, ticket.id),
    () => focusOf(context, ticket.id),
    () => blankOf(context, ticket.substrateId, blankId),
    () => couponsOf(context, couponIds),
  );
  return { coat, focus, blank, coupons };
}

async function coatOf(context: Context, ticketId: string): Promise<RunBench['coat']> {
  const where = { ticketId, rinsedOff: false };
  const [row] = await list(context, 'standingWeighings', { where, order: NEWEST_FIRST, limit: 1 });
  if (!row) return null;
  // The drying that passed last, if that was after the coat was weighed.
  const since = literal(`ended_sequence > (SELECT sequence FROM weighings WHERE id = '${row.id}')`);
  const [clock] = await list(context, 'timers', {
    where: { [Op.and]: [{ ticketId, kind: 'dry', outcome: 'passed' }, since] },
    order: [[literal('ended_sequence'), 'DESC']],
    limit: 1,
  });
  const container = await inventoryItem(context, 'container', row.containerId);
  return {
    weighingId: row.id,
    laidG: row.beforeG - row.afterG,
    pieces: row.pieces,
    film: row.film,
    driedS: clock ? Math.round((clock.endedAt!.getTime() - clock.startedAt.getTime()) / 1000) : null,
    container: container.body.name,
    lot: container.body.lot,
  };
}

async function focusOf(context: Context, ticketId: string): Promise<RunBench['focus']> {
  const rows = await list(context, 'placeReadings', {
    where: { ticketId, kind: { [Op.in]: ['focus', 'set'] } },
    order: NEWEST_FIRST,
  });
  const found = rows.find(({ kind }) => kind === 'focus')?.result as { height: { value: number } } | undefined;
  const set = rows.find(({ kind }) => kind === 'set')?.entries as { method: never } | undefined;
  return { foundMm: found?.height.value ?? null, setBy: set?.method ?? null };
}

/** The blank that was named; else the only one of this substrate on the shelf, which it then was. */
async function blankOf(context: Context, substrateId: string, blankId: string | null): Promise<RunBench['blank']> {
  const shelf = await listInventory(context, { kind: 'blank' });
  const own = shelf.filter(({ body }) => body.substrateId === substrateId);
  const item = shelf.find(({ id }) => id === blankId) ?? (own.length === 1 ? own[0] : undefined);
  if (!item) return null;
  const { name, supplier, grade, lot } = item.body;
  return { id: item.id, name, supplier, grade, lot };
}

async function couponsOf(context: Context, ids: readonly string[]): Promise<RunBench['coupons']> {
  if (ids.length === 0) return [];
  const coupons = await list(context, 'coupons', { where: { id: { [Op.in]: [...ids] } } });
  const pictures = await list(context, 'couponPictures', {
    where: { couponId: { [Op.in]: [...ids] } },
    order: OLDEST_FIRST,
    attributes: ['id', 'couponId'],
  });
  const newest = new Map(pictures.map(({ id, couponId }) => [couponId, id]));
  return coupons.map(({ id, design }) => ({ id, code: design.code, pictureId: newest.get(id) ?? null }));
}
