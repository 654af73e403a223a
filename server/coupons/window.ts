import { literal, Op } from 'sequelize';
import type { Revisions } from '@unto/contract';
import {
  bearsOn,
  couponWindowCells,
  firedRevisions,
  sameRevisions,
  windowFamilies,
  type CouponWindowCell,
  type ReadOutcome,
  type WindowFamily,
} from '@unto/domain';
import { list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { marksAsNow, pinnedIds } from '../inventory/alike.js';
import { equipmentOf } from '../inventory/service.js';

/** Coupons with scrubbed cells of one compound (null: left bare), and those cells with their settings. */
export interface ScrubbedCells {
  readonly coupons: readonly Rows['coupons'][];
  readonly cells: readonly CouponWindowCell[];
  readonly families: readonly WindowFamily[];
}

/** What was fired where: a compound (null: bare metal) on substrates, under heads. */
export interface FiredOn {
  readonly compoundId: string | null;
  readonly substrateIds: readonly string[];
  readonly headIds: readonly string[];
  readonly lensId?: string | undefined;
}

/** Coupons of a pairing with a scrubbed reading, newest first: those that were sprayed with it whole, in part, or left bare in part. */
export async function scrubbedCoupons(context: Context, pairing: FiredOn): Promise<Rows['coupons'][]> {
  const { substrateIds, headIds, lensId } = pairing;
  const rows = await list(context, 'coupons', {
    where: {
      substrateId: { [Op.in]: [...substrateIds] },
      headId: { [Op.in]: [...headIds] },
      ...(lensId ? { lensId } : {}),
      burntAt: { [Op.ne]: null },
      id: { [Op.in]: literal(`(SELECT coupon_id FROM readings WHERE stage = 'scrubbed')`) },
    },
    order: [['number', 'DESC']],
  });
  return rows.filter((coupon) => bearsOn(coupon, pairing.compoundId));
}

/** The scrubbed cells of some coupons that speak of one compound, in families. */
export async function scrubbedCells(
  context: Context,
  coupons: readonly Rows['coupons'][],
  compoundId: string | null,
): Promise<ScrubbedCells> {
  const outcomes = await scrubbedOutcomes(
    context,
    coupons.map(({ id }) => id),
  );
  // Coupons of a pairing were mostly fired on the same revisions: each is looked up once.
  const equipment = new Map<string, ReturnType<typeof equipmentOf>>();
  const under = ({ revisions }: Rows['coupons']) => {
    const key = JSON.stringify({ ...revisions, compound: null });
    if (!equipment.has(key)) equipment.set(key, equipmentOf(context, revisions));
    return equipment.get(key)!;
  };
  const cells: CouponWindowCell[] = [];
  for (const coupon of coupons)
    cells.push(...couponWindowCells(coupon, compoundId, outcomes.get(coupon.id) ?? new Map(), await under(coupon)));
  return { coupons, cells, families: windowFamilies(cells) };
}

/** Coupons as if they had been fired on the revisions of now, where what these say marks alike. */
export async function couponsAsNow(
  context: Context,
  coupons: readonly Rows['coupons'][],
  now: Revisions,
): Promise<Rows['coupons'][]> {
  if (!coupons.length) return [];
  const pinned = pinnedIds(coupons.map(({ revisions }) => revisions));
  const sprayed = coupons.flatMap(({ firing }) => firing?.compounds.map(({ revision }) => revision) ?? []);
  const as = await marksAsNow(context, now, [...pinned, ...sprayed]);
  return coupons.map((coupon) => {
    const { firing } = coupon;
    const compounds = firing?.compounds.map(({ id, revision }) => ({ id, revision: as.revision(revision) }));
    return {
      ...coupon,
      revisions: as.revisions(coupon.revisions),
      firing: firing && { ...firing, compounds: compounds! },
    };
  });
}

/** Coupons among some that were fired on other revisions than these, as far as a compound is concerned. */
export function onOtherRevisions(
  coupons: readonly Rows['coupons'][],
  compoundId: string | null,
  revisions: Revisions,
): Rows['coupons'][] {
  return coupons.filter((coupon) => !sameRevisions(firedRevisions(coupon, compoundId), revisions));
}

/** Newest scrubbed outcome of every cell, by coupon. */
async function scrubbedOutcomes(
  context: Context,
  couponIds: readonly string[],
): Promise<ReadonlyMap<string, ReadonlyMap<number, ReadOutcome>>> {
  const rows = await list(context, 'cellOutcomes', {
    where: { couponId: { [Op.in]: [...couponIds] }, stage: 'scrubbed' },
    order: [['cell', 'ASC']],
  });
  const byCoupon = new Map<string, Map<number, ReadOutcome>>();
  for (const { couponId, cell, outcome, byEye, lookedAgain, kept: share, keptLimit: limit } of rows) {
    if (!byCoupon.has(couponId)) byCoupon.set(couponId, new Map());
    const kept = share !== null && limit !== null ? { share, limit } : null;
    byCoupon.get(couponId)!.set(cell, { outcome, byEye, lookedAgain, kept });
  }
  return byCoupon;
}
