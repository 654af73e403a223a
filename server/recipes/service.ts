import {
  deliveredPower,
  rasterTime,
  SETTING_PART_NAMES,
  settingDifferences,
  settingFigure,
  type Figure,
  type Grade,
  type MarkSetting,
} from '@unto/core';
import type { CreateRecipe, FrozenFit, Pairing, Recipe, RecipeRange, Revisions } from '@unto/contract';
import {
  checkPulsed,
  pairingOf,
  powerSource,
  sameRevisions,
  settingJob,
  type FittedEquipment,
  sweptMark,
} from '@unto/domain';
import { testStepsOf } from '../coupons/step-test.js';
import { alone, createOnce, find, insert, list, rowsOf, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { marksAsNow, pinnedIds } from '../inventory/alike.js';
import { inventoryItem, loadEquipment } from '../inventory/service.js';
import { sprayedOf } from '../coupons/sprayed.js';
import { takeIntoUse } from './use.js';
import { windowProof, type ProofBench } from './window-proof.js';
import { recipeById } from './views.js';
import { workshop } from '../workshop/service.js';

/**
 * Accepts a setting as a recipe. The fit is computed again here from the stored cells, so that what a recipe promises never rests on
 * what a browser said; inputs, model version and seed are frozen with it.
 */
export async function createRecipe(context: Context, request: CreateRecipe): Promise<Recipe> {
  await createOnce(context, 'recipe', request, async () => {
    const ticket = request.ticketId ? await find(context, 'tickets', request.ticketId, { lock: true }) : null;
    const of = ticket ?? request.pairing;
    if (!of) throw fault('pairing', 'A recipe is of a ticket, or says compound, substrate, head and lens itself.');
    const pairing = pairingOf(of);
    const { equipment, revisions } = await loadEquipment(context, pairing);
    checkReach(request, equipment);
    const mark = sweptMark(of);
    const shop = await workshop(context);
    const job = settingJob(equipment, mark, shop, request.speedMmPerS);
    const setting = { ...request, powerW: deliveredPower(request.powerPercent, powerSource(equipment)) };
    const promise =
      request.kind === 'step test'
        ? await provedByStepTest(context, setting, ticket, revisions)
        : await promised(context, setting, pairing, { equipment, revisions, shop, job });
    const { directions, passes, hatches } = request;
    const raster = { ...mark, ...request, passes: passes * hatches, directions: directions ?? ('two-way' as const) };
    await insert(context, 'recipes', {
      ...setting,
      ...promise,
      ...pairing,
      valid: await validRange(context, pairing, request),
      number: await nextVersion(context, pairing),
      secondsPerPiece: rasterTime(raster, job.motion),
      revisions,
      at: context.now,
      byId: context.actor,
    });
    if (ticket) await takeIntoUse(context, ticket.id, request.id);
  });
  return recipeById(context, request.id);
}

/** The next version in a pairing; two that are accepted at once wait for one another. */
async function nextVersion(context: Context, pairing: Pairing): Promise<number> {
  await alone(context, 'recipe');
  const [newest] = await list(context, 'recipes', { where: pairingOf(pairing), order: [['number', 'DESC']], limit: 1 });
  return (newest?.number ?? 0) + 1;
}

/** A recipe that nobody used for so long is looked at again before it is trusted. Common practice, no source. */
const REST_DAYS = 365;

async function validRange(
  context: Context,
  pairing: Pairing,
  { couponIds, coats }: CreateRecipe,
): Promise<RecipeRange> {
  const coupons = await rowsOf(context, 'coupons', couponIds);
  const sprayed = [...(await sprayedOf(context, coupons)).values()];
  const lots = [...new Set(sprayed.map(({ lot }) => lot).filter(Boolean))].sort();
  const { body: substrate } = await inventoryItem(context, 'substrate', pairing.substrateId);
  const compound = pairing.compoundId ? (await inventoryItem(context, 'compound', pairing.compoundId)).body : null;
  const filmUm = compound && { low: compound.dryFilmMinUm, high: compound.dryFilmMaxUm };
  return { lots, filmUm, thicknessMm: substrate.thicknessMm, coats: coats ? coats : null, restDays: REST_DAYS };
}

interface Promised {
  readonly weights: Recipe['weights'];
  readonly runIds: readonly string[];
  readonly fit: FrozenFit | null;
  readonly worst: Figure | null;
  readonly grade: Grade;
  readonly because: readonly string[];
}

/** What rests on no window. */
const UNFITTED = { weights: [], runIds: [], fit: null } as const;

async function promised(
  context: Context,
  request: CreateRecipe & MarkSetting,
  pairing: Pairing,
  { equipment, revisions, shop, job }: ProofBench,
): Promise<Promised> {
  if (request.kind === 'stated') return { ...UNFITTED, worst: null, grade: 'stated', because: [] };
  const { couponIds, seed, atFullIds } = request;
  const point = { ...request, powerW: request.powerW! };
  const found = await windowProof(
    context,
    point,
    pairing,
    { equipment, revisions, shop, job },
    { couponIds, seed, atFullIds },
  );
  if (!found) throw fault('couponIds', 'These coupons have no scrubbed cell of this compound.');
  const { family, coupons, counted, fit, taught, proof } = found;
  const cells = family.cells.length;
  return {
    runIds: family.runIds,
    weights: coupons.map(({ id }) => ({ couponId: id, weight: counted.get(id)! })),
    fit: {
      modelVersion: fit.modelVersion,
      seed: request.seed,
      bound: shop.bound,
      tolerancePower: shop.tolerancePower,
      toleranceFocusMm: shop.toleranceFocusMm,
      cells,
      insideHull: proof.inside,
      taught,
    },
    worst: settingFigure(proof, {
      grade: proof.grade,
      cells,
      coupons: coupons.map(({ id }) => ({ kind: 'coupon', id })),
      taught,
    }),
    grade: proof.grade,
    because: proof.because,
  };
}

/** A setting that held on a hidden place of the one piece there is: proof by eye for that piece, and for no other. */
async function provedByStepTest(
  context: Context,
  setting: MarkSetting,
  ticket: Rows['tickets'] | null,
  revisions: Revisions,
): Promise<Promised> {
  if (!ticket || ticket.pieces > 1)
    throw fault('kind', 'A step test proves the one piece it was made on. Prove a batch on a coupon.');
  const steps = (await testStepsOf(context, ticket.id)).filter(({ outcome }) => outcome === 'holds');
  const near = steps.map((step) => ({ step, apart: settingDifferences(step, setting) }));
  const held = near.find(({ apart }) => !apart.some((part) => setting[part] !== null));
  if (!held) throw fault('kind', 'No tiny cell held at this setting.');
  const because = held.apart.map((part) => `${SETTING_PART_NAMES[part]} was not noted`);
  const as = await marksAsNow(context, revisions, pinnedIds([held.step.revisions]));
  if (!sameRevisions(as.revisions(held.step.revisions), revisions))
    because.push('other revisions of what stands on the bench');
  return { ...UNFITTED, worst: null, grade: because.length ? 'carried' : 'proved by eye', because };
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
