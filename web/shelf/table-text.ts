import type { ShelfField } from '@unto/contract';
import { parseNumber } from '../ui/format';

/** A table as text, one row a line, cells parted by semicolons. */
export function rowsToText(field: ShelfField, rows: readonly Record<string, unknown>[]): string {
  return rows.map((row) => field.columns.map(({ key }) => String(row[key] ?? '')).join('; ')).join('\n');
}

/** Text typed or pasted (semicolons or tabs between cells) back into rows; what is no number becomes NaN and is refused at the field. */
export function textToRows(field: ShelfField, text: string): Record<string, unknown>[] {
  return text
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '')
    .map((line) => {
      const cells = line.split(/[;\t]/).map((cell) => cell.trim());
      return Object.fromEntries(
        field.columns.map(({ key, number }, i) => [key, number ? parseNumber(cells[i] ?? '') : (cells[i] ?? '')]),
      );
    });
}
