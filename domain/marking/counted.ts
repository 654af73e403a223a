import type { MarkedPiece, Marking, CreatePieceEvent } from '@unto/contract';

/** What was said of a piece, in the order it came in. */
export interface PieceEvent {
  readonly piece: number;
  readonly what: CreatePieceEvent['what'];
  readonly why: CreatePieceEvent['why'];
  readonly spot?: { readonly x: number; readonly y: number } | null | undefined;
  readonly at: string;
  readonly by: string;
}

/** Pieces of which something was said, each as it was said last; what was taken back is to go again. */
export function countedPieces(events: readonly PieceEvent[]): MarkedPiece[] {
  const newest = new Map<number, MarkedPiece>();
  for (const { piece, what, why, spot, at, by } of events)
    newest.set(piece, {
      piece,
      state: what === 'taken back' ? 'to go' : what,
      why: what === 'set aside' ? why : null,
      spot: what === 'set aside' ? (spot ?? null) : null,
      at,
      by,
    });
  return [...newest.values()].sort((a, b) => a.piece - b.piece);
}

/** Those that went under the beam: done, or set aside. */
export const madePieces = (counted: readonly MarkedPiece[]): MarkedPiece[] =>
  counted.filter(({ state }) => state !== 'to go');

/** How far a run is that is being counted. Times in seconds. */
export interface CountedSoFar {
  readonly done: number;
  readonly aside: number;
  readonly toGo: number;
  /** The first piece that is still to go; null where none is. */
  readonly next: number | null;
  readonly elapsedS: number;
  /** What a piece took so far, from the beginning to the piece counted last; null before the first. */
  readonly paceS: number | null;
  /** What the whole run is expected to take: by the pieces so far, else by the plan; null where neither says. */
  readonly expectedS: number | null;
}

/** @param plannedS seconds of a piece by the recipe; null without one */
export function countedSoFar(
  { pieces, startedAt, counted }: Pick<Marking, 'pieces' | 'startedAt' | 'counted'>,
  plannedS: number | null,
  nowMs: number,
): CountedSoFar {
  const of = (state: MarkedPiece['state']) => counted.filter((one) => one.state === state).length;
  const [done, aside] = [of('done'), of('set aside')];
  const made = done + aside;
  const spoken = new Set(madePieces(counted).map(({ piece }) => piece));
  const next = Array.from({ length: pieces }, (_, i) => i + 1).find((piece) => !spoken.has(piece)) ?? null;
  const elapsedS = Math.max(0, (nowMs - Date.parse(startedAt)) / 1000);
  const lastS = lastAt(counted, startedAt);
  const paceS = made && lastS !== null ? lastS / made : null;
  const each = paceS ?? plannedS;
  return { done, aside, toGo: pieces - made, next, elapsedS, paceS, expectedS: each === null ? null : each * pieces };
}

/** Seconds from the beginning to the piece that was counted last; null while none was. */
function lastAt(counted: readonly MarkedPiece[], startedAt: string): number | null {
  const made = madePieces(counted).map(({ at }) => Date.parse(at));
  return made.length ? Math.max(0, (Math.max(...made) - Date.parse(startedAt)) / 1000) : null;
}

/** Minutes from the beginning to the piece counted last; at least a second. */
export function countedMinutes({ counted, startedAt }: Pick<Marking, 'counted' | 'startedAt'>): number {
  return Math.max(1, lastAt(counted, startedAt) ?? 0) / 60;
}

/** A stop longer than so many pieces of the usual pace is told: nobody marked then. Common practice, no source. */
const STOP = 3;

/** Stops while a run was counted, seconds: gaps far longer than what a piece took mostly. */
export function stopsIn({ counted, startedAt }: Pick<Marking, 'counted' | 'startedAt'>): number[] {
  const times = madePieces(counted)
    .map(({ at }) => (Date.parse(at) - Date.parse(startedAt)) / 1000)
    .sort((a, b) => a - b);
  const gaps = times.map((at, i) => at - (times[i - 1] ?? 0));
  const middle = [...gaps].sort((a, b) => a - b)[Math.floor(gaps.length / 2)] ?? 0;
  return gaps.length < 4 ? [] : gaps.filter((gap) => gap > STOP * middle).map((gap) => gap - middle);
}
