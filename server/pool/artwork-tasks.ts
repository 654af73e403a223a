import {
  artworkOf,
  openCardPicture,
  readTray,
  type ArtworkMeasure,
  type CardPrints,
  type Pixels,
  type ProgramOptions,
  type ProgramSetting,
  type RowMotion,
  type TrayJob,
  type TrayReading,
} from '@unto/core';
import type { ArtworkDrawing, LayoutEntries } from '@unto/contract';
import {
  drawingOf,
  faultsOf,
  layoutMeasure,
  markedShapes,
  pieceSeconds,
  programPieces,
  programText,
  readArtwork,
  type ArtworkFile,
  type ProgramJob,
} from '@unto/domain';
import { ApiError, atField } from '../errors/api-error.js';

/** A layout as asked for, with the artwork it lays. */
export interface LayoutInput {
  readonly entries: LayoutEntries;
  readonly file: ArtworkFile | null;
  readonly pieces: number;
  readonly spotMm: number;
  readonly intervalMm: number | null;
}

/**
 * What everything on a piece measures.
 * @throws invalid-input at the texts that cannot be burnt
 */
export function laidOut({ entries, file, ...job }: LayoutInput): ArtworkMeasure {
  const stops = atField('entries.fields', () => faultsOf(entries, job)).filter((fault) => fault.stops);
  if (stops.length) {
    const faults = stops.map(({ words, pieces }) => ({
      path: 'entries.fields',
      message: `${words} ${pieces.length === 1 ? 'Piece' : 'Pieces'} ${shortList(pieces)}.`,
    }));
    throw new ApiError('invalid-input', 'Not every text can be burnt.', { faults });
  }
  return atField('entries.artworkId', () => layoutMeasure(entries, file && readArtwork(file), job.pieces));
}

function shortList(pieces: readonly number[]): string {
  return pieces.length > 8 ? `${pieces.slice(0, 8).join(', ')} and ${pieces.length - 8} more` : pieces.join(', ');
}

/** What is marked on one piece, from the upper left of it all. */
export function pieceDrawing({
  entries,
  file,
  number,
}: Pick<LayoutInput, 'entries' | 'file'> & { readonly number: number }): ArtworkDrawing {
  const [shapes] = markedShapes(entries, file && readArtwork(file), [number]);
  return drawingOf(artworkOf(shapes!, [], null));
}

/** Seconds of a piece by its path. */
export interface SecondsInput extends Pick<LayoutInput, 'entries' | 'file' | 'pieces'> {
  readonly setting: ProgramSetting;
  readonly motion: RowMotion;
}

export function secondsOf({ entries, file, ...job }: SecondsInput): number {
  return pieceSeconds(entries, file && readArtwork(file), job);
}

export interface ProgramInput extends Omit<ProgramJob, 'artwork'> {
  readonly file: ArtworkFile | null;
  readonly format: 'gcode' | 'svg' | 'dxf';
  readonly setting: ProgramSetting;
  readonly options: ProgramOptions;
  readonly words: string;
}

/** The text of a program. */
export function programOf({ file, ...job }: ProgramInput): string {
  return [...programText(programPieces({ ...job, artwork: file && readArtwork(file) }), job)].join('');
}

/** Pieces on a tray as a picture shows them, and what is marked on each. */
export interface TrayInput extends Pick<LayoutInput, 'entries' | 'file'> {
  readonly pixels: Pixels;
  readonly prints: CardPrints;
  /** Numbers on the ticket, in the order they lie. */
  readonly numbers: readonly number[];
  readonly job: Omit<TrayJob, 'marks'>;
}

export function trayOf({ entries, file, pixels, prints, numbers, job }: TrayInput): TrayReading {
  const marks = markedShapes(entries, file && readArtwork(file), numbers);
  return atField('fileHash', () => readTray(openCardPicture(pixels, prints), { ...job, marks }));
}
