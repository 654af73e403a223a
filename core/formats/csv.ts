import { parse } from 'csv-parse/browser/esm/sync';
import { stringify } from 'csv-stringify/browser/esm/sync';
import { CoreError } from '../support/core-error.js';

/** Largest table read at once, bytes. */
export const CSV_LIMIT_BYTES = 5_000_000;

const MOST_COLUMNS = 500;
const LONGEST_HEADING = 200;

/** One record of a table: its cells by column and the physical line it starts on. */
export interface CsvRow {
  readonly line: number;
  readonly cells: Readonly<Record<string, string>>;
}

/** A table as read. */
export interface CsvTable {
  readonly columns: readonly string[];
  readonly rows: readonly CsvRow[];
}

type CsvValue = string | number | boolean | null | undefined;

/**
 * Writes RFC 4180 text: CRLF, quotes only where needed. Text that a spreadsheet would take for a formula (first character
 * = + - @ tab or return) gets a leading apostrophe; so does text that itself begins with an apostrophe, so that reading back is exact.
 * @example writeCsv(['a'], [{ a: 1 }]) // 'a\r\n1\r\n'
 */
export function writeCsv(columns: readonly string[], rows: readonly Readonly<Record<string, CsvValue>>[]): string {
  return written([columns]) + writeCsvRows(columns, rows);
}

/** Rows of a table without its heading, for one that is written in pieces. */
export function writeCsvRows(columns: readonly string[], rows: readonly Readonly<Record<string, CsvValue>>[]): string {
  return written(rows.map((row) => columns.map((column) => plainText(row[column]))));
}

function written(records: readonly (readonly CsvValue[])[]): string {
  return records.length
    ? stringify(records as CsvValue[][], { record_delimiter: 'windows', quoted_match: NEEDS_QUOTES })
    : '';
}

/** What a reader might trim or take for the end of a line. */
const NEEDS_QUOTES = /^\s|\s$|[\r\n]/;

function plainText(value: CsvValue): CsvValue {
  if (typeof value === 'boolean') return String(value);
  return typeof value === 'string' && /^['=+\-@\t\r]/.test(value) ? `'${value}` : value;
}

declare const TextDecoder: new (label: 'utf-8', options: { fatal: boolean }) => { decode(bytes: Uint8Array): string };

/**
 * Decodes bytes as UTF-8 (RFC 3629), with or without a byte order mark.
 * @param mostBytes what is read at once
 * @throws csv.too-large above that; csv.encoding naming the line of the first byte that is not UTF-8
 */
export function decodeTable(bytes: Uint8Array, mostBytes = CSV_LIMIT_BYTES): string {
  if (bytes.byteLength > mostBytes) {
    throw new CoreError(
      'csv.too-large',
      `The file holds ${(bytes.byteLength / 1e6).toFixed(1)} MB; at most ${mostBytes / 1e6} MB are read at once. Nothing was imported: cut it into parts.`,
    );
  }
  try {
    return decoded(bytes);
  } catch {
    const line = firstBadLine(bytes);
    throw new CoreError(
      'csv.encoding',
      `Line ${line} holds a character that is not UTF-8 (an old Latin-1 file?). Save the table as “CSV UTF-8” and bring it again; nothing was imported.`,
      { line },
    );
  }
}

function decoded(bytes: Uint8Array): string {
  return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
}

/** A line feed never stands inside a character, so that each line is whole by itself. */
function firstBadLine(bytes: Uint8Array): number {
  let line = 1;
  for (let from = 0; from < bytes.length; line += 1) {
    const feed = bytes.indexOf(10, from);
    const to = feed < 0 ? bytes.length : feed + 1;
    try {
      decoded(bytes.subarray(from, to));
    } catch {
      return line;
    }
    from = to;
  }
  return line;
}

/**
 * Reads RFC 4180 text with quoted line breaks; cells written by writeCsv come back as they were.
 * @param required columns that must be there
 * @throws csv.malformed with the line, also for more than 500 columns and names of more than 200 characters; csv.missing-column; csv.doubled-column; csv.formula for a cell that begins with =, + or @
 */
export function readCsv(text: string, required: readonly string[] = []): CsvTable {
  const records = parsed(text);
  const columns = (records[0]?.record ?? []).map((name) => name.trim());
  if (columns.length > MOST_COLUMNS || columns.some((name) => name.length > LONGEST_HEADING)) {
    throw new CoreError(
      'csv.malformed',
      `The heading is none of a table: at most ${MOST_COLUMNS} columns are read, each named by at most ${LONGEST_HEADING} characters.`,
      { line: 1 },
    );
  }
  const missing = required.filter((name) => !columns.includes(name));
  if (missing.length > 0) {
    throw new CoreError(
      'csv.missing-column',
      `The table lacks the column${missing.length > 1 ? 's' : ''} ${missing.map((name) => `“${name}”`).join(', ')}. Found: ${columns.join(', ') || 'nothing'}.`,
      { line: 1 },
    );
  }
  const doubled = columns.find((name, i) => columns.indexOf(name) !== i);
  if (doubled !== undefined) {
    throw new CoreError(
      'csv.doubled-column',
      `The heading names the column “${doubled}” twice: which of the two counts? Nothing was read.`,
      { line: 1, path: doubled },
    );
  }
  // A blank line is an empty cell where a table has one column, and nothing where it has several.
  const filled = records.slice(1).filter(({ record }) => columns.length === 1 || record.length > 1 || record[0] !== '');
  const rows = filled.map(({ record, line }) => {
    if (record.length !== columns.length) {
      throw new CoreError(
        'csv.malformed',
        `Line ${line} has ${record.length} cells; the heading has ${columns.length}.`,
        { line },
      );
    }
    return { line, cells: Object.fromEntries(columns.map((name, i) => [name, plainCell(record[i]!, name, line)])) };
  });
  return { columns, rows };
}

function plainCell(text: string, column: string, line: number): string {
  if (/^[=@]|^[+-](?![\d.])/.test(text)) {
    throw new CoreError(
      'csv.formula',
      `Line ${line}, column “${column}” holds a formula (${text.slice(0, 20)}); only plain values are read.`,
      {
        line,
        path: column,
      },
    );
  }
  return /^'['=+\-@\t\r]/.test(text) ? text.slice(1) : text;
}

interface ParsedRecord {
  readonly record: string[];
  readonly line: number;
}

function parsed(text: string): ParsedRecord[] {
  try {
    const raw = parse(text, {
      bom: true,
      relax_column_count: true,
      info: true,
      record_delimiter: ['\r\n', '\n', '\r'],
    }) as unknown as {
      record: string[];
      info: { lines: number };
    }[];
    // csv-parse reports the last physical line of a record; the first is what a person looks for.
    return raw.map(({ record, info }) => ({
      record,
      line: info.lines - record.reduce((sum, value) => sum + (value.match(/\r\n|\n|\r/g)?.length ?? 0), 0),
    }));
  } catch (error) {
    const { lines, message } = error as { lines?: number; message: string };
    throw new CoreError('csv.malformed', `The table cannot be read${lines ? ` at line ${lines}` : ''}: ${message}`, {
      line: lines,
    });
  }
}
