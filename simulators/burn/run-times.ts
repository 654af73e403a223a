import type { Move } from './read-program.js';

/** A machine's own limits. */
export interface Motion {
  readonly accelerationMmPerS2: number;
  readonly rapidMmPerS: number;
}

/** A move with the speeds at its ends and when it ends, s from the start. */
export interface TimedMove extends Move {
  readonly from: number;
  readonly to: number;
  readonly top: number;
  readonly endsS: number;
}

/** Two moves run into each other without slowing where their directions differ by less than this, as a cosine. */
const STRAIGHT = Math.cos((2 * Math.PI) / 180);

/**
 * Speeds along a program under one acceleration: moves in one line run into each other at the slower speed, all others stop between.
 * One look ahead and one back, as controllers do.
 */
export function runTimes(moves: readonly Move[], { accelerationMmPerS2: a, rapidMmPerS }: Motion): TimedMove[] {
  const length = moves.map(({ x0, y0, x1, y1 }) => Math.hypot(x1 - x0, y1 - y0));
  const asked = moves.map((move) => (move.kind === 'feed' ? Math.min(move.speedMmPerS, rapidMmPerS) : rapidMmPerS));
  const joint = new Float64Array(moves.length + 1);
  for (let i = 1; i < moves.length; i += 1) {
    if (!length[i] || !length[i - 1] || !straightOn(moves[i - 1]!, moves[i]!, length[i - 1]! * length[i]!)) continue;
    joint[i] = Math.min(asked[i - 1]!, asked[i]!, Math.sqrt(joint[i - 1]! ** 2 + 2 * a * length[i - 1]!));
  }
  for (let i = moves.length - 1; i > 0; i -= 1)
    joint[i] = Math.min(joint[i]!, Math.sqrt(joint[i + 1]! ** 2 + 2 * a * length[i]!));
  let seconds = 0;
  return moves.map((move, i) => {
    const [from, to] = [joint[i]!, joint[i + 1]!];
    const peak = Math.sqrt((2 * a * length[i]! + from ** 2 + to ** 2) / 2);
    const top = Math.max(from, to, Math.min(asked[i]!, peak));
    if (length[i]! > 0) {
      const ramps = (2 * top ** 2 - from ** 2 - to ** 2) / (2 * a);
      seconds += (2 * top - from - to) / a + Math.max(0, length[i]! - ramps) / top;
    }
    return { ...move, from, to, top, endsS: seconds };
  });
}

function straightOn(one: Move, next: Move, lengths: number): boolean {
  const dot = (one.x1 - one.x0) * (next.x1 - next.x0) + (one.y1 - one.y0) * (next.y1 - next.y0);
  return dot / lengths > STRAIGHT;
}

/** Speed at a distance along a move, mm/s; never quite nought. */
export function speedAlong({ from, to, top }: TimedMove, distance: number, length: number, a: number): number {
  const rising = Math.sqrt(from ** 2 + 2 * a * distance);
  const falling = Math.sqrt(to ** 2 + 2 * a * Math.max(0, length - distance));
  return Math.max(0.5, Math.min(top, rising, falling));
}
