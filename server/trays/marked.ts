import type { CreateTrayReading } from '@unto/contract';
import { madePieces, markedNumbers } from '@unto/domain';
import { layoutOf } from '../artworks/service.js';
import { find, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError, fault } from '../errors/api-error.js';
import { countedOf, requirePieceOf } from '../samples/counted.js';

/** A run whose pieces are known by what was laid out on them. */
export interface MarkedRun {
  readonly run: Rows['runs'];
  readonly ticket: Rows['tickets'];
  /** How it was counted; null where nobody counted it. */
  readonly marking: Rows['markings'] | null;
  readonly layout: NonNullable<Awaited<ReturnType<typeof layoutOf>>>;
  /** Number on the ticket of each of its pieces. */
  readonly numbers: readonly number[];
}

/** @throws wrong-stage where nothing was laid out on its pieces: a picture is read against what was to be marked */
export async function markedRun(context: Context, runId: string): Promise<MarkedRun> {
  const run = await find(context, 'runs', runId);
  const ticket = await find(context, 'tickets', run.ticketId);
  const [marking = null] = await list(context, 'markings', { where: { runId }, limit: 1 });
  const layout = await layoutOf(context, marking ? marking.layoutId : ticket.layoutId);
  if (!layout)
    throw new ApiError(
      'wrong-stage',
      'A picture is read against what was to be marked, and nothing was laid out on these pieces: bring the artwork at Place before the next run.',
    );
  return { run, ticket, marking, layout, numbers: await numbersOf(context, run, marking) };
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
