import { Op } from 'sequelize';
import { deliveredPower, layoutCoupon, type CouponDesign, type Outcome, type WindowCell } from '@unto/core';
import {
  couponLimits,
  powerSource,
  type Coupon,
  type CouponStage,
  type CouponSummary,
  type CreateCoupon,
  type CreateReading,
  type Reading,
} from '@unto/contract';
import { createOnce, find, insert, list, requireVersion, type Context } from '../db/context.js';
import type { Rows } from '../db/models.js';
import { fault, Refusal } from '../http/refusal.js';
import { loadBench, requireInUse } from '../stores/service.js';

export async function createCoupon(context: Context, request: CreateCoupon): Promise<Coupon> {
  await createOnce(context, 'coupon', request, async () => {
    await requireInUse(context, [
      { path: 'substrateId', id: request.substrateId },
      { path: 'compoundId', id: request.compoundId },
      { path: 'headId', id: request.headId },
      { path: 'lensId', id: request.lensId },
    ]);
    const { bench, pins } = await loadBench(context, request);
    const number = await nextNumber(context);
    const design = { ...request.design, code: `K-${String(number).padStart(3, '0')}` };
    const layout = layoutCoupon(design, couponLimits(bench));
    await insert(context, 'coupons', {
      ...request,
      number,
      design,
      cells: layout.cells.length,
      pins,
      version: 1,
      createdAt: context.now,
      burntAt: null,
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
    throw new Refusal('wrong-stage', 'This coupon was burnt as it stands: copy its design to a new one.');
  const { bench, pins } = await loadBench(context, stored);
  const design = { ...request.design, code: stored.design.code };
  const layout = layoutCoupon(design, couponLimits(bench));
  await change(context, id, {
    design,
    pins,
    cells: layout.cells.length,
    focusOffsetMm: request.focusOffsetMm,
    version: stored.version + 1,
  });
  return getCoupon(context, id);
}

export async function markBurnt(context: Context, id: string, version: number): Promise<Coupon> {
  const stored = await find(context, 'coupons', id, { lock: true });
  requireVersion(stored.version, version, await getCoupon(context, id));
  if (!stored.burntAt) await change(context, id, { burntAt: context.now, version: stored.version + 1 });
  return getCoupon(context, id);
}

async function change(context: Context, id: string, values: Partial<Rows['coupons']>): Promise<void> {
  await context.models.coupons.update(values, { where: { id }, transaction: context.transaction ?? null });
}

/** Appends outcomes. A scrubbed reading before any rinsed one is taken: some clean only once, by scrubbing. */
export async function createReading(context: Context, couponId: string, request: CreateReading): Promise<Coupon> {
  await createOnce(context, 'reading', request, async () => {
    const coupon = await find(context, 'coupons', couponId);
    if (!coupon.burntAt)
      throw new Refusal('wrong-stage', 'Say first that the coupon was burnt; there is nothing to read before that.');
    const beyond = request.entries.find(({ cell }) => cell >= coupon.cells);
    if (beyond)
      throw fault('entries', `There is no cell ${beyond.cell + 1}; ${coupon.design.code} has ${coupon.cells}.`);
    const { id, stage, source, entries } = request;
    await insert(context, 'readings', { id, couponId, stage, source, entries, at: context.now, byId: context.actor });
  });
  return getCoupon(context, couponId);
}

export async function getCoupon(context: Context, id: string): Promise<Coupon> {
  const row = await find(context, 'coupons', id);
  const readings = await readingsOf(context, [id]);
  return couponView(row, readings);
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
      const scrubbed = newestOutcomes(own, 'scrubbed');
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

/** Scrubbed cells of some coupons as the window wants them, and whether all were made on these revisions. */
export async function scrubbedCells(
  context: Context,
  couponIds: readonly string[],
): Promise<{ cells: WindowCell[]; coupons: Coupon[] }> {
  const cells: WindowCell[] = [];
  const coupons: Coupon[] = [];
  for (const id of couponIds) {
    const coupon = await getCoupon(context, id);
    coupons.push(coupon);
    const { bench } = await loadBench(context, coupon);
    const source = powerSource(bench);
    const layout = layoutCoupon(coupon.design, couponLimits(bench));
    for (const [cell, outcome] of newestOutcomes(coupon.readings, 'scrubbed')) {
      const { powerPercent, speedMmPerS, intervalMm, reachable } = layout.cells[cell]!;
      if (reachable)
        cells.push({
          powerW: deliveredPower(powerPercent, source),
          speedMmPerS,
          intervalMm,
          passes: coupon.design.passes,
          outcome,
        });
    }
  }
  return { cells, coupons };
}

function newestOutcomes(
  readings: readonly { stage: string; entries: readonly { cell: number; outcome: string }[] }[],
  stage: string,
): Map<number, Outcome> {
  const newest = new Map<number, Outcome>();
  for (const reading of readings) {
    if (reading.stage === stage) for (const { cell, outcome } of reading.entries) newest.set(cell, outcome as Outcome);
  }
  return newest;
}

async function readingsOf(context: Context, couponIds: readonly string[]): Promise<Rows['readings'][]> {
  return list(context, 'readings', { where: { couponId: { [Op.in]: [...couponIds] } }, order: [['sequence', 'ASC']] });
}

function stageOf(row: Rows['coupons'], readings: readonly { stage: string }[]): CouponStage {
  if (readings.some(({ stage }) => stage === 'scrubbed')) return 'scrubbed';
  if (readings.some(({ stage }) => stage === 'rinsed')) return 'rinsed';
  return row.burntAt ? 'burnt' : 'designed';
}

function couponView(row: Rows['coupons'], readings: readonly Rows['readings'][]): Coupon {
  const { number: _number, cells: _cells, byId, createdAt, burntAt, ...rest } = row;
  return {
    ...rest,
    stage: stageOf(row, readings),
    createdAt: createdAt.toISOString(),
    burntAt: burntAt?.toISOString() ?? null,
    by: byId,
    readings: readings.map(
      ({ id, stage, source, entries, at, byId: reader }) =>
        ({ id, stage, source, entries, at: at.toISOString(), by: reader }) as Reading,
    ),
  };
}
