import { literal, Op } from 'sequelize';
import {
  GRADES,
  isMetal,
  isVitreous,
  outcomeChances,
  PART_GUESSES,
  spotWidth,
  type FaultRecord,
  type FiredSetting,
  type PlaceRecord,
} from '@unto/core';
import type { PlaceReading, SubstrateBody } from '@unto/contract';
import { settingJob, sweptMark, type FaultOn, type FittedEquipment } from '@unto/domain';
import { judgedWhere } from '../coupons/window-evidence.js';
import { list, NEWEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { equipmentOf, loadEquipment } from '../inventory/service.js';
import { huntedDepth } from '../place/service.js';
import { recipeById } from '../recipes/views.js';
import { windowProof } from '../recipes/window-proof.js';
import { upkeepOf } from '../upkeep/service.js';
import { workshop } from '../workshop/service.js';
import { coatRecord, lotRecord } from './coat-record.js';
import { before, tickedBefore, type Subject } from './subject.js';

/** What the record says of a subject, as it stands now; where the fault lies and on how many pieces is not in it yet. */
export async function recordOf(context: Context, subject: Subject): Promise<FaultRecord> {
  const { run, coupon } = subject;
  const equipment = subject.revisions
    ? await equipmentOf(context, subject.revisions)
    : (await loadEquipment(context, subject)).equipment;
  const firing = run ?? coupon?.firing ?? null;
  const head = await upkeepOf(context, subject.headId);
  const lens = await upkeepOf(context, subject.lensId);
  return {
    coat: await coatRecord(context, subject),
    air: firing?.air ?? null,
    extraction: firing?.extraction ?? null,
    place: await placeRecord(context, subject, equipment),
    setting: await settingRecord(context, subject, equipment),
    lensHours: lens.hoursSinceCleaned,
    tubeHours: head.done.some(({ what }) => what === 'source renewed') ? head.hours : null,
    part: await partRecord(context, subject, equipment.substrate),
    pieces: null,
    spots: [],
    wash: await washRecord(context, subject, isVitreous(equipment.substrate.family)),
  };
}

/** What the fault lies on: mark, heights as they were read before it was fired, its pieces and those of the ticket’s other runs. */
export async function onSubject(context: Context, subject: Subject): Promise<FaultOn> {
  const { ticket, made, run } = subject;
  const [row] = await placeBefore(context, subject, ['flatness']);
  return {
    markWidthMm: ticket.markWidthMm,
    markHeightMm: ticket.markHeightMm,
    surface: row ? (row.entries as PlaceReading<'flatness'>['entries']) : null,
    made,
    others: run ? await otherRuns(context, run) : [],
  };
}

/** Runs of a ticket that are held against one another at most. */
const MOST_OTHERS = 100;

async function otherRuns(context: Context, { id, ticketId }: Rows['runs']): Promise<FaultOn['others']> {
  const runs = await judgedWhere(context, { ticketId, id: { [Op.ne]: id } }, MOST_OTHERS);
  return runs.map(({ pieces, judgement }) => ({
    pieces,
    bad: Math.max(0, pieces - judgement.piecesGood),
    faults: judgement.faults,
  }));
}

function placeBefore(context: Context, subject: Subject, kinds: readonly string[]) {
  const own = { ticketId: subject.ticket.id, kind: { [Op.in]: [...kinds] } };
  return list(context, 'placeReadings', { where: { [Op.and]: [own, before(subject)] }, order: NEWEST_FIRST });
}

async function placeRecord(context: Context, subject: Subject, { lens }: FittedEquipment): Promise<PlaceRecord> {
  const { ticket, run, lensId } = subject;
  const rows = await placeBefore(context, subject, ['flatness', 'focus', 'set']);
  const [marking] = run ? await list(context, 'markings', { where: { runId: run.id }, limit: 1 }) : [];
  const ticked = await tickedBefore(context, subject, 'place');
  return {
    heightsRead: rows.some(({ kind }) => kind === 'flatness'),
    offMm: null,
    depthMm: (await huntedDepth(context, lensId))?.value ?? lens.depthOfFocusMm,
    longestMm: Math.max(ticket.markWidthMm, ticket.markHeightMm),
    focusFound: rows.some(({ kind }) => kind !== 'flatness'),
    focusTicked: marking ? marking.entered.checked.includes('focus') : ticked.has('focus'),
  };
}

const PROVED = GRADES.slice(0, GRADES.indexOf('seen'));
/** Seed of the fit that a setting is held against. */
const SEED = 7;

async function settingRecord(
  context: Context,
  subject: Subject,
  equipment: FittedEquipment,
): Promise<FiredSetting | null> {
  const { run, coupon } = subject;
  const spot = spotWidth(equipment.lens);
  if (coupon) {
    const intervalToSpot = coupon.design.fixed.intervalMm / spot;
    return { window: null, intervalToSpot, speedToRecipe: null, asProved: null, drifts: false };
  }
  if (!run) return null;
  const recipe = run.recipeId ? await recipeById(context, run.recipeId) : null;
  return {
    window: await windowChances(context, subject, run, equipment),
    intervalToSpot: run.intervalMm / spot,
    speedToRecipe: recipe && run.speedMmPerS ? run.speedMmPerS / recipe.speedMmPerS : null,
    asProved: PROVED.includes(run.grade),
    drifts: recipe !== null && recipe.state.state !== 'in use',
  };
}

/** How often the setting of a run bonds and is overdone by the window of its pairing; null where no scrubbed cell tells. */
async function windowChances(
  context: Context,
  subject: Subject,
  run: Rows['runs'],
  equipment: FittedEquipment,
): Promise<FiredSetting['window']> {
  const { powerPercent, powerW, speedMmPerS, intervalMm, revisions } = run;
  if (powerPercent === null || powerW === null || speedMmPerS === null) return null;
  const shop = await workshop(context);
  const job = settingJob(equipment, sweptMark(subject.ticket), shop, speedMmPerS);
  const setting = { ...run, powerPercent, powerW, speedMmPerS, intervalMm };
  const found = await windowProof(context, setting, subject, { equipment, revisions, shop, job }, { seed: SEED });
  if (!found) return null;
  const { under, over } = outcomeChances(found.fit, setting);
  return { bonds: 1 - under, overdone: over };
}

async function partRecord(
  context: Context,
  subject: Subject,
  { family, layer, ground }: SubstrateBody,
): Promise<FaultRecord['part']> {
  const { ticket, run, substrateId, compoundId } = subject;
  const ticked = await tickedBefore(context, subject, 'prepare');
  const metal = isMetal(family) && layer !== 'anodised';
  const lot = run?.bench?.blank?.lot;
  return {
    metal,
    vitreous: isVitreous(family),
    bareTicked: metal && compoundId ? ticked.has('bare') : null,
    notBare: await notBare(context, ticket.id, run?.bench?.blank?.id ?? null),
    groundLikeMark: (ticket.aim.tone === 'dark on light' ? 'dark' : 'light') === ground,
    degreased: ticked.has('clean'),
    lot: lot ? await lotRecord(context, { path: 'blank', lot, column: 'substrate_id', id: substrateId }) : null,
  };
}

const BARE = ['bare', 'chrome plate', 'nickel plate'];
const BARE_PARTS = new Set(PART_GUESSES.filter(({ layer }) => BARE.includes(layer)).map(({ key }) => key));

/** How likely the part is not bare, by what somebody tested of it or of its box; null where nobody did. */
async function notBare(context: Context, ticketId: string, blankId: string | null): Promise<number | null> {
  const of = [{ ticketId }, ...(blankId ? [{ blankId }] : [])];
  const [newest] = await list(context, 'identifications', {
    where: { [Op.or]: of },
    order: [['at', 'DESC']],
    limit: 1,
  });
  if (!newest) return null;
  return newest.probabilities.reduce((sum, { key, probability }) => sum + (BARE_PARTS.has(key) ? 0 : probability), 0);
}

async function washRecord(
  context: Context,
  { run, ticket, at, sequence }: Subject,
  vitreous: boolean,
): Promise<FaultRecord['wash']> {
  if (!run) return { afterMinutes: null, cooled: null, residue: null };
  const [washed] = await list(context, 'cleanings', { where: { runId: run.id }, order: NEWEST_FIRST, limit: 1 });
  const cooled = await list(context, 'timers', {
    where: { [Op.and]: [{ ticketId: ticket.id, kind: 'cool', outcome: 'passed' }, literal(`sequence > ${sequence}`)] },
    limit: 1,
  });
  return {
    afterMinutes: washed ? (washed.at.getTime() - at.getTime()) / 60_000 : null,
    cooled: vitreous ? cooled.length > 0 : null,
    residue: washed?.residue ?? null,
  };
}
