import type { CreateRework, Rework, RunStory } from '@unto/contract';
import type { ReworkWay, WaysBefore } from '@unto/core';
import { createOnce, find, insert, list, OLDEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { lastingRows } from '../durability/service.js';
import { pieceSizeOf } from '../prepare/sheets.js';
import { ticketProgram, type ProgramFormat } from '../programs/program.js';
import { markedRun, numbersOn } from '../trays/marked.js';
import type { FileAnswer } from '../http/file-answer.js';
import { alignedPose } from './alignment.js';
import { casesOn } from './service.js';
import { faultSubject } from './subject.js';
import { pieceWork } from './work.js';

/** Pieces of a run are to be made anew, whole or in a region; the run that does it names this. */
export async function createRework(context: Context, ticketId: string, request: CreateRework): Promise<Rework[]> {
  await createOnce(context, 'rework', request, async () => {
    const ticket = await find(context, 'tickets', ticketId);
    const run = await find(context, 'runs', request.runId);
    if (run.ticketId !== ticketId) throw fault('runId', 'That run is of another ticket.');
    const strange = request.pieces.find((piece) => piece > run.pieces);
    if (strange) throw fault('pieces', `This run is of ${run.pieces} pieces; there is no ${strange}.`);
    await requireRegion(context, request, { ticket, run });
    if (request.alignment) alignedPose(request.alignment);
    if (request.caseId) await find(context, 'faultCases', request.caseId);
    await insert(context, 'reworks', {
      ...request,
      ...{ caseId: request.caseId ?? null, note: request.note.trim(), ticketId, at: context.now, byId: context.actor },
    });
  });
  return reworksOf(context, ticketId);
}

/** @throws invalid-input at a region that is not on the piece, or is missing where one is redone */
async function requireRegion(
  context: Context,
  { way, region }: CreateRework,
  { ticket, run }: { readonly ticket: Rows['tickets']; readonly run: Rows['runs'] },
): Promise<void> {
  if (way !== 'redo the region') return;
  if (!region) throw fault('region', 'Draw the region that is made again.');
  const part = await pieceSizeOf(context, ticket, run.bench?.blank?.id);
  const { xMm, yMm, widthMm, heightMm } = region;
  const off = xMm >= part.widthMm || yMm >= part.heightMm || xMm + widthMm <= 0 || yMm + heightMm <= 0;
  if (off) throw fault('region', `The region lies beside the piece, which is ${part.widthMm} × ${part.heightMm} mm.`);
}

/** Pieces of a ticket that are made anew, oldest first, each with the run that did it. */
export async function reworksOf(context: Context, ticketId: string): Promise<Rework[]> {
  const rows = await list(context, 'reworks', { where: { ticketId }, order: OLDEST_FIRST });
  if (!rows.length) return [];
  const done = await list(context, 'reworkRuns', { where: { reworkId: rows.map(({ id }) => id) } });
  const runOf = new Map(done.map(({ reworkId, runId }) => [reworkId, runId]));
  return rows.map(({ at, byId, ...row }) => ({
    ...row,
    ...{ pieces: [...row.pieces], doneRunId: runOf.get(row.id) ?? null, at: at.toISOString(), by: byId },
  }));
}

/** What followed on a run: faults that were looked for, pieces of it that were made anew, the rework that it is, what its marks stood; what a piece took. */
export async function runStory(context: Context, runId: string): Promise<RunStory> {
  const run = await find(context, 'runs', runId);
  const [done] = await list(context, 'reworkRuns', { where: { runId }, limit: 1 });
  const all = await reworksOf(context, run.ticketId);
  return {
    work: await pieceWork(context, await faultSubject(context, 'run', runId)),
    stood: await lastingRows(context, { runIds: [runId] }),
    cases: await casesOn(context, { kind: 'run', id: runId }),
    reworks: all.filter((one) => one.runId === runId),
    reworkOf: all.find(({ id }) => id === done?.reworkId) ?? null,
  };
}

/** Pieces of the shop that went each way before, and how many of them came out good. */
export async function waysBefore(context: Context): Promise<WaysBefore> {
  const [rows] = (await context.sequelize.query(
    `SELECT w.way, sum(r.pieces)::int AS made, sum(least(r.pieces_good, r.pieces))::int AS good
     FROM rework_runs d JOIN reworks w ON w.id = d.rework_id JOIN standing_runs r ON r.id = d.run_id
     WHERE r.judged GROUP BY w.way`,
    { transaction: context.transaction ?? null },
  )) as unknown as [{ way: ReworkWay; made: number; good: number }[]];
  return Object.fromEntries(rows.map(({ way, good, made }) => [way, { good, made }]));
}

/**
 * The program of a rework: its pieces, only the region that is made again, where two points of the old mark say that a piece lies.
 * @throws wrong-stage without a layout or a recipe; invalid-input for several pieces aligned as one
 */
export async function reworkProgram(context: Context, id: string, format: ProgramFormat): Promise<FileAnswer> {
  const { ticketId, runId, pieces, region, alignment, focusMm } = await find(context, 'reworks', id);
  const numbers = numbersOn(await markedRun(context, runId), { pieces: [...pieces] });
  if (alignment && numbers.length > 1)
    throw fault('pieces', 'Two points say how one piece lies: make a rework of each.');
  const asked = { pieces: numbers.join(','), ...(region ? { region } : {}) };
  const at = alignment ? { ...alignedPose(alignment), focusMm } : { focusMm };
  return ticketProgram(context, ticketId, format, asked, at);
}
