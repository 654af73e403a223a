import { warpSurface, type Fault, type FaultRecord, type FaultSpot, type HeightReading } from '@unto/core';

/** Heights that were read over a part, and what the focus was set to. */
export interface ReadSurface {
  readonly readings: readonly HeightReading[];
  readonly focusMm: number;
}

/** What a fault lies on: its mark, its heights, the pieces made with it. */
export interface FaultOn {
  readonly markWidthMm: number;
  readonly markHeightMm: number;
  readonly surface: ReadSurface | null;
  readonly made: number;
  /** Other judged runs of the ticket: their pieces, those that came out badly, and how they looked. */
  readonly others: readonly { readonly pieces: number; readonly bad: number; readonly faults: readonly Fault[] }[];
}

/** Spots nearer to one another than this share of the mark are at the same place. */
const SAME_PLACE = 0.3;
/** Places of a mark that are looked at where nobody said where the fault lies. */
const GRID = 9;

/** A record with how the fault looks, where it lies and on how many pieces: what that says of heights and of the other pieces. */
export function recordAsSeen(
  record: FaultRecord,
  on: FaultOn,
  seen: { readonly faults: readonly Fault[]; readonly spots: readonly FaultSpot[]; readonly pieces: number },
): FaultRecord {
  const offMm = on.surface && offFocus(on, on.surface, seen.spots);
  return { ...record, spots: seen.spots, pieces: otherPieces(on, seen), place: { ...record.place, offMm } };
}

/** How many pieces look so, of those of the run and of the ticket’s other judged runs; null where there is but one. */
function otherPieces(
  { made, others }: FaultOn,
  { faults, spots, pieces }: Parameters<typeof recordAsSeen>[2],
): FaultRecord['pieces'] {
  const alike = others.filter((run) => run.faults.some((fault) => faults.includes(fault)));
  const sum = (runs: FaultOn['others'], of: (run: FaultOn['others'][number]) => number) =>
    runs.reduce((total, run) => total + of(run), 0);
  const all = made + sum(others, (run) => run.pieces);
  const own = Math.min(made === 1 ? 1 : pieces, made);
  if (all < 2 || own === 0) return null;
  return { made: all, alike: own + sum(alike, (run) => run.bad), samePlace: together(spots) };
}

/** How far the part lies off the focus: at the spots, or at the worst place of the mark where none was said. */
function offFocus({ markWidthMm, markHeightMm }: FaultOn, surface: ReadSurface, spots: readonly FaultSpot[]): number {
  const { heightAt } = warpSurface(surface.readings);
  const at = ({ x, y }: FaultSpot) => heightAt(x * markWidthMm, (1 - y) * markHeightMm) - surface.focusMm;
  const grid = Array.from({ length: GRID * GRID }, (_, i) => ({
    x: (i % GRID) / (GRID - 1),
    y: Math.floor(i / GRID) / (GRID - 1),
  }));
  const offs = (spots.length ? spots : grid).map(at);
  return offs.reduce((worst, off) => (Math.abs(off) > Math.abs(worst) ? off : worst), 0);
}

function together(spots: readonly FaultSpot[]): boolean {
  return spots.length > 0 && spots.every((a) => spots.every((b) => Math.hypot(a.x - b.x, a.y - b.y) < SAME_PLACE));
}
