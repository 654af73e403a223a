import { warpSurface, type FaultRecord, type FaultSpot, type HeightReading } from '@unto/core';

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
}

/** Spots nearer to one another than this share of the mark are at the same place. */
const SAME_PLACE = 0.3;
/** Places of a mark that are looked at where nobody said where the fault lies. */
const GRID = 9;

/** A record with where the fault lies and on how many pieces: what that says of heights and of the other pieces. */
export function recordAsSeen(
  record: FaultRecord,
  on: FaultOn,
  seen: { readonly spots: readonly FaultSpot[]; readonly pieces: number },
): FaultRecord {
  const offMm = on.surface && offFocus(on, on.surface, seen.spots);
  const pieces =
    on.made > 1 && seen.pieces > 0
      ? { made: on.made, alike: Math.min(seen.pieces, on.made), samePlace: together(seen.spots) }
      : null;
  return { ...record, spots: seen.spots, pieces, place: { ...record.place, offMm } };
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
