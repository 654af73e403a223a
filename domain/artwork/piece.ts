import {
  pathData,
  artworkOf,
  pathTime,
  legibleHeight,
  measureArtwork,
  placed,
  textFaults,
  textShapes,
  type Artwork,
  type ArtworkMeasure,
  type ArtworkShape,
  type ProgramSetting,
  type RowMotion,
  type TextFault,
} from '@unto/core';
import type { LayoutEntries } from '@unto/contract';
import { numbersOf, pieceName, textsOn, type TextsOf } from './piece-name.js';

/** What is on every piece alike: the artwork where it lies, from the piece's lower left corner. */
export function sharedShapes(entries: LayoutEntries, artwork: Artwork | null): ArtworkShape[] {
  return artwork ? placed(artwork.shapes, entries) : [];
}

/** What is on one piece alone. @throws csv.missing-column, artwork.text-too-long */
export function ownShapes(entries: TextsOf, piece: number): ArtworkShape[] {
  const texts = textsOn(entries, piece);
  return entries.fields.flatMap((field, i) => textShapes(field, texts[i]!));
}

/** All that is on each of some pieces; pieces alike share what is on them. @throws csv.missing-column, artwork.text-too-long */
export function markedShapes(
  entries: LayoutEntries,
  artwork: Artwork | null,
  numbers: readonly number[],
): (readonly ArtworkShape[])[] {
  const shared = sharedShapes(entries, artwork);
  return numbers.map((number) => (entries.fields.length ? [...shared, ...ownShapes(entries, number)] : shared));
}

/** What of the texts would go wrong on so many pieces, with a spot and interval. @throws csv.missing-column */
export function faultsOf(
  entries: TextsOf,
  {
    pieces,
    spotMm,
    intervalMm,
  }: { readonly pieces: number; readonly spotMm: number; readonly intervalMm: number | null },
): TextFault[] {
  return textFaults({
    ...{ fields: entries.fields, table: entries.table, numbers: numbersOf(entries), pieces, spotMm },
    legibleMm: legibleHeight({ spotMm, intervalMm }),
  });
}

/** What is on the piece that carries most: each text at its longest. @throws csv.missing-column, artwork.text-too-long */
function fullestShapes(entries: LayoutEntries, artwork: Artwork | null, pieces: number): ArtworkShape[] {
  const texts = entries.fields.flatMap((field, i) => {
    const longest = Array.from({ length: pieces }, (_, k) => textsOn(entries, k + 1)[i]!);
    return textShapes(
      field,
      longest.reduce((most, text) => (text.length > most.length ? text : most), ''),
    );
  });
  return [...sharedShapes(entries, artwork), ...texts];
}

/**
 * Measures what is marked on the piece that carries most, artwork and texts together.
 * @throws artwork.no-geometry where there is neither
 */
export function layoutMeasure(entries: LayoutEntries, artwork: Artwork | null, pieces: number): ArtworkMeasure {
  return measureArtwork(artworkOf(fullestShapes(entries, artwork, pieces), [], null));
}

/** Seconds that a piece takes by the path of its program. @throws value.not-positive, and as layoutMeasure */
export function pieceSeconds(
  entries: LayoutEntries,
  artwork: Artwork | null,
  {
    pieces,
    setting,
    motion,
  }: { readonly pieces: number; readonly setting: ProgramSetting; readonly motion: RowMotion },
): number {
  return pathTime(fullestShapes(entries, artwork, pieces), setting, { ...entries, motion });
}

/** What a piece shows of its texts, and what is wrong with those of any. */
export interface PiecePreview {
  readonly faults: readonly TextFault[];
  /** What every piece is called by its texts. */
  readonly names: readonly string[];
  /** Texts of the piece asked for, as paths in mm, y down from the piece's upper left corner. */
  readonly paths: readonly { readonly as: ArtworkShape['as']; readonly d: string }[];
}

/** The texts of a layout as they come out. @throws csv.missing-column */
export function piecePreview(
  entries: TextsOf,
  job: Parameters<typeof faultsOf>[1] & { readonly piece: number; readonly pieceHeightMm: number },
): PiecePreview {
  const faults = faultsOf(entries, job);
  const broken = faults.some(({ kind, pieces }) => kind === 'unreadable' && pieces.includes(job.piece));
  const own = broken ? [] : ownShapes(entries, job.piece);
  return {
    faults,
    names: Array.from({ length: job.pieces }, (_, i) => pieceName(entries, i + 1)),
    paths: own.map((shape) => ({ as: shape.as, d: pathData(shape, job.pieceHeightMm) })),
  };
}
