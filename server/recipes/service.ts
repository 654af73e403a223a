import { literal, Op } from 'sequelize';
import {
  deliveredPower,
  fitWindow,
  rasterTime,
  SETTING_PART_NAMES,
  settingDifferences,
  settingFigure,
  type Figure,
  type Grade,
  type MarkSetting,
  type SettingJob,
} from '@unto/core';
import type { CreateRecipe, FrozenFit, Revisions, Recipe, Workshop } from '@unto/contract';
import {
  checkPulsed,
  familyFor,
  powerSource,
  proofOf,
  sameRevisions,
  settableParts,
  settingJob,
  windowEquipment,
  type FittedEquipment,
} from '@unto/domain';
import { testStepsOf } from '../coupons/step-test.js';
import { couponsAsNow, onOtherRevisions, scrubbedCells } from '../coupons/window.js';
import { createOnce, find, insert, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { marksAsNow, pinnedIds } from '../inventory/alike.js';
import { loadEquipment } from '../inventory/service.js';
import { workshop } from '../workshop/service.js';

/**
 * Accepts a setting as a recipe. The fit is computed again here from the stored cells, so that what a recipe promises never rests on
 * what a browser said; inputs, model version and seed are frozen with it.
 */
export async function createRecipe(context: Context, request: CreateRecipe): Promise<Recipe> {
  await createOnce(context, 'recipe', request, async () => {
    const ticket = await find(context, 'tickets', request.ticketId, { lock: true });
    const { equipment, revisions } = await loadEquipment(context, ticket);
    checkReach(request, equipment);
    const mark = { widthMm: ticket.markWidthMm, heightMm: ticket.markHeightMm };
    const shop = await workshop(context);
    const job = settingJob(equipment, mark, shop, request.speedMmPerS);
    const setting = { ...request, powerW: deliveredPower(request.powerPercent, powerSource(equipment)) };
    const promise =
      request.kind === 'step test'
        ? await provedByStepTest(context, setting, ticket, revisions)
        : await promised(context, setting, ticket, { equipment, revisions, shop, job });
    const earlier = await list(context, 'recipes', { where: { ticketId: ticket.id } });
    const { directions, passes, hatches } = request;
    const raster = { ...mark, ...request, passes: passes * hatches, directions: directions ?? ('two-way' as const) };
    await insert(context, 'recipes', {
      ...setting,
      ...promise,
      number: earlier.length + 1,
      secondsPerPiece: rasterTime(raster, job.motion),
      revisions,
      at: context.now,
      byId: context.actor,
    });
  });
  return recipeView(await find(context, 'recipes', request.id));
}

const SINCE_RESTART = literal(
  `at > COALESCE((SELECT restarted_at FROM tickets t WHERE t.id = ticket_id), '-infinity')`,
);

/** Recipes of some tickets, newest first; those of before a ticket began anew with another part or head are not among them. */
export async function recipesOf(context: Context, ticketIds: readonly string[]): Promise<Recipe[]> {
  const rows = await list(context, 'recipes', {
    where: { [Op.and]: [{ ticketId: { [Op.in]: [...ticketIds] } }, SINCE_RESTART] },
    order: [['number', 'DESC']],
  });
  return rows.map(recipeView);
}

/** What a recipe is judged on: what stands on the bench, the shop's rules, the ticket's mark on that machine. */
interface Bench {
  readonly equipment: FittedEquipment;
  readonly revisions: Revisions;
  readonly shop: Workshop;
  readonly job: SettingJob;
}

interface Promised {
  readonly fit: FrozenFit | null;
  readonly worst: Figure | null;
  readonly grade: Grade;
  readonly because: readonly string[];
}

async function promised(
  context: Context,
  request: CreateRecipe & MarkSetting,
  { compoundId }: Rows['tickets'],
  { equipment, revisions, shop, job }: Bench,
): Promise<Promised> {
  if (request.kind === 'stated') return { fit: null, worst: null, grade: 'stated', because: [] };
  const named = await list(context, 'coupons', { where: { id: { [Op.in]: [...request.couponIds] } } });
  const rows = await couponsAsNow(context, named, revisions);
  const { families } = await scrubbedCells(context, rows, compoundId);
  const family = familyFor(families, request);
  if (!family) throw fault('couponIds', 'These coupons have no scrubbed cell of this compound.');
  const coupons = rows.filter(({ id }) => family.couponIds.includes(id));
  const own = windowEquipment(equipment);
  const fit = fitWindow({ cells: family.cells, equipment: own, seed: request.seed });
  const point = { ...request, powerW: request.powerW! };
  const others = onOtherRevisions(coupons, compoundId, revisions).map(({ design }) => design.code);
  const terms = {
    fit,
    equipment: own,
    tolerance: job.tolerance,
    bound: shop.bound,
    otherRevisions: others,
    settable: settableParts(equipment),
  };
  const proof = proofOf(family, point, terms);
  const cells = family.cells.length;
  return {
    fit: {
      modelVersion: fit.modelVersion,
      seed: request.seed,
      bound: shop.bound,
      tolerancePower: shop.tolerancePower,
      toleranceFocusMm: shop.toleranceFocusMm,
      cells,
      insideHull: proof.inside,
    },
    worst: settingFigure(proof, {
      grade: proof.grade,
      cells,
      coupons: coupons.map(({ id }) => ({ kind: 'coupon', id })),
    }),
    grade: proof.grade,
    because: proof.because,
  };
}

/** A setting that held on a hidden place of the one piece there is: proof by eye for that piece, and for no other. */
async function provedByStepTest(
  context: Context,
  setting: MarkSetting,
  ticket: Rows['tickets'],
  revisions: Revisions,
): Promise<Promised> {
  if (ticket.pieces > 1)
    throw fault('kind', 'A step test proves the one piece it was made on. Prove a batch on a coupon.');
  const steps = (await testStepsOf(context, ticket.id)).filter(({ outcome }) => outcome === 'holds');
  const near = steps.map((step) => ({ step, apart: settingDifferences(step, setting) }));
  const held = near.find(({ apart }) => !apart.some((part) => setting[part] !== null));
  if (!held) throw fault('kind', 'No tiny cell held at this setting.');
  const because = held.apart.map((part) => `${SETTING_PART_NAMES[part]} was not noted`);
  const as = await marksAsNow(context, revisions, pinnedIds([held.step.revisions]));
  if (!sameRevisions(as.revisions(held.step.revisions), revisions))
    because.push('other revisions of what stands on the bench');
  return { fit: null, worst: null, grade: because.length ? 'carried' : 'proved by eye', because };
}

function checkReach(request: CreateRecipe, equipment: FittedEquipment): void {
  const { machine, head } = equipment;
  if (request.speedMmPerS > machine.topSpeedMmPerS) {
    throw fault(
      'speedMmPerS',
      `${request.speedMmPerS} mm/s is faster than ${machine.name} runs, ${machine.topSpeedMmPerS} mm/s.`,
    );
  }
  if (request.powerPercent < head.firingThresholdPercent)
    throw fault('powerPercent', `${head.name} fires from ${head.firingThresholdPercent} %.`);
  checkPulsed(request, equipment);
}

function recipeView({ byId, at, ...row }: Rows['recipes']): Recipe {
  return { ...row, acceptedBy: byId, acceptedAt: at.toISOString() } as Recipe;
}
