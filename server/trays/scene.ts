import type { TrayScene } from '@unto/contract';
import type { Context } from '../db/context.js';
import { ApiError } from '../errors/api-error.js';
import { layUnderHead } from '../markings/burns.js';
import { loadOf, runProgram } from '../programs/program.js';
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
  // Pieces of several loads lay in the same places one after the other: each load is a program of its own.
  const load = await loadOf(context, marked.ticket);
  const loadAt = (number: number) => Math.floor((number - 1) / load);
  const loads = [...new Set(numbers.map(loadAt))].map((at) => numbers.filter((number) => loadAt(number) === at));
  const programs = await Promise.all(loads.map((some) => runProgram(context, marked.marking!, some)));
  return {
    kind: 'tray',
    stage: 'scrubbed',
    setup,
    pieces: numbers.map((number) => byPart.get(number - 1)!),
    program: programs.join(''),
  };
}
