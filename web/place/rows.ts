import { parseNumber } from '../ui/format';

/** A column of a table of numbers. */
export interface NumberColumn {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
}

export type NumberRow = Record<string, number>;

/** Rows that are typed whole; a row with nothing in it is no row. */
export function wholeRows(columns: readonly NumberColumn[], rows: readonly NumberRow[]): NumberRow[] {
  return rows.filter((row) => columns.every(({ key }) => Number.isFinite(row[key])));
}

/** Rows with a number missing or unreadable, by their place. */
export function brokenRows(columns: readonly NumberColumn[], rows: readonly NumberRow[]): number[] {
  return rows.flatMap((row, i) => {
    const typed = columns.filter(({ key }) => Number.isFinite(row[key])).length;
    return typed > 0 && typed < columns.length ? [i] : [];
  });
}

/** Pasted lines of numbers (tabs, semicolons or blanks between them) as rows; null when it is a single number for one cell. */
export function pastedRows(columns: readonly NumberColumn[], text: string): NumberRow[] | null {
  const lines = text
    .trim()
    .split(/\r?\n/)
    .map((line) => line.trim().split(/[\t; ]+/));
  if (lines.length === 1 && lines[0]!.length === 1) return null;
  return lines.map((cells) => Object.fromEntries(columns.map(({ key }, i) => [key, parseNumber(cells[i] ?? '')])));
}

export function emptyRow(columns: readonly NumberColumn[]): NumberRow {
  return Object.fromEntries(columns.map(({ key }) => [key, Number.NaN]));
}
