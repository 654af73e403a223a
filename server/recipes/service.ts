import { Op } from 'sequelize';
import {
  deliveredPower,
  fitWindow,
  judgeSetting,
  rasterTime,
  settingFigure,
  weakestGrade,
  type Figure,
  type Grade,
} from '@unto/core';
import type { CreateRecipe, FrozenFit, Revisions, Recipe } from '@unto/contract';
import { sameRevisions, settingJob, windowEquipment, type FittedEquipment } from '@unto/domain';
import { testStepsOf } from '../coupons/step-test.js';
import { scrubbedCells } from '../coupons/window.js';
import { createOnce, find, insert, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
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
    const promise =
      request.kind === 'step test'
        ? await provedByStepTest(context, request, ticket, revisions)
        : await promised(context, request, equipment, revisions, mark);
    const earlier = await list(context, 'recipes', { where: { ticketId: ticket.id } });
    const job = { ...mark, ...request, directions: 'two-way' as const };
    await insert(context, 'recipes', {
      ...request,
      ...promise,
      number: earlier.length + 1,
      secondsPerPiece: rasterTime(
        job,
        settingJob(equipment, mark, await workshop(context), request.speedMmPerS).motion,
      ),
      revisions,
      at: context.now,
      byId: context.actor,
    });
  });
  return recipeView(await find(context, 'recipes', request.id));
}

/** Recipes of some tickets, newest first. */
export async function recipesOf(context: Context, ticketIds: readonly string[]): Promise<Recipe[]> {
  const rows = await list(context, 'recipes', {
    where: { ticketId: { [Op.in]: [...ticketIds] } },
    order: [['number', 'DESC']],
  });
  return rows.map(recipeView);
}

async function promised(
  context: Context,
  request: CreateRecipe,
  equipment: FittedEquipment,
  revisions: Revisions,
  mark: { widthMm: number; heightMm: number },
): Promise<{ fit: FrozenFit | null; worst: Figure | null; grade: Grade }> {
  if (request.kind === 'stated') return { fit: null, worst: null, grade: 'stated' };
  const { cells, coupons } = await scrubbedCells(context, request.couponIds);
  const shop = await workshop(context);
  const fit = fitWindow({ cells, equipment: windowEquipment(equipment), seed: request.seed });
  const job = settingJob(equipment, mark, shop, request.speedMmPerS);
  const point = { ...request, powerW: deliveredPower(request.powerPercent, job.power) };
  const judged = judgeSetting(fit, point, job.tolerance);
  const same = coupons.every(
    (coupon) => sameRevisions(coupon.revisions, revisions) && coupon.focusOffsetMm === request.focusOffsetMm,
  );
  const worst = settingFigure(
    { ...point, ...judged, seconds: 0, binding: null },
    { sameRevisions: same, cells: cells.length, coupons: coupons.map(({ id }) => ({ kind: 'coupon', id })) },
  );
  const holdsUp = judged.inside && judged.worst >= shop.bound;
  return {
    fit: {
      modelVersion: fit.modelVersion,
      seed: request.seed,
      bound: shop.bound,
      tolerancePower: shop.tolerancePower,
      toleranceFocusMm: shop.toleranceFocusMm,
      cells: cells.length,
      insideHull: judged.inside,
    },
    worst,
    grade: holdsUp ? worst.grade : weakestGrade([worst.grade, 'carried']),
  };
}

/** A setting that held on a hidden place of the one piece there is: proof for that piece, and for no other. */
async function provedByStepTest(
  context: Context,
  request: CreateRecipe,
  ticket: Rows['tickets'],
  revisions: Revisions,
): Promise<{ fit: null; worst: null; grade: Grade }> {
  if (ticket.pieces > 1)
    throw fault('kind', 'A step test proves the one piece it was made on. Prove a batch on a coupon.');
  const steps = await testStepsOf(context, ticket.id);
  const held = steps.find(
    ({ outcome, powerPercent, speedMmPerS, intervalMm }) =>
      outcome === 'holds' &&
      powerPercent === request.powerPercent &&
      speedMmPerS === request.speedMmPerS &&
      intervalMm === request.intervalMm,
  );
  if (!held) throw fault('kind', 'No tiny cell held at this setting.');
  return { fit: null, worst: null, grade: sameRevisions(held.revisions, revisions) ? 'proved' : 'carried' };
}

function checkReach(request: CreateRecipe, { machine, head }: FittedEquipment): void {
  if (request.speedMmPerS > machine.topSpeedMmPerS) {
    throw fault(
      'speedMmPerS',
      `${request.speedMmPerS} mm/s is faster than ${machine.name} runs, ${machine.topSpeedMmPerS} mm/s.`,
    );
  }
  if (request.powerPercent < head.firingThresholdPercent) {
    throw fault('powerPercent', `${head.name} fires from ${head.firingThresholdPercent} %.`);
  }
}

function recipeView({ byId, at, ...row }: Rows['recipes']): Recipe {
  return { ...row, acceptedBy: byId, acceptedAt: at.toISOString() } as Recipe;
}
