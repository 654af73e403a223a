import { Op } from 'sequelize';
import type { TicketWindow } from '@unto/contract';
import { couponWindowCells, sameRevisions, type CouponWindowCell } from '@unto/domain';
import type { Outcome } from '@unto/core';
import { find, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { loadEquipment } from '../inventory/service.js';

/** Coupons with a scrubbed reading and their cells as a window takes them. */
export interface ScrubbedCells {
  readonly coupons: Rows['coupons'][];
  readonly cells: CouponWindowCell[];
}

/** Scrubbed cells of some coupons, in the order these are given. */
export async function scrubbedCells(context: Context, couponIds: readonly string[]): Promise<ScrubbedCells> {
  const rows = await list(context, 'coupons', { where: { id: { [Op.in]: [...couponIds] } } });
  const byId = new Map(rows.map((row) => [row.id, row]));
  const coupons = await Promise.all(couponIds.map((id) => byId.get(id) ?? find(context, 'coupons', id)));
  return { coupons, cells: await cellsOf(context, coupons) };
}

/** The scrubbed coupons of a ticket's pairing, newest first, and their cells: what its window is fitted to. */
export async function ticketWindow(context: Context, ticketId: string): Promise<TicketWindow> {
  const ticket = await find(context, 'tickets', ticketId);
  const { substrateId, compoundId, headId, lensId } = ticket;
  const scrubbed = await list(context, 'couponStages', { where: { stage: 'scrubbed' }, attributes: ['couponId'] });
  const coupons = await list(context, 'coupons', {
    where: { substrateId, compoundId, headId, lensId, id: { [Op.in]: scrubbed.map(({ couponId }) => couponId) } },
    order: [['number', 'DESC']],
  });
  const cells = await cellsOf(context, coupons);
  const { revisions } = await loadEquipment(context, ticket);
  return {
    coupons: coupons.map((coupon) => ({
      id: coupon.id,
      code: coupon.design.code,
      version: coupon.version,
      focusOffsetMm: coupon.focusOffsetMm,
      sameRevisions: sameRevisions(coupon.revisions, revisions),
      cells: coupon.cells,
    })),
    cells,
  };
}

async function cellsOf(context: Context, coupons: readonly Rows['coupons'][]): Promise<CouponWindowCell[]> {
  const outcomes = await scrubbedOutcomes(
    context,
    coupons.map(({ id }) => id),
  );
  // Coupons of a pairing mostly stood under the same head and lens: each is looked up once.
  const equipment = new Map<string, ReturnType<typeof loadEquipment>>();
  const under = (coupon: Rows['coupons']) => {
    const { substrateId, headId, lensId } = coupon;
    const key = [substrateId, headId, lensId].join();
    if (!equipment.has(key)) equipment.set(key, loadEquipment(context, { substrateId, headId, lensId }));
    return equipment.get(key)!;
  };
  const cells: CouponWindowCell[] = [];
  for (const coupon of coupons)
    cells.push(...couponWindowCells(coupon, outcomes.get(coupon.id) ?? new Map(), (await under(coupon)).equipment));
  return cells;
}

/** Newest scrubbed outcome of every cell, by coupon. */
async function scrubbedOutcomes(
  context: Context,
  couponIds: readonly string[],
): Promise<ReadonlyMap<string, ReadonlyMap<number, Outcome>>> {
  const rows = await list(context, 'cellOutcomes', {
    where: { couponId: { [Op.in]: [...couponIds] }, stage: 'scrubbed' },
    order: [['cell', 'ASC']],
  });
  const byCoupon = new Map<string, Map<number, Outcome>>();
  for (const { couponId, cell, outcome } of rows) {
    if (!byCoupon.has(couponId)) byCoupon.set(couponId, new Map());
    byCoupon.get(couponId)!.set(cell, outcome);
  }
  return byCoupon;
}
