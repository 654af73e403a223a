import { layoutCoupon, type CouponDesign } from '@unto/core';
import type { Coupon, CreateCoupon, MarkBurnt } from '@unto/contract';
import { couponLimits } from '@unto/domain';
import { createOnce, find, insert, requireVersion, type Context } from '../db/context.js';
import { ApiError } from '../errors/api-error.js';
import { requireFitted } from '../place/fittings.js';
import { loadEquipment, requireInUse } from '../inventory/service.js';
import { refuseWetCoat } from '../timers/wet-coat.js';
import { requireNoBurn } from '../burns/burns.js';
import { changeCoupon } from './change.js';
import { freezeFiring } from './firing.js';
import { getCoupon } from './view.js';

export async function createCoupon(context: Context, request: CreateCoupon): Promise<Coupon> {
  await createOnce(context, 'coupon', request, async () => {
    await requireInUse(context, [
      { path: 'substrateId', id: request.substrateId },
      { path: 'compoundId', id: request.compoundId },
      { path: 'headId', id: request.headId },
      { path: 'lensId', id: request.lensId },
    ]);
    const { equipment, revisions } = await loadEquipment(context, request);
    const number = await nextNumber(context);
    const design = { ...request.design, code: `K-${String(number).padStart(3, '0')}` };
    const layout = layoutCoupon(design, couponLimits(equipment));
    await insert(context, 'coupons', {
      ...request,
      number,
      design,
      cells: layout.cells.length,
      revisions,
      version: 1,
      createdAt: context.now,
      burntAt: null,
      burntCells: null,
      firing: null,
      byId: context.actor,
    });
  });
  return getCoupon(context, request.id);
}

async function nextNumber(context: Context): Promise<number> {
  const [rows] = await context.sequelize.query(
    `SELECT nextval(pg_get_serial_sequence('coupons', 'number')) AS number`,
    {
      transaction: context.transaction ?? null,
    },
  );
  return (rows as { number: number }[])[0]!.number;
}

/** Redesigns a coupon that is not burnt yet; it is then made on the newest revisions. */
export async function redesignCoupon(
  context: Context,
  id: string,
  request: { version: number; focusOffsetMm: number; design: CouponDesign },
): Promise<Coupon> {
  const stored = await find(context, 'coupons', id, { lock: true });
  requireVersion(stored.version, request.version, await getCoupon(context, id));
  if (stored.burntAt)
    throw new ApiError('wrong-stage', 'This coupon was burnt as it stands: copy its design to a new one.');
  await requireNoBurn(context, { couponId: id });
  const { equipment, revisions } = await loadEquipment(context, stored);
  const design = { ...request.design, code: stored.design.code };
  const layout = layoutCoupon(design, couponLimits(equipment));
  await changeCoupon(context, id, {
    design,
    revisions,
    cells: layout.cells.length,
    focusOffsetMm: request.focusOffsetMm,
    version: stored.version + 1,
  });
  return getCoupon(context, id);
}

/** Says that a coupon was fired by hand, and freezes what is in force. A wet coat is never fired. */
export async function markBurnt(context: Context, id: string, { version, notes }: MarkBurnt): Promise<Coupon> {
  const stored = await find(context, 'coupons', id, { lock: true });
  requireVersion(stored.version, version, await getCoupon(context, id));
  if (stored.burntAt) return getCoupon(context, id);
  await requireNoBurn(context, { couponId: id });
  await requireFitted(context, stored);
  if (stored.ticketId) await refuseWetCoat(context, stored.ticketId);
  const frozen = await freezeFiring(context, stored, notes);
  await changeCoupon(context, id, { ...frozen, burntAt: context.now, version: stored.version + 1 });
  return getCoupon(context, id);
}
