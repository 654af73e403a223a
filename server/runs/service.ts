import {
  arealDose,
  decisive,
  deliveredPower,
  intervalToMm,
  makeFigure,
  powerToPercent,
  speedToMmPerS,
  type Figure,
} from '@unto/core';
import type { Cleaning, CreateCleaning, CreateJudgement, CreateRun, Judgement, LedgerRecord } from '@unto/contract';
import { panelScale, powerSource, type FittedEquipment } from '@unto/domain';
import { storedPieces } from '../coat/stored.js';
import { createOnce, find, insert, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { atField, fault, ApiError } from '../errors/api-error.js';
import { requireFitted } from '../place/fittings.js';
import { loadEquipment } from '../inventory/service.js';
import { ledgerRecords } from './ledger.js';
import { refuseWetCoat } from '../timers/wet-coat.js';

/** Logs a run with the setting as entered and, beside it, in core units. A wet coat is never fired. */
export async function createRun(context: Context, request: CreateRun): Promise<LedgerRecord> {
  await createOnce(context, 'run', request, async () => {
    const ticket = await find(context, 'tickets', request.ticketId);
    await requireFitted(context, ticket);
    await refuseWetCoat(context, ticket.id);
    await refuseStoredCoat(context, ticket, request);
    const { equipment, revisions } = await loadEquipment(context, ticket);
    const setting = coreSetting(request, equipment);
    const recipe = request.recipeId ? await find(context, 'recipes', request.recipeId) : null;
    if (recipe && recipe.ticketId !== ticket.id) throw fault('recipeId', 'That recipe belongs to another ticket.');
    if (request.correctsId) await requireCorrectable(context, request.correctsId, ticket.id);
    const { id, recipeId, correctsId, pieces, air, minutes, passes, focusOffsetMm, note } = request;
    await insert(context, 'runs', {
      id,
      ticketId: ticket.id,
      recipeId,
      correctsId,
      pieces,
      air,
      minutes,
      passes,
      focusOffsetMm,
      note,
      substrateId: ticket.substrateId,
      compoundId: ticket.compoundId,
      headId: ticket.headId,
      revisions,
      entered: { power: request.power, speed: request.speed, interval: request.interval },
      ...setting,
      dose: doseFigure(setting, passes, equipment, revisions.calibration ?? revisions.head),
      grade: recipe && followsRecipe(setting, request, recipe) ? recipe.grade : 'guess',
      at: context.now,
      byId: context.actor,
    });
  });
  return getRun(context, request.id);
}

export async function getRun(context: Context, id: string): Promise<LedgerRecord> {
  return (await ledgerRecords(context, [await find(context, 'runs', id)]))[0]!;
}

export async function createCleaning(context: Context, runId: string, request: CreateCleaning): Promise<Cleaning> {
  await createOnce(context, 'cleaning', request, async () => {
    await find(context, 'runs', runId);
    await insert(context, 'cleanings', { ...request, runId, at: context.now, byId: context.actor });
  });
  const { at, byId, runId: _run, ...row } = await find(context, 'cleanings', request.id);
  return { ...row, at: at.toISOString(), by: byId } as Cleaning;
}

export async function createJudgement(context: Context, runId: string, request: CreateJudgement): Promise<Judgement> {
  await createOnce(context, 'judgement', request, async () => {
    const run = await find(context, 'runs', runId);
    if (request.piecesGood > run.pieces)
      throw fault('piecesGood', `The run was ${run.pieces} pieces; ${request.piecesGood} cannot be good.`);
    await insert(context, 'judgements', { ...request, runId, at: context.now, byId: context.actor });
  });
  const { at, byId, runId: _run, ...row } = await find(context, 'judgements', request.id);
  return { ...row, at: at.toISOString(), by: byId } as Judgement;
}

/** A setting in core units; null where it cannot be known. Checks it against the head. */
export function coreSetting(request: Pick<CreateRun, 'power' | 'speed' | 'interval'>, equipment: FittedEquipment) {
  const { machine, head } = equipment;
  const powerPercent = atField('power.value', () =>
    powerToPercent(request.power.value, request.power.unit, head.ratedW),
  );
  const speedMmPerS = atField('speed.value', () =>
    speedToMmPerS(request.speed.value, request.speed.unit, panelScale(equipment)),
  );
  if (speedMmPerS !== null && speedMmPerS > machine.topSpeedMmPerS * (1 + 1e-9)) {
    throw fault(
      'speed.value',
      `${machine.name} runs at most ${machine.topSpeedMmPerS} mm/s; that would be ${Number(speedMmPerS.toPrecision(4))} mm/s.`,
    );
  }
  if (powerPercent !== null && powerPercent < head.firingThresholdPercent) {
    throw fault('power.value', `${head.name} fires only from ${head.firingThresholdPercent} %.`);
  }
  const powerW = powerPercent === null ? null : deliveredPower(powerPercent, powerSource(equipment));
  return { powerPercent, powerW, speedMmPerS, intervalMm: intervalToMm(request.interval.value, request.interval.unit) };
}

type CoreSetting = ReturnType<typeof coreSetting>;

function doseFigure(
  setting: CoreSetting,
  passes: number,
  equipment: FittedEquipment,
  revisionId: string,
): Figure | null {
  const { powerW, speedMmPerS, intervalMm } = setting;
  if (!powerW || !speedMmPerS) return null;
  const metered = Boolean(equipment.calibration);
  return makeFigure({
    formula: 'arealDose',
    value: arealDose({ powerW, speedMmPerS, intervalMm, passes }),
    unit: 'J/mm²',
    inputs: [
      decisive('power at the part', metered ? 'measured' : 'stated', {
        value: Number(powerW.toPrecision(4)),
        unit: 'W',
        ref: { kind: metered ? 'calibration' : 'head', id: revisionId },
      }),
      decisive('speed', 'measured', { value: speedMmPerS, unit: 'mm/s' }),
      decisive('line interval', 'measured', { value: intervalMm, unit: 'mm' }),
      decisive('passes', 'measured', { value: passes }),
    ],
  });
}

/** A run follows a recipe when nothing in it is more than 1 % off. */
function followsRecipe(setting: CoreSetting, request: CreateRun, recipe: Rows['recipes']): boolean {
  const near = (a: number | null, b: number) => a !== null && Math.abs(a - b) <= 0.01 * b;
  return (
    near(setting.powerPercent, recipe.powerPercent) &&
    near(setting.speedMmPerS, recipe.speedMmPerS) &&
    near(setting.intervalMm, recipe.intervalMm) &&
    request.passes === recipe.passes &&
    Math.abs(request.focusOffsetMm - recipe.focusOffsetMm) < 0.005
  );
}

/** Pieces on the shelf are looked at before they are fired: only what does not lie there can be run. */
async function refuseStoredCoat(context: Context, ticket: Rows['tickets'], run: CreateRun): Promise<void> {
  const stored = await storedPieces(context, ticket.id);
  if (stored === 0 || run.correctsId) return;
  const runs = await list(context, 'runs', { where: { ticketId: ticket.id } });
  const corrected = new Set(runs.map(({ correctsId }) => correctsId));
  const marked = runs.filter(({ id }) => !corrected.has(id)).reduce((sum, { pieces }) => sum + pieces, 0);
  const free = Math.max(0, ticket.pieces - marked - stored);
  if (run.pieces > free)
    throw new ApiError(
      'wrong-stage',
      `${stored} coated pieces lie stored, so ${free} can be fired. Take the stored ones up at Coat first: look whether they are dry and untouched.`,
    );
}

async function requireCorrectable(context: Context, correctsId: string, ticketId: string): Promise<void> {
  const run = await find(context, 'runs', correctsId);
  if (run.ticketId !== ticketId) throw fault('correctsId', 'The run it corrects belongs to another ticket.');
}
