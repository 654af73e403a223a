import { literal, Op } from 'sequelize';
import type { Coupon, CouponPicture, CouponStage, CouponSummary, ListCouponsQuery, Reading } from '@unto/contract';
import { newestBurn } from '../burns/burns.js';
import { type Context, find, isId, list, OLDEST_FIRST, together } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { pageOf } from '../db/page.js';
import { ticketTitles, type TitledTicket } from '../tickets/titles.js';

/** A coupon with its run, pictures and readings. */
export async function getCoupon(context: Context, id: string): Promise<Coupon> {
  // First, so that a run that has ended is never shown with the coupon as it was before.
  const burn = isId(id) ? await newestBurn(context, { couponId: id }) : null;
  const [row, readings, pictures, [staged]] = await together(
    context,
    () => find(context, 'coupons', id),
    () => readingsOf(context, id),
    () => couponPicturesOf(context, id),
    () => list(context, 'couponStages', { where: { couponId: id } }),
  );
  return couponView({ row, stage: staged!.stage, readings, burn, pictures });
}

/** A page of coupons, newest first. */
export async function listCoupons(
  context: Context,
  { ticketId, stage, ...asked }: ListCouponsQuery,
): Promise<{ records: CouponSummary[]; next: string | null }> {
  const where = {
    ...(ticketId ? { ticketId } : {}),
    ...(stage ? { id: { [Op.in]: literal(`(SELECT coupon_id FROM coupon_stage WHERE stage = '${stage}')`) } } : {}),
  };
  const { rows, next } = await pageOf(context, 'coupons', { key: 'number', where }, asked);
  return { records: await summaries(context, rows), next };
}

/** All coupons of a ticket, newest first. */
export async function couponsOf(context: Context, ticket: TitledTicket): Promise<CouponSummary[]> {
  const rows = await list(context, 'coupons', { where: { ticketId: ticket.id }, order: [['number', 'DESC']] });
  return summaries(context, rows, ticket);
}

/** Coupons that were burnt and not scrubbed yet, newest first. */
export async function couponsWaiting(context: Context): Promise<CouponSummary[]> {
  const waiting = await list(context, 'couponStages', {
    where: { stage: ['burnt', 'rinsed'] },
    attributes: ['couponId'],
  });
  const ids = waiting.map(({ couponId }) => couponId);
  return summaries(
    context,
    await list(context, 'coupons', { where: { id: { [Op.in]: ids } }, order: [['number', 'DESC']] }),
  );
}

async function summaries(
  context: Context,
  rows: readonly Rows['coupons'][],
  atHand?: TitledTicket,
): Promise<CouponSummary[]> {
  const among = { where: { couponId: { [Op.in]: rows.map(({ id }) => id) } } };
  const [stages, counts, titles] = await together(
    context,
    () => list(context, 'couponStages', among),
    () => scrubbedCounts(context, rows),
    () => ticketTitles(context, rows, atHand),
  );
  const stageOf = new Map(stages.map((row) => [row.couponId, row.stage]));
  return rows.map((row) => ({
    id: row.id,
    code: row.design.code,
    stage: stageOf.get(row.id)!,
    ticketId: row.ticketId,
    ticketTitle: row.ticketId ? (titles.get(row.ticketId) ?? null) : null,
    substrateId: row.substrateId,
    compoundId: row.compoundId,
    headId: row.headId,
    lensId: row.lensId,
    cells: row.cells,
    scrubbedCells: counts.get(row.id)?.scrubbed ?? 0,
    holds: counts.get(row.id)?.holds ?? 0,
    createdAt: row.createdAt.toISOString(),
  }));
}

/** Cells with a scrubbed outcome, and those that held, by coupon. */
async function scrubbedCounts(
  context: Context,
  rows: readonly Rows['coupons'][],
): Promise<ReadonlyMap<string, { scrubbed: number; holds: number }>> {
  if (rows.length === 0) return new Map();
  const [counted] = await context.sequelize.query(
    `SELECT coupon_id AS id, count(*)::int AS scrubbed, (count(*) FILTER (WHERE outcome = 'holds'))::int AS holds
     FROM cell_outcomes WHERE stage = 'scrubbed' AND coupon_id IN (:ids) GROUP BY coupon_id`,
    { replacements: { ids: rows.map(({ id }) => id) }, transaction: context.transaction ?? null },
  );
  return new Map((counted as { id: string; scrubbed: number; holds: number }[]).map((row) => [row.id, row]));
}

/** Pictures of a coupon, oldest first. */
async function couponPicturesOf(context: Context, couponId: string): Promise<CouponPicture[]> {
  const rows = await list(context, 'couponPictures', { where: { couponId }, order: OLDEST_FIRST });
  return rows.map(({ id, stage, entries, at, byId }) => ({
    id,
    couponId,
    stage,
    entries,
    at: at.toISOString(),
    by: byId,
  }));
}

/** Readings of a coupon, oldest first. */
async function readingsOf(context: Context, couponId: string): Promise<Rows['readings'][]> {
  return list(context, 'readings', { where: { couponId }, order: [['sequence', 'ASC']] });
}

function couponView({
  row,
  stage,
  readings,
  burn,
  pictures,
}: {
  row: Rows['coupons'];
  stage: CouponStage;
  readings: readonly Rows['readings'][];
  burn: Coupon['burn'];
  pictures: readonly CouponPicture[];
}): Coupon {
  const { number: _number, cells: _cells, byId, createdAt, burntAt, ...rest } = row;
  return {
    ...rest,
    stage,
    createdAt: createdAt.toISOString(),
    burntAt: burntAt?.toISOString() ?? null,
    by: byId,
    burn,
    pictures,
    readings: readings.map(readingView),
  };
}

function readingView({ id, stage, source, pictureId, rules, entries, at, byId }: Rows['readings']): Reading {
  return { id, stage, source: source as Reading['source'], pictureId, rules, entries, at: at.toISOString(), by: byId };
}
