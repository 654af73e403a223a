import { drawPieces, seededRandom } from '@unto/core';
import type { CreatePieceCheck, CreateSampleDraw, RunSample } from '@unto/contract';
import { madePieces } from '@unto/domain';
import { createOnce, find, insert, list, NEWEST_FIRST, OLDEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { countedOf } from './counted.js';

/** Draws pieces of a run at random; more than were drawn before are added to those, never fewer. */
export async function createSampleDraw(context: Context, runId: string, request: CreateSampleDraw): Promise<RunSample> {
  const run = await find(context, 'runs', runId, { lock: true });
  await createOnce(context, 'draw', request, async () => {
    const { aside, drawn } = await sampleOf(context, run);
    const among = Array.from({ length: run.pieces }, (_, i) => i + 1).filter((piece) => !aside.includes(piece));
    if (request.scrub > among.length)
      throw fault('scrub', `${among.length} pieces of this run may be scrubbed; ${request.scrub} cannot be.`);
    const seed = Number.parseInt(request.id.slice(0, 8), 16) >>> 1;
    const pieces = drawPieces(among, request.scrub, { before: drawn, random: seededRandom(seed) });
    await insert(context, 'sampleDraws', {
      ...{ id: request.id, runId, scrub: request.scrub, seed, pieces },
      ...{ at: context.now, byId: context.actor },
    });
  });
  return sampleOf(context, run);
}

export async function createPieceCheck(context: Context, runId: string, request: CreatePieceCheck): Promise<RunSample> {
  const run = await find(context, 'runs', runId);
  await createOnce(context, 'piece check', request, async () => {
    if (request.piece > run.pieces)
      throw fault('piece', `This run is of ${run.pieces} pieces; there is no ${request.piece}.`);
    await insert(context, 'pieceChecks', { ...request, runId, at: context.now, byId: context.actor });
  });
  return sampleOf(context, run);
}

export async function runSample(context: Context, runId: string): Promise<RunSample> {
  return sampleOf(context, await find(context, 'runs', runId));
}

async function sampleOf(context: Context, run: Rows['runs']): Promise<RunSample> {
  const where = { runId: run.id };
  const [draw] = await list(context, 'sampleDraws', { where, order: NEWEST_FIRST, limit: 1 });
  const checks = await list(context, 'pieceChecks', { where, order: OLDEST_FIRST });
  const newest = new Map(checks.map((check) => [`${check.piece} ${check.test}`, check]));
  return {
    ...{ runId: run.id, aside: await asideOf(context, run.id), scrub: draw?.scrub ?? null, drawn: draw?.pieces ?? [] },
    checks: [...newest.values()].map(({ piece, test, strokes, result, at, byId }) => ({
      ...{ piece, test, strokes, result, at: at.toISOString(), by: byId },
    })),
  };
}

/**
 * Pieces that were set aside as the run was counted, by their number among those that were marked: a run that ended early has no others.
 */
async function asideOf(context: Context, runId: string): Promise<number[]> {
  const [marking] = await list(context, 'markings', { where: { runId }, limit: 1 });
  if (!marking) return [];
  const marked = madePieces(await countedOf(context, marking.id));
  return marked.flatMap(({ state }, i) => (state === 'set aside' ? [i + 1] : []));
}
