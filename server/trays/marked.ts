import type { ArtworkDrawing, CreateTrayReading, Layout } from '@unto/contract';
import { madePieces, markedNumbers } from '@unto/domain';
import { layoutFile, layoutOf } from '../artworks/service.js';
import { find, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError, fault } from '../errors/api-error.js';
import { countedOf, requirePieceOf } from '../samples/counted.js';

/** A run, what was laid out on its pieces if anything was, and which of the ticket they are. */
interface LaidRun {
  readonly run: Rows['runs'];
  readonly ticket: Rows['tickets'];
  /** How it was counted; null where nobody counted it. */
  readonly marking: Rows['markings'] | null;
  readonly layout: Layout | null;
  /** Number on the ticket of each of its pieces. */
  readonly numbers: readonly number[];
}

/** A run whose pieces are known by what was laid out on them. */
export interface MarkedRun extends LaidRun {
  readonly layout: Layout;
}

async function laidRun(context: Context, runId: string): Promise<LaidRun> {
  const run = await find(context, 'runs', runId);
  const ticket = await find(context, 'tickets', run.ticketId);
  const [marking = null] = await list(context, 'markings', { where: { runId }, limit: 1 });
  const layout = await layoutOf(context, marking ? marking.layoutId : ticket.layoutId);
  return { run, ticket, marking, layout, numbers: await numbersOf(context, run, marking) };
}

/** @throws wrong-stage where nothing was laid out on its pieces: a picture is read against what was to be marked */
export async function markedRun(context: Context, runId: string): Promise<MarkedRun> {
  const { layout, ...laid } = await laidRun(context, runId);
  if (!layout)
    throw new ApiError(
      'wrong-stage',
      'A picture is read against what was to be marked, and nothing was laid out on these pieces: bring the artwork at Place before the next run.',
    );
  return { ...laid, layout };
}

/** What was to be marked on a piece of a run, drawn; null where nothing was laid out on it. */
export async function markDrawing(context: Context, runId: string, piece: number): Promise<ArtworkDrawing | null> {
  const { run, layout, numbers } = await laidRun(context, runId);
  requirePieceOf(run, piece);
  if (!layout) return null;
  const file = await layoutFile(context, layout);
  return context.pool.run('drawPiece', { entries: layout.entered, file, number: numbers[piece - 1]! });
}

async function numbersOf(context: Context, run: Rows['runs'], marking: Rows['markings'] | null): Promise<number[]> {
  if (!marking) return Array.from({ length: run.pieces }, (_, i) => i + 1);
  const numbers = markedNumbers(marking.entered);
  return madePieces(await countedOf(context, marking.id)).map(({ piece }) => numbers[piece - 1]!);
}

/** Numbers on the ticket of pieces of a run. @throws invalid-input at `pieces` */
export function numbersOn({ run, numbers }: MarkedRun, { pieces }: Pick<CreateTrayReading, 'pieces'>): number[] {
  if (new Set(pieces).size < pieces.length) throw fault('pieces', 'Each piece lies there once.');
  for (const piece of pieces) requirePieceOf(run, piece);
  return pieces.map((piece) => numbers[piece - 1]!);
}
