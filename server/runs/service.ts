import {
  decisive,
  makeFigure,
  SETTING_PART_NAMES,
  settingDifferences,
  settingOf,
  weakestGrade,
  type Figure,
  type Grade,
  type MarkSetting,
  type OpenStation,
} from '@unto/core';
import type {
  Cleaning,
  CreateCleaning,
  CreateJudgement,
  CreateRun,
  Judgement,
  LedgerRecord,
  Revisions,
} from '@unto/contract';
import { doseOf, openForRun, sameRevisions, settingOnEquipment, type FittedEquipment } from '@unto/domain';
import { createOnce, find, insert, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault, ApiError } from '../errors/api-error.js';
import { requireFitted } from '../place/fittings.js';
import { loadEquipment } from '../inventory/service.js';
import { stationFacts } from '../progress/service.js';
import { benchOf } from './bench.js';
import { getTicket } from '../tickets/service.js';
import { refuseHotGlass } from '../timers/hot-glass.js';
import { ledgerRecords } from './ledger.js';

/** Logs a run with the setting as entered and, beside it, in core units. A wet coat is never fired. */
export async function createRun(context: Context, request: CreateRun): Promise<LedgerRecord> {
  await createOnce(context, 'run', request, async () => {
    // Locked: what lies there to be marked is counted once at a time.
    const ticket = await find(context, 'tickets', request.ticketId, { lock: true });
    await requireFitted(context, ticket);
    const { equipment, revisions } = await loadEquipment(context, ticket);
    const setting = settingOnEquipment(request, equipment);
    const recipe = request.recipeId ? await find(context, 'recipes', request.recipeId) : null;
    if (recipe && recipe.ticketId !== ticket.id) throw fault('recipeId', 'That recipe belongs to another ticket.');
    const corrected = request.correctsId ? await correctable(context, request.correctsId, ticket.id) : null;
    const open = await requireReady(context, request, corrected);
    const { id, recipeId, correctsId, pieces, minutes, note, reason, power, speed, interval } = request;
    await insert(context, 'runs', {
      id,
      ticketId: ticket.id,
      recipeId,
      correctsId,
      pieces,
      minutes,
      note,
      reason: open.length ? reason.trim() : '',
      substrateId: ticket.substrateId,
      compoundId: ticket.compoundId,
      headId: ticket.headId,
      revisions,
      entered: { power, speed, interval },
      ...setting,
      intervalMm: setting.intervalMm!,
      bench: await benchOf(context, ticket, {
        blankId: request.blankId ?? null,
        couponIds: recipe?.couponIds ?? [],
      }),
      dose: doseFigure(setting, request, equipment, revisions),
      ...gradeOfRun(setting, recipe, revisions, open),
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
    await refuseHotGlass(context, await find(context, 'runs', runId));
    await insert(context, 'cleanings', { ...request, runId, at: context.now, byId: context.actor });
  });
  const { at, byId, runId: _run, ...row } = await find(context, 'cleanings', request.id);
  return { ...row, at: at.toISOString(), by: byId } as Cleaning;
}

export async function createJudgement(context: Context, runId: string, request: CreateJudgement): Promise<Judgement> {
  await createOnce(context, 'judgement', request, async () => {
    const run = await find(context, 'runs', runId);
    const [cleaned] = await list(context, 'cleanings', { where: { runId }, limit: 1 });
    if (run.compoundId && !cleaned)
      throw new ApiError('wrong-stage', 'Clean these pieces first: a mark is judged once the coat is off.');
    if (request.piecesGood > run.pieces)
      throw fault('piecesGood', `The run was ${run.pieces} pieces; ${request.piecesGood} cannot be good.`);
    await insert(context, 'judgements', { ...request, runId, at: context.now, byId: context.actor });
  });
  const { at, byId, runId: _run, ...row } = await find(context, 'judgements', request.id);
  return { ...row, at: at.toISOString(), by: byId } as Judgement;
}

/** Units of speed that a panel says outright; others are shares of a top speed that somebody stated. */
const OUTRIGHT: readonly string[] = ['mm/s', 'mm/min', 'in/s', 'in/min'];

function doseFigure(
  setting: MarkSetting,
  { speed }: Pick<CreateRun, 'speed'>,
  equipment: FittedEquipment,
  revisions: Revisions,
): Figure | null {
  const value = doseOf(setting);
  if (value === null) return null;
  const metered = Boolean(equipment.calibration);
  const said = OUTRIGHT.includes(speed.unit);
  return makeFigure({
    formula: 'arealDose',
    value,
    unit: 'J/mm²',
    inputs: [
      decisive('power at the part', metered ? 'measured' : 'stated', {
        value: Number(setting.powerW!.toPrecision(4)),
        unit: 'W',
        ref: { kind: metered ? 'calibration' : 'head', id: revisions.calibration ?? revisions.head },
      }),
      decisive(said ? 'speed' : 'speed, by the stated scale of the panel', said ? 'measured' : 'stated', {
        value: Number(setting.speedMmPerS!.toPrecision(4)),
        unit: 'mm/s',
        ref: { kind: 'machine', id: revisions.machine },
      }),
      decisive('line interval', 'measured', { value: setting.intervalMm!, unit: 'mm' }),
      decisive('passes', 'measured', { value: setting.passes * setting.hatches }),
    ],
  });
}

/**
 * A run earns its recipe's grade when it is the same setting in every part on the same revisions. What the recipe never noted, or
 * other revisions, make it carried; a part that is another makes it a guess.
 */
function gradeOfRun(
  setting: MarkSetting,
  recipe: Rows['recipes'] | null,
  revisions: Revisions,
  open: readonly OpenStation[],
): { grade: Grade; because: string[] } {
  const stood = open.map(({ station, word }) => `${station}: ${word}`);
  if (!recipe) return { grade: 'guess', because: stood };
  const asked = settingOf(recipe);
  const other = settingDifferences(asked, setting);
  const because = other.map(
    (part) =>
      `${SETTING_PART_NAMES[part]}: ${setting[part] ?? 'not noted'}, ${asked[part] ?? 'not noted'} in the recipe`,
  );
  if (!sameRevisions(recipe.revisions, revisions)) because.push('other revisions of what stands on the bench');
  because.push(...stood);
  if (because.length === 0) return { grade: recipe.grade, because: [...recipe.because] };
  const known = other.some((part) => asked[part] !== null && setting[part] !== null);
  return { grade: known ? 'guess' : weakestGrade([recipe.grade, 'carried']), because: [...recipe.because, ...because] };
}

async function correctable(context: Context, correctsId: string, ticketId: string): Promise<Rows['runs']> {
  const run = await find(context, 'runs', correctsId);
  if (run.ticketId !== ticketId) throw fault('correctsId', 'The run it corrects belongs to another ticket.');
  return run;
}

/**
 * The stations that stood open as some pieces were fired. What cannot be is refused; the rest passes under a reason.
 * @param corrected the run that this one takes the place of
 */
async function requireReady(
  context: Context,
  request: CreateRun,
  corrected: Rows['runs'] | null,
): Promise<OpenStation[]> {
  const ticket = await getTicket(context, request.ticketId);
  const [facts] = await stationFacts(context, [ticket]);
  const { progress } = facts!;
  const marked = progress.markedPieces - (corrected?.pieces ?? 0);
  const open = openForRun({ ...facts!, progress: { ...progress, markedPieces: marked } }, request.pieces, context.now);
  const never = open.find((one) => one.never);
  if (never)
    throw never.station === 'mark' ? fault('pieces', sentence(never)) : new ApiError('wrong-stage', sentence(never));
  if (open.length && request.reason.trim() === '')
    throw fault(
      'reason',
      `Say why it runs all the same: ${open.map(({ station, word }) => `${station}, ${word}`).join('; ')}.`,
    );
  return open;
}

function sentence({ station, word }: OpenStation): string {
  return `${station.charAt(0).toUpperCase()}${station.slice(1)}: ${word}.`;
}
