import { drawPieces, seededRandom } from '@unto/core';
import type { CreatePieceCheck, CreatePieceFault, CreateSampleDraw, RunSample } from '@unto/contract';
import { madePieces, markedNumbers, pieceName } from '@unto/domain';
import { createOnce, find, insert, list, NEWEST_FIRST, OLDEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { countedOf, requirePieceOf } from './counted.js';

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
    requirePieceOf(run, request.piece);
    await insert(context, 'pieceChecks', { ...request, runId, at: context.now, byId: context.actor });
  });
  return sampleOf(context, run);
}

export async function runSample(context: Context, runId: string): Promise<RunSample> {
  return sampleOf(context, await find(context, 'runs', runId));
}

export async function createPieceFault(context: Context, runId: string, request: CreatePieceFault): Promise<RunSample> {
  const run = await find(context, 'runs', runId);
  await createOnce(context, 'piece fault', request, async () => {
    const { id, piece, fault: seen, spot = null } = request;
    requirePieceOf(run, piece);
    await insert(context, 'pieceFaults', { id, piece, fault: seen, spot, runId, at: context.now, byId: context.actor });
  });
  return sampleOf(context, run);
}

async function sampleOf(context: Context, run: Rows['runs']): Promise<RunSample> {
  const where = { runId: run.id };
  const [draw] = await list(context, 'sampleDraws', { where, order: NEWEST_FIRST, limit: 1 });
  const checks = await list(context, 'pieceChecks', { where, order: OLDEST_FIRST });
  const { aside, names, first } = await markedOf(context, run.id);
  const newest = new Map([...first, ...checks].map((check) => [`${check.piece} ${check.test}`, check]));
  const faults = new Map(
    (await list(context, 'pieceFaults', { where, order: OLDEST_FIRST })).map((row) => [row.piece, row]),
  );
  return {
    ...{ runId: run.id, aside, names, scrub: draw?.scrub ?? null, drawn: draw?.pieces ?? [] },
    faults: [...faults.values()].flatMap(({ piece, fault: seen, spot, at, byId }) =>
      seen ? [{ piece, fault: seen, spot: spot ?? null, at: at.toISOString(), by: byId }] : [],
    ),
    checks: [...newest.values()].map(({ piece, test, strokes, result, at, byId }) => ({
      ...{ piece, test, strokes, result, at: at.toISOString(), by: byId },
    })),
  };
}

type Check = Pick<Rows['pieceChecks'], 'piece' | 'test' | 'strokes' | 'result' | 'at' | 'byId'>;

/** How the first piece of a run stood its scrub, as a check of it; going on without one is none. */
const FIRST_STOOD = { held: 'no change', paler: 'slightly paler', lost: 'lost' } as const;

/**
 * What was said of a run's pieces as it was counted, by their number among those that were marked (a run that ended early has no others): which
 * were set aside, what each is called, how the first one stood its scrub.
 */
async function markedOf(
  context: Context,
  runId: string,
): Promise<{ aside: number[]; names: string[]; first: Check[] }> {
  const [marking] = await list(context, 'markings', { where: { runId }, limit: 1 });
  if (!marking) return { aside: [], names: [], first: [] };
  const marked = madePieces(await countedOf(context, marking.id));
  const layout = marking.layoutId ? (await find(context, 'layouts', marking.layoutId)).entered : null;
  const numbers = markedNumbers(marking.entered);
  const [stood] = await list(context, 'firstPieces', {
    where: { markingId: marking.id },
    order: NEWEST_FIRST,
    limit: 1,
  });
  return {
    aside: marked.flatMap(({ state }, i) => (state === 'set aside' ? [i + 1] : [])),
    names: layout ? marked.map(({ piece }) => pieceName(layout, numbers[piece - 1]!)) : [],
    first:
      stood && stood.result !== 'not scrubbed'
        ? [{ ...stood, piece: 1, test: 'abrasive pad', strokes: null, result: FIRST_STOOD[stood.result] }]
        : [],
  };
}
