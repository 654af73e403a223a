import {
  clipped,
  CoreError,
  piecesDxf,
  piecesSvg,
  programParts,
  type Artwork,
  type ArtworkShape,
  type Box,
  type ProgramOptions,
  type ProgramPiece,
  type ProgramSetting,
} from '@unto/core';
import type { LayoutEntries } from '@unto/contract';
import type { LaidPlace } from '../prepare/index.js';
import { pieceName } from './piece-name.js';
import { pieceNumbers } from './piece-numbers.js';
import { ownShapes, sharedShapes } from './piece.js';

/** Pieces that a program is asked of. */
export interface AskedPieces {
  /** “3,7-9”: those again, each in the place it had. */
  readonly pieces?: string | undefined;
  /** The first of a load. */
  readonly from?: number | undefined;
  /** Only what lies there on each, mm from the piece’s lower left corner: to be run again. */
  readonly region?: Box | undefined;
}

/** A program as it is asked for. */
export interface ProgramJob {
  readonly entries: LayoutEntries;
  readonly artwork: Artwork | null;
  /** How many pieces the ticket has. */
  readonly count: number;
  /** Places of the jig in the order they are marked; null for one piece at a time, its corner at 0, 0. */
  readonly places: readonly LaidPlace[] | null;
  readonly asked: AskedPieces;
}

/**
 * The pieces of a program, each in its place: piece 1 in the first place, the next load beginning there again.
 * @throws artwork.no-places for pieces the ticket does not have, or of more than one load, or a region where nothing lies
 */
export function programPieces({ entries, artwork, count, places, asked }: ProgramJob): ProgramPiece[] {
  const numbers = askedNumbers(asked, count, places?.length ?? count);
  const within = (some: ArtworkShape[]) => (asked.region ? clipped(some, asked.region) : some);
  const shapes = within(sharedShapes(entries, artwork));
  const at = (number: number) => places?.[(number - 1) % places.length];
  const pieces = numbers.map((number) => {
    const place = at(number);
    return {
      ...{ number, name: pieceName(entries, number), shapes, own: within(ownShapes(entries, number)) },
      ...{ xMm: place?.xMm ?? 0, yMm: place?.yMm ?? 0, turnDeg: place?.turnDeg ?? 0 },
    };
  });
  if (asked.region && pieces.every(({ shapes: all, own }) => !all.length && !own.length))
    throw new CoreError('artwork.no-places', 'Nothing of the artwork lies in that region.', { path: 'region' });
  return pieces;
}

function askedNumbers({ pieces, from }: AskedPieces, count: number, load: number): number[] {
  const numbers = pieces
    ? (pieceNumbers(pieces) ?? [])
    : Array.from({ length: Math.min(load, count - (from ?? 1) + 1) }, (_, i) => (from ?? 1) + i);
  const strange = numbers.find((number) => number < 1 || number > count);
  if (!numbers.length || strange !== undefined)
    throw new CoreError(
      'artwork.no-places',
      `This ticket has pieces 1 to ${count}; there is no ${strange ?? from ?? pieces}.`,
      {
        path: 'pieces',
      },
    );
  const loads = new Set(numbers.map((number) => Math.floor((number - 1) / load)));
  if (loads.size > 1)
    throw new CoreError('artwork.no-places', `The jig holds ${load} at a time: those pieces are not of one load.`, {
      path: 'pieces',
    });
  return numbers;
}

/** A program or drawing of pieces, in parts. */
export function* programText(
  pieces: readonly ProgramPiece[],
  how: {
    readonly format: 'gcode' | 'svg' | 'dxf';
    readonly setting: ProgramSetting;
    readonly options: ProgramOptions;
    readonly words: string;
  },
): Generator<string> {
  if (how.format === 'gcode') return yield* programParts(pieces, how.setting, how.options);
  if (how.options.oneByOne && pieces.length > 1)
    throw new CoreError('artwork.no-places', 'Without a jig a drawing is of one piece: lay out a jig at Prepare.', {
      path: 'pieces',
    });
  yield how.format === 'svg' ? piecesSvg(pieces, how) : piecesDxf(pieces, how);
}
