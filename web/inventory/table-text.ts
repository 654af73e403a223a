import type { ShelfField } from '@unto/contract';
import { parseNumber } from '../ui/format';
import { isMoney } from './kinds';

/** A table as text, one row a line, cells parted by semicolons; money in major units. */
export function rowsToText(field: ShelfField, rows: readonly Record<string, unknown>[]): string {
  return rows.map((row) => field.columns.map(({ key }) => cellText(key, row[key])).join('; ')).join('\n');
}

function cellText(key: string, value: unknown): string {
  if (value === null || value === undefined) return '';
  return isMoney(key) && Number.isFinite(value) ? (Number(value) / 100).toFixed(2) : String(value);
}

/** Text typed or pasted (semicolons or tabs between cells) back into rows; what is no number becomes NaN and is refused at the field. */
export function textToRows(field: ShelfField, text: string): Record<string, unknown>[] {
  return text
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '')
    .map((line) => {
      const cells = line.split(/[;\t]/).map((cell) => cell.trim());
      return Object.fromEntries(
        field.columns.map(({ key, number }, i) => [key, number ? numberOf(key, cells[i] ?? '') : (cells[i] ?? '')]),
      );
    });
}

function numberOf(key: string, text: string): number {
  const value = parseNumber(text);
  return isMoney(key) ? Math.round(value * 100) : value;
}
