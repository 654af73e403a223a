import { CoreError } from '../support/core-error.js';

/** How a text is written: letters of one stroke, or a symbol. */
export const TEXT_KINDS = ['letters', 'QR', 'data matrix'] as const;
export type TextKind = (typeof TEXT_KINDS)[number];

/** Where letters stand in their width. */
export const TEXT_ALIGNS = ['left', 'middle', 'right'] as const;

/** A text on every piece that is another on each; its place is the lower left corner on the artwork, mm. */
export interface TextField {
  readonly kind: TextKind;
  /** With {column} for a column of the table, {n} for the number of the piece, {n:3} for it in three digits. */
  readonly says: string;
  readonly xMm: number;
  readonly yMm: number;
  /** Height of a capital, or side of a symbol. */
  readonly heightMm: number;
  /** Room for letters; null for any. A symbol is as wide as it is high. */
  readonly widthMm: number | null;
  readonly align: (typeof TEXT_ALIGNS)[number];
}

/** A table of what is on the pieces: names of columns, and a row a piece. */
export interface TextTable {
  readonly columns: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

export interface TextNumbers {
  /** Of the first piece. */
  readonly from: number;
  readonly step: number;
}

/**
 * What a field says on a piece, the first being 0.
 * @throws csv.missing-column for a name the table lacks
 */
export function textOf(field: TextField, piece: number, table: TextTable, numbers: TextNumbers): string {
  return field.says.replace(/\{([^{}]*)\}/g, (_, name: string) => {
    const digits = /^n(?::(\d{1,2}))?$/.exec(name.trim());
    if (digits) return String(numbers.from + piece * numbers.step).padStart(Number(digits[1] ?? 0), '0');
    const column = table.columns.findIndex((one) => one.trim().toLowerCase() === name.trim().toLowerCase());
    if (column < 0)
      throw new CoreError(
        'csv.missing-column',
        `“${name}” is no column of the table; it has ${words(table.columns)}.`,
        {
          path: 'says',
        },
      );
    return table.rows[piece]?.[column] ?? '';
  });
}

function words(columns: readonly string[]): string {
  return columns.length ? columns.map((column) => `“${column}”`).join(', ') : 'none';
}
