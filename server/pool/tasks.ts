import type { InventoryKind, SheetEntries } from '@unto/contract';
import { artworkFacts, drawingOf, readArtwork, workOutSheet, type ArtworkFile } from '@unto/domain';
import { laidOut, pieceDrawing, programOf, secondsOf, trayOf, type ProgramInput } from './artwork-tasks.js';
import { problemOf, atField } from '../errors/api-error.js';
import { readInventoryFile } from '../formats/inventory-files.js';
import { readLedgerFile } from '../formats/ledger-files.js';

type Bytes = Uint8Array;

/** What may take more than a moment, by name: works on what it is given alone, so that any thread can do it. */
export const TASKS = {
  layOutSheet: (entries: SheetEntries) => atField('entries', () => workOutSheet(entries)),
  measureArtwork: (file: ArtworkFile) => atField('entries', () => artworkFacts(file)),
  drawArtwork: (file: ArtworkFile) => drawingOf(readArtwork(file)),
  drawPiece: pieceDrawing,
  layOutPieces: laidOut,
  pieceSeconds: secondsOf,
  readTray: trayOf,
  writeProgram: (input: ProgramInput) => atField('pieces', () => programOf(input)),
  readLedger: ({ format, bytes }: { format: 'csv' | 'json'; bytes: Bytes }) => readLedgerFile(format, bytes),
  readInventory: ({ format, kind, bytes }: { format: 'csv' | 'json'; kind: InventoryKind | undefined; bytes: Bytes }) =>
    readInventoryFile(format, kind, bytes),
};
type Tasks = typeof TASKS;
export type TaskName = keyof Tasks;
export type InputOf<N extends TaskName> = Parameters<Tasks[N]>[0];
type Outputs = { readonly [N in TaskName]: ReturnType<Tasks[N]> };
export type OutputOf<N extends TaskName> = Outputs[N];

/** A task and what it is given. */
export interface Task<N extends TaskName = TaskName> {
  readonly name: N;
  readonly input: InputOf<N>;
}

/** What came of it: errors do not pass between threads as what they are, so a refusal goes as its problem document. */
export type Outcome = { readonly done: unknown } | { readonly refused: NonNullable<ReturnType<typeof problemOf>> };

/** Does a task; what nobody foresaw is thrown. */
export function outcomeOf({ name, input }: Task): Outcome {
  try {
    return { done: (TASKS[name] as (input: unknown) => unknown)(input) };
  } catch (error) {
    const refused = problemOf(error);
    if (refused) return { refused };
    throw error;
  }
}
