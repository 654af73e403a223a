import { parse } from 'csv-parse/browser/esm/sync';
import { CoreError } from '../support/core-error.js';
import { CSV_LIMIT_BYTES } from './csv.js';

/** A table from wherever: its heading where it has one, and its rows with the line each begins on. */
export interface LooseTable {
  readonly header: readonly string[] | null;
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[];
  readonly columns: number;
  readonly delimiter: string;
}

const DELIMITERS = ['\t', ';', ',', '|'] as const;
const MOST_COLUMNS = 60;

/**
 * Reads what a spreadsheet gives when cells are copied, or any comma-, semicolon-, tab- or bar-separated text: rows may be of unlike
 * length, blank lines count for nothing, the separator is the one that parts the lines most evenly. The first row is a heading where none
 * of its cells is a number.
 * @throws csv.too-large; csv.malformed where nothing is there, or more than 60 columns
 */
export function readLooseTable(text: string): LooseTable {
  if (text.length > CSV_LIMIT_BYTES)
    throw new CoreError('csv.too-large', `At most ${CSV_LIMIT_BYTES / 1e6} MB are read at once: bring it in parts.`);
  const delimiter = delimiterOf(text);
  const records = recordsOf(text, delimiter);
  const rows = records
    .map(({ record, info }) => ({ line: info.lines, cells: record }))
    .filter(({ cells }) => cells.some((cell) => cell !== ''));
  const columns = Math.max(0, ...rows.map(({ cells }) => cells.length));
  if (!rows.length) throw new CoreError('csv.malformed', 'There is no row to be read.', { line: 1 });
  if (columns > MOST_COLUMNS)
    throw new CoreError('csv.malformed', `${columns} columns; at most ${MOST_COLUMNS} are read.`, { line: 1 });
  const [first, ...rest] = rows;
  const isHeading = rest.length > 0 && !first!.cells.some((cell) => /^[<>~]?\s*[+-]?\d/.test(cell));
  return { header: isHeading ? first!.cells : null, rows: isHeading ? rest : rows, columns, delimiter };
}

function recordsOf(text: string, delimiter: string): { record: string[]; info: { lines: number } }[] {
  try {
    return parse(text, {
      delimiter,
      bom: true,
      info: true,
      relax_quotes: true,
      relax_column_count: true,
      skip_empty_lines: true,
      trim: true,
    }) as unknown as { record: string[]; info: { lines: number } }[];
  } catch (error) {
    throw new CoreError('csv.malformed', `It could not be read as a table: ${(error as Error).message}`);
  }
}

/** The separator that stands in most lines, and in those most alike; a comma where none does. */
function delimiterOf(text: string): string {
  const lines = text.split(/\r\n|\r|\n/, 40).filter((line) => line.trim() !== '');
  const scored = DELIMITERS.map((delimiter) => {
    const counts = lines.map((line) => line.split(delimiter).length - 1);
    const there = counts.filter((count) => count > 0);
    const usual = there.length ? mode(there) : 0;
    return { delimiter, score: there.filter((count) => count === usual).length };
  });
  const best = scored.reduce((most, one) => (one.score > most.score ? one : most));
  return best.score > 0 ? best.delimiter : ',';
}

function mode(counts: readonly number[]): number {
  const often = new Map<number, number>();
  for (const count of counts) often.set(count, (often.get(count) ?? 0) + 1);
  return [...often].sort((a, b) => b[1] - a[1])[0]![0];
}
