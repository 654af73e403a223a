import { BURN_LIVE, type ControllerState } from '@unto/contract';
import type { Rows } from '../db/models/index.js';

type Burn = Rows['burns'];

/** A program that was given away and is not spoken of may still be on its way so long, s. */
const ON_ITS_WAY_S = 10;

/** Every attempt is a program of its own to the controller. */
export function programName({ id, attempt }: Pick<Burn, 'id' | 'attempt'>): string {
  return `${id} ${attempt}`;
}

/**
 * What a burn is after the controller answered, or did not (null). A controller that speaks of another program, or of none, has lost
 * this one: whether and how far it was burnt, only somebody who looks can tell.
 * @param at this moment
 */
export function afterAnswer(burn: Burn, answer: ControllerState | null, at: Date): Partial<Burn> {
  if (!answer) return { state: 'silent' };
  if (answer.program !== programName(burn)) {
    const onItsWay = !burn.heard && at.getTime() - (burn.sentAt ?? burn.startedAt).getTime() < 1000 * ON_ITS_WAY_S;
    return onItsWay ? {} : { state: 'unknown', asked: null };
  }
  const state = answer.state === 'idle' ? 'unknown' : answer.state;
  const cellsDone = inOrder([...burn.cellsBefore, ...answer.cellsDone]);
  return {
    state,
    asked: BURN_LIVE.includes(state) ? burn.asked : null,
    heard: true,
    elapsedS: answer.elapsedS,
    totalS: answer.totalS,
    cellsDone,
    cellsCut: state === 'stopped' ? inOrder([...burn.cellsCut, ...cutCell(answer)]) : burn.cellsCut,
    cell: answer.cell,
    message: answer.message,
    seenAt: at,
    endedAt: state === 'done' ? at : null,
    air: switchSeen(burn.air, answer.air),
    extraction: switchSeen(burn.extraction, answer.extraction),
  };
}

/** The part that was under the beam as it stopped. */
function cutCell({ cell, cellsDone }: ControllerState): number[] {
  return cell === null || cellsDone.includes(cell) ? [] : [cell];
}

function switchSeen(before: Burn['air'], now: boolean | null): Burn['air'] {
  if (now === null) return before;
  const seen = now ? 'on' : 'off';
  return before === null || before === seen ? seen : 'changed';
}

/** What a burn is once it could not be sent: nothing of this attempt left the server. */
export function unsent({ attempt }: Burn, fault: string, at: Date): Partial<Burn> {
  return attempt === 1 ? { state: 'not sent', fault, endedAt: at } : { state: 'stopped', fault };
}

/**
 * Parts that somebody who looked found burnt whole, and the one after them, which may be burnt in part.
 * @param order parts of this attempt as they are burnt @param seen how many of them are whole
 */
export function partsFound(
  burn: Pick<Burn, 'cellsDone' | 'cellsCut' | 'cell'>,
  order: readonly number[],
  seen: number,
): Pick<Burn, 'cellsDone' | 'cellsCut'> {
  const cellsDone = inOrder([...burn.cellsDone, ...order.slice(0, seen)]);
  const under = [...order.slice(seen, seen + 1), ...(burn.cell === null ? [] : [burn.cell])];
  return { cellsDone, cellsCut: inOrder([...burn.cellsCut, ...under.filter((cell) => !cellsDone.includes(cell))]) };
}

function inOrder(cells: readonly number[]): number[] {
  return [...new Set(cells)].sort((a, b) => a - b);
}
