import { Op } from 'sequelize';
import type { Coupon, CouponPicture, CouponStage, CouponSummary, Burn, Reading } from '@unto/contract';
import { couponWindowCells, newestOutcomes } from '@unto/domain';
import type { WindowCell } from '@unto/core';
import { find, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models.js';
import { loadBench } from '../stores/service.js';

/** A coupon with its run, pictures and readings. */
export async function getCoupon(context: Context, id: string): Promise<Coupon> {
  const row = await find(context, 'coupons', id);
  const readings = await readingsOf(context, [id]);
  return couponView(row, readings, await newestBurn(context, id), await couponPicturesOf(context, id));
}

/** Coupons as a list, newest first. */
export async function listCoupons(
  context: Context,
  query: { ticketId?: string; stage?: string },
): Promise<CouponSummary[]> {
  const rows = await list(context, 'coupons', {
    where: query.ticketId ? { ticketId: query.ticketId } : {},
    order: [['number', 'DESC']],
  });
  const readings = await readingsOf(
    context,
    rows.map(({ id }) => id),
  );
  const titles = new Map(
    (await list(context, 'tickets', { attributes: ['id', 'title'] })).map(({ id, title }) => [id, title]),
  );
  return rows
    .map((row) => {
      const own = readings.filter(({ couponId }) => couponId === row.id);
      const scrubbed = newestOutcomes({ readings: own }, 'scrubbed');
      return {
        id: row.id,
        code: row.design.code,
        stage: stageOf(row, own),
        ticketId: row.ticketId,
        ticketTitle: row.ticketId ? (titles.get(row.ticketId) ?? null) : null,
        substrateId: row.substrateId,
        compoundId: row.compoundId,
        headId: row.headId,
        lensId: row.lensId,
        cells: row.cells,
        scrubbedCells: scrubbed.size,
        holds: [...scrubbed.values()].filter((outcome) => outcome === 'holds').length,
        createdAt: row.createdAt.toISOString(),
      };
    })
    .filter((summary) => !query.stage || summary.stage === query.stage);
}

/** Scrubbed cells of some coupons as the window wants them, and the coupons. */
export async function scrubbedCells(
  context: Context,
  couponIds: readonly string[],
): Promise<{ cells: WindowCell[]; coupons: Rows['coupons'][] }> {
  const cells: WindowCell[] = [];
  const coupons: Rows['coupons'][] = [];
  const readings = await readingsOf(context, couponIds);
  for (const id of couponIds) {
    const coupon = await find(context, 'coupons', id);
    coupons.push(coupon);
    const { bench } = await loadBench(context, coupon);
    const own = { ...coupon, readings: readings.filter(({ couponId }) => couponId === id) };
    for (const { powerW, speedMmPerS, intervalMm, passes, outcome } of couponWindowCells(own, bench))
      cells.push({ powerW, speedMmPerS, intervalMm, passes, outcome });
  }
  return { cells, coupons };
}

/** The newest run of a coupon as the client sees it. */
async function newestBurn(context: Context, couponId: string): Promise<Burn | null> {
  const [row] = await list(context, 'burns', { where: { couponId }, order: [['startedAt', 'DESC']], limit: 1 });
  if (!row) return null;
  const { id, state, elapsedS, totalS, cellsDone, cell, message, startedAt, endedAt, byId } = row;
  return {
    id,
    state,
    elapsedS,
    totalS,
    cellsDone,
    cell,
    message,
    startedAt: startedAt.toISOString(),
    endedAt: endedAt?.toISOString() ?? null,
    by: byId,
  };
}

/** Pictures of a coupon, oldest first. */
async function couponPicturesOf(context: Context, couponId: string): Promise<CouponPicture[]> {
  const rows = await list(context, 'couponPictures', { where: { couponId }, order: [['at', 'ASC']] });
  return rows.map(({ id, stage, entries, at, byId }) => ({
    id,
    couponId,
    stage,
    entries,
    at: at.toISOString(),
    by: byId,
  }));
}

async function readingsOf(context: Context, couponIds: readonly string[]): Promise<Rows['readings'][]> {
  return list(context, 'readings', { where: { couponId: { [Op.in]: [...couponIds] } }, order: [['sequence', 'ASC']] });
}

function stageOf(row: Rows['coupons'], readings: readonly { stage: string }[]): CouponStage {
  if (readings.some(({ stage }) => stage === 'scrubbed')) return 'scrubbed';
  if (readings.some(({ stage }) => stage === 'rinsed')) return 'rinsed';
  return row.burntAt ? 'burnt' : 'designed';
}

function couponView(
  row: Rows['coupons'],
  readings: readonly Rows['readings'][],
  burn: Burn | null,
  pictures: readonly CouponPicture[],
): Coupon {
  const { number: _number, cells: _cells, byId, createdAt, burntAt, ...rest } = row;
  return {
    ...rest,
    stage: stageOf(row, readings),
    createdAt: createdAt.toISOString(),
    burntAt: burntAt?.toISOString() ?? null,
    by: byId,
    burn,
    pictures,
    readings: readings.map(
      ({ id, stage, source, pictureId, rules, entries, at, byId: reader }) =>
        ({ id, stage, source, pictureId, rules, entries, at: at.toISOString(), by: reader }) as Reading,
    ),
  };
}
