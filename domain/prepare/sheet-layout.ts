import {
  layoutSheet,
  nestSheet,
  type NestJob,
  type NestLayout,
  type NestProgress,
  type SheetBox,
  type SheetJob,
} from '@unto/core';
import type { SheetEntries } from '@unto/contract';

/** A layout of either mode as it is drawn and counted. */
export interface SheetResult {
  readonly places: readonly (SheetBox & { readonly test: boolean; readonly label: string })[];
  readonly leftOut: number;
  readonly used: number;
  /** “7 × 8”, “7 × 8, turned a quarter”, “3 sizes”. */
  readonly words: string;
  readonly lost: number;
  /** Pieces that the label’s size would give; null where no label was read or the sizes are mixed. */
  readonly promised: number | null;
}

/** What the core lays out in rows, of a sheet as it was typed. */
export function sheetJobOf(entries: SheetEntries): SheetJob {
  const { sheetWidthMm, sheetHeightMm, pieceWidthMm, pieceHeightMm, gapMm, marginMm, keepOuts, testPlaces } = entries;
  const { pitchXMm, pitchYMm, firstXMm, firstYMm, shiftMm } = entries;
  const own = pitchXMm !== null || pitchYMm !== null || firstXMm !== null || firstYMm !== null || shiftMm !== 0;
  return {
    sheet: { widthMm: sheetWidthMm, heightMm: sheetHeightMm },
    piece: { widthMm: pieceWidthMm, heightMm: pieceHeightMm },
    gapMm,
    marginMm,
    keepOuts,
    testPlaces,
    jig: own
      ? {
          pitchXMm: pitchXMm ?? pieceWidthMm + gapMm,
          pitchYMm: pitchYMm ?? pieceHeightMm + gapMm,
          firstXMm: firstXMm ?? marginMm,
          firstYMm: firstYMm ?? marginMm,
          shiftMm,
        }
      : undefined,
  };
}

/** The seed of every nesting: the same entries give the same layout on the page and on the server. */
const NEST_SEED = 22;

/** What the core nests, of a sheet with pieces of several sizes. */
export function nestJobOf({ sheetWidthMm, sheetHeightMm, gapMm, marginMm, keepOuts, pieces }: SheetEntries): NestJob {
  const sheet = { widthMm: sheetWidthMm, heightMm: sheetHeightMm };
  return { sheet, gapMm, marginMm, keepOuts, kinds: pieces, seed: NEST_SEED };
}

/** Lays a sheet out, in rows or nested. @throws place.sheet-too-small, value.* of the core */
export function workOutSheet(entries: SheetEntries, tell?: (progress: NestProgress) => boolean | void): SheetResult {
  if (entries.mode === 'rows') {
    const { places, columns, rows, turned, lost, used, test } = layoutSheet(sheetJobOf(entries));
    const first = places.length - test;
    return {
      places: places.map((place, i) => ({ ...place, test: i >= first, label: '' })),
      leftOut: 0,
      used,
      lost,
      promised: promisedBy(entries),
      words: `${columns} × ${rows}${turned ? ', turned a quarter' : ''}`,
    };
  }
  return nestResult(entries, nestSheet(nestJobOf(entries), tell));
}

/** Pieces in rows on a sheet of the size its label says. */
function promisedBy(entries: SheetEntries): number | null {
  const { labelWidthMm, labelHeightMm } = entries;
  if (!labelWidthMm || !labelHeightMm) return null;
  const job = sheetJobOf({ ...entries, sheetWidthMm: labelWidthMm, sheetHeightMm: labelHeightMm });
  return layoutSheet({ ...job, keepOuts: [] }).places.length;
}

/** A nesting as it is drawn and counted. */
export function nestResult(entries: SheetEntries, { places, leftOut, used }: NestLayout): SheetResult {
  return {
    places: places.map(({ kind, turned: _turned, ...place }) => ({
      ...place,
      test: entries.pieces[kind]!.test,
      label: entries.pieces[kind]!.label,
    })),
    leftOut: leftOut.reduce((sum, count) => sum + count, 0),
    used,
    lost: 0,
    promised: null,
    words: `${entries.pieces.length} sizes`,
  };
}
