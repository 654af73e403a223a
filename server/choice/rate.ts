import { Op } from 'sequelize';
import {
  areaRate,
  decisive,
  fitWindow,
  makeFigure,
  quickestSetting,
  speedMargin,
  type Figure,
  type Grade,
  rasterTime,
  type SettingJob,
  type WindowCell,
  type WindowPoint,
} from '@unto/core';
import type { Revisions, Ticket, Workshop } from '@unto/contract';
import { sameRevisions, settingJob, windowEquipment, type FittedEquipment } from '@unto/domain';
import { scrubbedCells } from '../coupons/window.js';
import { list, type Context } from '../db/context.js';

/** The fits are for choosing, not for a recipe: one seed for all, so that a choice can be made again. */
export const CHOICE_SEED = 17;
/** Newest scrubbed coupons of a pairing that a rate rests on. */
const NEWEST = 4;
const TYPICAL_SPEED = 150;
const EVEN_BET = 0.5;
/** What another substrate or head of the same kind may do to a rate, as a factor either way (common practice, no source). */
const CARRIED_FACTOR = 1.6;

/** How fast a pairing marks and how many scrubbed coupons speak for it. */
export interface PairingRate {
  readonly rate: Figure | null;
  /** Scrubbed on this very pairing. */
  readonly coupons: number;
  /** Of those, on its present revisions and with a cell that held. */
  readonly held: number;
}

/**
 * The area rate of a compound on a ticket's mark: the quickest setting that holds in the window of its scrubbed coupons, on this very
 * pairing or carried over from substrates and heads of its kind. Null without a scrubbed coupon that held.
 */
export async function pairingRate(
  context: Context,
  where: {
    ticket: Ticket;
    equipment: FittedEquipment;
    revisions: Revisions;
    compoundId: string | null;
    substrates: readonly string[];
    heads: readonly string[];
    shop: Workshop;
  },
): Promise<PairingRate> {
  const { ticket, compoundId, revisions } = where;
  const rows = await list(context, 'coupons', {
    where: {
      compoundId,
      substrateId: { [Op.in]: [...where.substrates] },
      headId: { [Op.in]: [...where.heads] },
      burntAt: { [Op.ne]: null },
    },
    order: [['number', 'DESC']],
  });
  const scrubbed = await scrubbedReadings(
    context,
    rows.map(({ id }) => id),
  );
  const known = rows.filter(({ id }) => scrubbed.has(id));
  const here = known.filter(
    (row) => row.substrateId === ticket.substrateId && row.headId === ticket.headId && row.lensId === ticket.lensId,
  );
  const held = here.filter((row) => scrubbed.get(row.id) === true && sameRevisions(row.revisions, revisions)).length;
  const own = await rateOf(context, here.slice(0, NEWEST), where);
  if (own) return { rate: own, coupons: here.length, held };
  const near = known.filter((row) => !here.includes(row) && row.headId === ticket.headId);
  return { rate: await rateOf(context, near.slice(0, 1), where), coupons: here.length, held };
}

/** Coupons with a scrubbed reading, and whether some cell held. */
async function scrubbedReadings(context: Context, couponIds: readonly string[]): Promise<Map<string, boolean>> {
  const rows = await list(context, 'readings', {
    where: { couponId: { [Op.in]: [...couponIds] }, stage: 'scrubbed' },
    attributes: ['couponId', 'entries'],
  });
  const found = new Map<string, boolean>();
  for (const { couponId, entries } of rows)
    found.set(couponId, found.get(couponId) === true || entries.some(({ outcome }) => outcome === 'holds'));
  return found;
}

async function rateOf(
  context: Context,
  rows: readonly { id: string; revisions: Revisions; substrateId: string }[],
  where: { ticket: Ticket; equipment: FittedEquipment; revisions: Revisions; shop: Workshop },
): Promise<Figure | null> {
  if (rows.length === 0) return null;
  const { ticket, equipment, revisions, shop } = where;
  const { cells } = await scrubbedCells(
    context,
    rows.map(({ id }) => id),
  );
  if (!cells.some(({ outcome }) => outcome === 'holds')) return null;
  const fit = fitWindow({ cells, equipment: windowEquipment(equipment), seed: CHOICE_SEED });
  const mark = { widthMm: ticket.markWidthMm, heightMm: ticket.markHeightMm };
  const job = settingJob(equipment, mark, shop, TYPICAL_SPEED);
  const proved = quickestSetting(fit, job);
  // Nothing meets the shop's bound: the quickest that more likely holds than not, or else the quickest cell that held, says how fast
  // it may be, as a carried number.
  const setting = proved ?? quickestSetting(fit, { ...job, bound: EVEN_BET }) ?? quickestHeld(cells, job);
  const same = rows.every((row) => sameRevisions(row.revisions, revisions));
  const here = rows.every(({ substrateId }) => substrateId === ticket.substrateId);
  const grade: Grade = same && proved ? 'proved' : 'carried';
  const value = areaRate({ ...job, ...setting }, job.motion);
  const margin = speedMargin(fit, setting);
  const apart = here ? 1 : CARRIED_FACTOR;
  return makeFigure({
    formula: 'areaRate',
    value,
    unit: 'cm²/min',
    interval: { low: (value * margin.low) / apart, high: value * margin.high * apart, level: 0.9 },
    inputs: [
      ...rows.map(({ id }) => decisive('scrubbed coupon', grade, { ref: { kind: 'coupon', id } })),
      decisive('quickest setting that holds', grade, { value: settingWords(setting) }),
    ],
  });
}

/** Of the cells that held the one with the shortest job. */
function quickestHeld(cells: readonly WindowCell[], job: SettingJob): WindowCell {
  const seconds = (cell: WindowCell) => rasterTime({ ...job, ...cell }, job.motion);
  return cells.filter(({ outcome }) => outcome === 'holds').sort((a, b) => seconds(a) - seconds(b))[0]!;
}

function settingWords({ powerW, speedMmPerS, intervalMm, passes }: WindowPoint): string {
  const again = passes > 1 ? ` · ${passes} passes` : '';
  return `${Number(powerW.toPrecision(3))} W · ${Number(speedMmPerS.toPrecision(3))} mm/s · ${intervalMm} mm${again}`;
}
