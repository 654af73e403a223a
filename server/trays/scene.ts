import type { TrayScene } from '@unto/contract';
import type { Context } from '../db/context.js';
import { ApiError } from '../errors/api-error.js';
import { layUnderHead } from '../markings/burns.js';
import { runProgram } from '../programs/program.js';
import { markedRun, numbersOn } from './marked.js';

/** Washed pieces of a run as they lie beside the card, for a simulator that is to show them. */
export async function trayScene(
  context: Context,
  { runId, pieces }: { readonly runId: string; readonly pieces: readonly number[] },
): Promise<TrayScene> {
  const marked = await markedRun(context, runId);
  if (!marked.marking)
    throw new ApiError('wrong-stage', 'The stand-in camera shows only pieces that were counted as they were marked.');
  const numbers = numbersOn(marked, { pieces: [...pieces] });
  const { setup, pieces: laid } = await layUnderHead(context, marked.marking);
  const byPart = new Map(laid.map((one) => [one.part, one]));
  const program = await runProgram(context, marked.marking, numbers);
  return { kind: 'tray', stage: 'scrubbed', setup, pieces: numbers.map((number) => byPart.get(number - 1)!), program };
}
