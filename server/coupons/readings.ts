import {
  contrastRanges,
  keptShare,
  proposeOutcome,
  TYPICAL_PRINT,
  type CellMeasure,
  type OutcomeRules,
} from '@unto/core';
import type { Coupon, CreateReading } from '@unto/contract';
import { type Context, createOnce, find, insert, list, NEWEST_FIRST } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault, ApiError } from '../errors/api-error.js';
import { refuseHotGlass } from '../timers/hot-glass.js';
import { getCoupon } from './view.js';

type Entry = CreateReading['entries'][number];

/** Appends outcomes. A scrubbed reading before any rinsed one is taken: some clean only once, by scrubbing. */
export async function createReading(context: Context, couponId: string, request: CreateReading): Promise<Coupon> {
  await createOnce(context, 'reading', request, async () => {
    const coupon = await find(context, 'coupons', couponId);
    if (!coupon.burntAt)
      throw new ApiError('wrong-stage', 'Say first that the coupon was burnt; there is nothing to read before that.');
    await refuseHotGlass(context, 'coupons', { ...coupon, at: coupon.burntAt });
    requireBurntCells(coupon, request.entries);
    if (request.source === 'again') await requireRead(context, coupon, request);
    const { id, stage, source, pictureId = null, rules = null } = request;
    const entries =
      source === 'picture'
        ? await judged(context, coupon, request)
        : request.entries.map(({ kept: _kept, ...entry }) => entry);
    const row = { id, couponId, stage, source, pictureId, rules, entries, at: context.now, byId: context.actor };
    await insert(context, 'readings', row);
  });
  return getCoupon(context, couponId);
}

function requireBurntCells({ cells, design, burntCells }: Rows['coupons'], entries: readonly Entry[]): void {
  const beyond = entries.find(({ cell }) => cell >= cells);
  if (beyond) throw fault('entries', `There is no cell ${beyond.cell + 1}; ${design.code} has ${cells}.`);
  const unburnt = burntCells && entries.find(({ cell }) => !burntCells.includes(cell));
  if (unburnt) throw fault('entries', `Cell ${unburnt.cell + 1} was not burnt whole: the run broke off. Leave it out.`);
}

/** Nobody looks again at what nobody read. */
async function requireRead(context: Context, { id, design }: Rows['coupons'], { stage, entries }: CreateReading) {
  const read = await list(context, 'cellOutcomes', { where: { couponId: id, stage } });
  const unread = entries.find(({ cell }) => !read.some((one) => one.cell === cell));
  if (unread) throw fault('entries', `Cell ${unread.cell + 1} of ${design.code} was not read yet: read it first.`);
}

/**
 * Outcomes read from a picture, held against what the rules make of its measures: what was proposed is worked out here, and whoever
 * took another outcome says why.
 */
async function judged(context: Context, coupon: Rows['coupons'], request: CreateReading): Promise<Entry[]> {
  const { pictureId, rules, stage } = request;
  if (!pictureId || !rules) throw fault('pictureId', 'Outcomes from a picture name the picture and the rules.');
  const picture = await find(context, 'couponPictures', pictureId);
  if (picture.couponId !== coupon.id || picture.stage !== stage)
    throw fault('pictureId', 'That picture shows another coupon or another stage.');
  const before = stage === 'scrubbed' ? await rinsedPicture(context, coupon.id) : null;
  const tone = await toneOf(context, coupon);
  const range = contrastRanges(picture.entries.print ?? TYPICAL_PRINT);
  return request.entries.map(({ cell, outcome, reason }) => {
    const measure: CellMeasure = picture.entries.cells[cell]!;
    const earlier = before ? { measure: before.entries.cells[cell]!, noise: before.entries.noise } : null;
    const found = proposeOutcome(measure, earlier, rules as OutcomeRules, tone, range);
    // What turns on a print that is not known is not proposed: whoever keeps it has looked.
    const proposed = found?.sure ? found.outcome : undefined;
    if (outcome !== found?.outcome && !reason?.trim())
      throw fault(
        'entries',
        `Cell ${cell + 1} was taken as other than the picture ${found ? 'proposes' : 'can tell'}: say why.`,
      );
    const kept = earlier && keptShare(measure, earlier);
    return {
      ...{ cell, outcome },
      ...(proposed ? { proposed } : {}),
      ...(typeof kept === 'number' ? { kept } : {}),
      ...(reason?.trim() ? { reason: reason.trim() } : {}),
    };
  });
}

/** The newest picture after the rinse, against which the scrubbed one is held. */
async function rinsedPicture(context: Context, couponId: string): Promise<Rows['couponPictures'] | null> {
  const [row] = await list(context, 'couponPictures', {
    where: { couponId, stage: 'rinsed' },
    order: NEWEST_FIRST,
    limit: 1,
  });
  return row ?? null;
}

/** Dark on light unless the ticket aims at light on dark. */
async function toneOf(context: Context, { ticketId }: Rows['coupons']): Promise<'dark on light' | 'light on dark'> {
  return ticketId ? (await find(context, 'tickets', ticketId)).aim.tone : 'dark on light';
}
