import type { SheetBox } from '@unto/core';
import type { PlaceReading, Sheet } from '@unto/contract';
import { workOutSheet } from './sheet-layout.js';

/** A place that a piece lies in under the head: its lower left corner, mm, and how it is turned about that; straight where nothing is said. */
export interface LaidPlace extends SheetBox {
  readonly turnDeg?: number;
}

/**
 * Places of a ticket's pieces in the order they are marked: those of its jig, or where a picture showed them, whichever was laid out last.
 * Null where pieces are laid in one after the other.
 */
export function laidPlaces(
  sheet: Pick<Sheet, 'entries' | 'at'> | null | undefined,
  pictured: Pick<PlaceReading<'laid'>, 'entries' | 'at'> | null | undefined,
): LaidPlace[] | null {
  const jig = sheet?.entries.mode === 'rows' ? sheet : null;
  if (pictured && (!jig || pictured.at >= jig.at)) {
    const { pieces, pieceWidthMm: widthMm, pieceHeightMm: heightMm } = pictured.entries;
    return pieces.map(({ xMm, yMm, turnDeg }) => ({ xMm, yMm, widthMm, heightMm, turnDeg }));
  }
  if (!jig) return null;
  return workOutSheet(jig.entries)
    .places.filter(({ test }) => !test)
    .map(({ xMm, yMm, widthMm, heightMm }) => ({ xMm, yMm, widthMm, heightMm }));
}
