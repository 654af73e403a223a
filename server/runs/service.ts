import { weakestGrade, type MarkSetting, type OpenStation } from '@unto/core';
import type {
  Cleaning,
  CreateCleaning,
  CreateJudgement,
  CreateRun,
  Judgement,
  LedgerRecord,
  Revisions,
} from '@unto/contract';
import { openForRun, pairingOf, settingJob, settingOnEquipment, type FittedEquipment, sweptMark } from '@unto/domain';
import { createOnce, find, insert, list, rowsOf, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault, ApiError } from '../errors/api-error.js';
import { requireFitted } from '../place/fittings.js';
import { marksAsNow, pinnedIds } from '../inventory/alike.js';
import { requireOf } from '../recipes/use.js';
import { watchDrift } from '../recipes/drift.js';
import { windowProof } from '../recipes/window-proof.js';
import { runSample } from '../samples/service.js';
import { workshop } from '../workshop/service.js';
import { equipmentOf, loadEquipment } from '../inventory/service.js';
import { stationFacts } from '../progress/service.js';
import { benchOf } from './bench.js';
import { getTicket } from '../tickets/service.js';
import { refuseHotGlass } from '../timers/hot-glass.js';
import { ledgerRecords } from './ledger-record.js';
import { doseFigure, gradeOfRun } from './run-figures.js';

/** Logs a run with the setting as entered and, beside it, in core units. A wet coat is never fired. */
export async function createRun(context: Context, request: CreateRun): Promise<LedgerRecord> {
  await createOnce(context, 'run', request, async () => {
    // Locked: what lies there to be marked is counted once at a time.
    const ticket = await find(context, 'tickets', request.ticketId, { lock: true });
    await requireFitted(context, ticket);
    const { revisions } = await loadEquipment(context, ticket);
    if (request.recipeId) requireOf(ticket, await find(context, 'recipes', request.recipeId));
    const corrected = request.correctsId ? await correctable(context, request.correctsId, ticket.id) : null;
    await requireReworkOf(context, request.reworkId, ticket.id);
    const open = await requireReady(context, request, corrected);
    await logRun(context, request, {
      revisions,
      open,
      minutesFrom: request.minutesFrom === 'planned' ? 'planned' : 'typed',
    });
  });
  return getRun(context, request.id);
}

/** @throws invalid-input at `reworkId` where that is of another ticket */
export async function requireReworkOf(
  context: Context,
  id: string | null | undefined,
  ticketId: string,
): Promise<void> {
  if (!id) return;
  const rework = await find(context, 'reworks', id);
  if (rework.ticketId !== ticketId) throw fault('reworkId', 'That rework is of another ticket.');
}

/** What was in force as some pieces were fired. */
export interface Fired {
  readonly revisions: Revisions;
  /** Stations that stood open, passed under a reason. */
  readonly open: readonly OpenStation[];
  readonly minutesFrom: LedgerRecord['minutesFrom'];
}

/** Logs a run that was let pass. @throws CoreError at a part of the setting that the head cannot do */
export async function logRun(
  context: Context,
  request: CreateRun,
  { revisions, open, minutesFrom }: Fired,
): Promise<void> {
  const ticket = { ...(await find(context, 'tickets', request.ticketId)), ...(await firedOn(context, revisions)) };
  const equipment = await equipmentOf(context, revisions);
  const setting = settingOnEquipment(request, equipment);
  const recipe = request.recipeId ? await find(context, 'recipes', request.recipeId) : null;
  const as = await marksAsNow(context, revisions, recipe ? pinnedIds([recipe.revisions]) : []);
  const { id, recipeId, correctsId, pieces, minutes, note, reason, power, speed, interval } = request;
  await insert(context, 'runs', {
    id,
    ticketId: ticket.id,
    recipeId,
    correctsId,
    pieces,
    minutes,
    minutesFrom,
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
    ...(await gradedRun(
      context,
      { ticket, setting, revisions, open, equipment },
      recipe && { ...recipe, revisions: as.revisions(recipe.revisions) },
    )),
    at: context.now,
    byId: context.actor,
  });
  if (request.reworkId) await insert(context, 'reworkRuns', { runId: id, reworkId: request.reworkId });
}

/** Seed of the fit that a run is judged by. */
const SEED = 7;

/**
 * The grade of a run: its recipe’s where it is that very setting; where power, speed or another part is other than the recipe’s, what the
 * window of its pairing says of the setting as it was.
 */
async function gradedRun(
  context: Context,
  run: {
    readonly ticket: Rows['tickets'];
    readonly setting: MarkSetting;
    readonly revisions: Revisions;
    readonly open: readonly OpenStation[];
    readonly equipment: FittedEquipment;
  },
  recipe: Rows['recipes'] | null,
): Promise<ReturnType<typeof gradeOfRun>> {
  const { ticket, setting, revisions, open, equipment } = run;
  const plain = gradeOfRun(setting, recipe, revisions, open);
  const { powerPercent, powerW, speedMmPerS, intervalMm } = setting;
  if (!recipe || plain.grade !== 'guess' || !powerPercent || !powerW || !speedMmPerS || !intervalMm) return plain;
  const shop = await workshop(context);
  const mark = sweptMark(ticket);
  const job = settingJob(equipment, mark, shop, speedMmPerS);
  const known = { ...setting, powerPercent, powerW, speedMmPerS, intervalMm, coats: recipe.valid?.coats };
  const found = await windowProof(
    context,
    known,
    pairingOf(ticket),
    { equipment, revisions, shop, job },
    { seed: SEED },
  );
  if (!found) return plain;
  const { grade, because } = found.proof;
  if (grade === 'proved' && !open.length) return { grade, because: [] };
  return {
    grade: open.length ? weakestGrade([grade, 'carried']) : grade,
    because: [...plain.because.filter((why) => !recipe.because.includes(why)), ...because],
  };
}

/** What was fired on: the ticket may have got another head or part since. */
async function firedOn(context: Context, { head, substrate, compound }: Revisions) {
  const rows = await rowsOf(context, 'inventoryRevisions', [head, substrate, ...(compound ? [compound] : [])]);
  const itemOf = (revision: string) => rows.find(({ id }) => id === revision)!.itemId;
  return { headId: itemOf(head), substrateId: itemOf(substrate), compoundId: compound ? itemOf(compound) : null };
}

export async function getRun(context: Context, id: string): Promise<LedgerRecord> {
  const { id: known } = await find(context, 'runs', id);
  return (await ledgerRecords(context, [known]))[0]!;
}

export async function createCleaning(context: Context, runId: string, request: CreateCleaning): Promise<Cleaning> {
  await createOnce(context, 'cleaning', request, async () => {
    await refuseHotGlass(context, 'runs', await find(context, 'runs', runId));
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
    const { checks } = await runSample(context, runId);
    const lost = new Set(checks.filter(({ result }) => result === 'lost').map(({ piece }) => piece)).size;
    if (request.piecesGood > run.pieces - lost)
      throw fault(
        'piecesGood',
        `${lost === 1 ? 'One piece' : `${lost} pieces`} lost the mark in a test: at most ${run.pieces - lost} of ${run.pieces} can be good.`,
      );
    await insert(context, 'judgements', { ...request, runId, at: context.now, byId: context.actor });
    await watchDrift(context, run.recipeId);
  });
  const { at, byId, runId: _run, ...row } = await find(context, 'judgements', request.id);
  return { ...row, at: at.toISOString(), by: byId } as Judgement;
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
export async function requireReady(
  context: Context,
  request: Pick<CreateRun, 'ticketId' | 'pieces' | 'reason' | 'air'>,
  corrected: Rows['runs'] | null,
): Promise<OpenStation[]> {
  const ticket = await getTicket(context, request.ticketId);
  const [facts] = await stationFacts(context, [ticket]);
  const { progress } = facts!;
  const marked = progress.markedPieces - (corrected?.pieces ?? 0);
  // What was asked before the run is not asked again to correct it.
  const questions = corrected ? [] : facts!.questions;
  const before = { ...facts!, questions, progress: { ...progress, markedPieces: marked } };
  const open = openForRun(before, request.pieces, context.now, request.air);
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
