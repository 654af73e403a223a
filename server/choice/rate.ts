import {
  areaRate,
  decisive,
  fitWindow,
  makeFigure,
  quickestSetting,
  rasterTime,
  settingWords,
  speedMargin,
  type Figure,
  type KnownSetting,
  type SettingChoice,
  type SettingJob,
} from '@unto/core';
import type { Revisions, Ticket, Workshop } from '@unto/contract';
import {
  familyJob,
  proofOf,
  settableParts,
  settingIn,
  settingJob,
  windowEquipment,
  type CouponWindowCell,
  type FittedEquipment,
  type WindowFamily,
  sweptMark,
} from '@unto/domain';
import {
  couponsAsNow,
  onOtherRevisions,
  scrubbedCells,
  scrubbedCoupons,
  type ScrubbedCells,
} from '../coupons/window.js';
import type { Context } from '../db/context.js';
import { remembered } from '../pool/remembered.js';

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
  /** Every cell that held there was judged by eye. */
  readonly byEye: boolean;
}

/** What a pairing's rate is asked for. */
interface RatePlace {
  readonly ticket: Ticket;
  readonly equipment: FittedEquipment;
  readonly revisions: Revisions;
  readonly compoundId: string | null;
  readonly substrates: readonly string[];
  readonly heads: readonly string[];
  readonly shop: Workshop;
}

/**
 * The area rate of a compound on a ticket's mark: the quickest setting that holds in the window of its scrubbed coupons, on this very
 * pairing or carried over from substrates and heads of its kind. Null without a scrubbed coupon that held.
 */
export async function pairingRate(context: Context, where: RatePlace): Promise<PairingRate> {
  const { ticket, compoundId, revisions } = where;
  const pairing = { compoundId, substrateIds: where.substrates, headIds: where.heads };
  const known = await couponsAsNow(context, await scrubbedCoupons(context, pairing), revisions);
  const here = known.filter(
    (row) => row.substrateId === ticket.substrateId && row.headId === ticket.headId && row.lensId === ticket.lensId,
  );
  const scrubbed = await scrubbedCells(context, here.slice(0, NEWEST), compoundId);
  const others = new Set(onOtherRevisions(scrubbed.coupons, compoundId, revisions).map(({ id }) => id));
  const holding = scrubbed.cells.filter(({ outcome, couponId }) => outcome === 'holds' && !others.has(couponId!));
  const own = {
    coupons: here.length,
    held: new Set(holding.map(({ couponId }) => couponId)).size,
    byEye: holding.every(({ byEye }) => byEye),
  };
  const rate = rateOf(scrubbed, where);
  if (rate) return { rate, ...own };
  const near = known.filter((row) => !here.includes(row) && row.headId === ticket.headId);
  return { rate: rateOf(await scrubbedCells(context, near.slice(0, 1), compoundId), where), ...own };
}

/** The rate by the first family of cells that tells one; families with most cells come first. */
function rateOf(scrubbed: ScrubbedCells, where: RatePlace): Figure | null {
  for (const family of scrubbed.families) {
    const rows = scrubbed.coupons.filter(({ id }) => family.couponIds.includes(id));
    const rate = familyRate({ family, rows, where });
    if (rate) return rate;
  }
  return null;
}

/** Rates that are remembered: more than pairings of a busy shop. */
const REMEMBERED = 300;

/** What a rate follows from, whole. */
interface FamilyPlace {
  readonly family: WindowFamily;
  readonly rows: ScrubbedCells['coupons'];
  readonly where: RatePlace;
}

const familyRate = remembered(REMEMBERED, ({ family, rows, where }: FamilyPlace): Figure | null => {
  const { cells } = family;
  if (!cells.some(({ outcome }) => outcome === 'holds')) return null;
  const { ticket, equipment, revisions, shop, compoundId } = where;
  const fit = fitWindow({ cells, equipment: windowEquipment(equipment), seed: CHOICE_SEED, effort: 'quick' });
  const mark = sweptMark(ticket);
  const job = familyJob(family, settingJob(equipment, mark, shop, TYPICAL_SPEED));
  const proved = quickestSetting(fit, job);
  // Nothing meets the shop's bound: the quickest that more likely holds than not, or else the quickest cell that held, says how fast
  // it may be, as a carried number.
  const setting = proved ?? quickestSetting(fit, { ...job, bound: EVEN_BET }) ?? quickestHeld(cells, job);
  const whole = settingIn(family, setting);
  const others = onOtherRevisions(rows, compoundId, revisions).map(({ design }) => design.code);
  const terms = { fit, equipment: windowEquipment(equipment), tolerance: job.tolerance, bound: job.bound };
  const { grade } = proofOf(family, whole, { ...terms, otherRevisions: others, settable: settableParts(equipment) });
  const here = rows.every(({ substrateId }) => substrateId === ticket.substrateId);
  const value = areaRate(rasterOf(whole, job), job.motion);
  const margin = speedMargin(fit, setting);
  const apart = here ? 1 : CARRIED_FACTOR;
  return makeFigure({
    formula: 'areaRate',
    value,
    unit: 'cm²/min',
    interval: { low: (value * margin.low) / apart, high: value * margin.high * apart, level: 0.9 },
    inputs: [
      ...rows.map(({ id }) => decisive('scrubbed coupon', grade, { ref: { kind: 'coupon', id } })),
      decisive('quickest setting that holds', grade, { value: settingWords(whole) }),
    ],
  });
});

/** Rows of the job at a setting: crossed ones are run twice. */
function rasterOf({ speedMmPerS, intervalMm, passes, hatches }: KnownSetting, job: SettingJob) {
  const { widthMm, heightMm, directions } = job;
  return { widthMm, heightMm, directions, speedMmPerS, intervalMm, passes: passes * hatches };
}

/** Of the cells that held the one with the shortest job. */
function quickestHeld(cells: readonly CouponWindowCell[], job: SettingJob): SettingChoice {
  const seconds = (cell: CouponWindowCell) => rasterTime(rasterOf(cell, job), job.motion);
  const cell = cells.filter(({ outcome }) => outcome === 'holds').sort((a, b) => seconds(a) - seconds(b))[0]!;
  return { ...cell, seconds: seconds(cell), holds: 0, worst: 0, sure: 0, binding: null };
}
