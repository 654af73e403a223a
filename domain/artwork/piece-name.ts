import { textOf, type TextNumbers } from '@unto/core';
import type { LayoutEntries } from '@unto/contract';

/** What of a layout its texts follow from. */
export type TextsOf = Pick<LayoutEntries, 'fields' | 'table' | 'numberFrom' | 'numberStep'>;

export const numbersOf = ({ numberFrom, numberStep }: TextsOf): TextNumbers => ({ from: numberFrom, step: numberStep });

/** What each text says on a piece, the first being 1. @throws csv.missing-column */
export function textsOn(entries: TextsOf, piece: number): string[] {
  return entries.fields.map((field) => textOf(field, piece - 1, entries.table, numbersOf(entries)));
}

/** Name of a piece: what its texts say; empty where it has none. @throws csv.missing-column */
export function pieceName(entries: TextsOf, piece: number): string {
  return [...new Set(textsOn(entries, piece))].filter(Boolean).join(' · ');
}
