import { parse } from 'csv-parse/browser/esm/sync';
import { CoreError } from '../support/core-error.js';

/** Largest table read at once, bytes. */
export const CSV_LIMIT_BYTES = 5_000_000;

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
 */
export function writeCsv(columns: readonly string[], rows: readonly Readonly<Record<string, CsvValue>>[]): string {
  const lines = [columns.map((column) => quoted(column)).join(',')];
  for (const row of rows) lines.push(columns.map((column) => cell(row[column])).join(','));
  return lines.join('\r\n') + '\r\n';
}

function cell(value: CsvValue): string {
  if (value === null || value === undefined) return '';
  if (typeof value !== 'string') return String(value);
  return quoted(/^['=+\-@\t\r]/.test(value) ? `'${value}` : value);
}

function quoted(text: string): string {
  return /[",\r\n]|^\s|\s$/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

/**
 * Decodes bytes as UTF-8, with or without a byte order mark.
 * @throws csv.too-large above CSV_LIMIT_BYTES; csv.encoding naming the line of the first byte that is not UTF-8
 */
export function decodeTable(bytes: Uint8Array): string {
  if (bytes.byteLength > CSV_LIMIT_BYTES) {
    throw new CoreError(
      'csv.too-large',
      `The file holds ${(bytes.byteLength / 1e6).toFixed(1)} MB; at most ${CSV_LIMIT_BYTES / 1e6} MB are read at once. Nothing was imported: cut it into parts.`,
    );
  }
  const bad = firstInvalidUtf8(bytes);
  if (bad >= 0) {
    let line = 1;
    for (let i = 0; i < bad; i += 1) if (bytes[i] === 10) line += 1;
    throw new CoreError(
      'csv.encoding',
      `Line ${line} holds a character that is not UTF-8 (an old Latin-1 file?). Save the table as “CSV UTF-8” and bring it again; nothing was imported.`,
      { line },
    );
  }
  return decodeUtf8(bytes);
}

/**
 * Reads RFC 4180 text with quoted line breaks; cells written by writeCsv come back as they were.
 * @param required columns that must be there
 * @throws csv.malformed with the line; csv.missing-column; csv.formula for a cell that begins with =, + or @
 */
export function readCsv(text: string, required: readonly string[] = []): CsvTable {
  const records = parsed(text);
  const columns = (records[0]?.record ?? []).map((name) => name.trim());
  const missing = required.filter((name) => !columns.includes(name));
  if (missing.length > 0) {
    throw new CoreError(
      'csv.missing-column',
      `The table lacks the column${missing.length > 1 ? 's' : ''} ${missing.map((name) => `“${name}”`).join(', ')}. Found: ${columns.join(', ') || 'nothing'}.`,
      { line: 1 },
    );
  }
  const rows = records.slice(1).map(({ record, line }) => {
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
    const raw = parse(text, { bom: true, relax_column_count: true, skip_empty_lines: true, info: true }) as unknown as {
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

/** Index of the first byte that breaks UTF-8 (RFC 3629), or −1. */
function firstInvalidUtf8(bytes: Uint8Array): number {
  let i = 0;
  while (i < bytes.length) {
    const lead = bytes[i]!;
    const length =
      lead < 0x80
        ? 1
        : lead >= 0xc2 && lead < 0xe0
          ? 2
          : lead >= 0xe0 && lead < 0xf0
            ? 3
            : lead >= 0xf0 && lead < 0xf5
              ? 4
              : 0;
    if (length === 0) return i;
    for (let k = 1; k < length; k += 1) {
      const next = bytes[i + k];
      if (next === undefined || (next & 0xc0) !== 0x80) return i;
    }
    i += length;
  }
  return -1;
}

function decodeUtf8(bytes: Uint8Array): string {
  const chunks: string[] = [];
  let points: number[] = [];
  let i = 0;
  while (i < bytes.length) {
    const lead = bytes[i]!;
    const length = lead < 0x80 ? 1 : lead < 0xe0 ? 2 : lead < 0xf0 ? 3 : 4;
    let point = length === 1 ? lead : lead & (0xff >> (length + 1));
    for (let k = 1; k < length; k += 1) point = (point << 6) | (bytes[i + k]! & 0x3f);
    points.push(point);
    i += length;
    if (points.length === 8192) {
      chunks.push(String.fromCodePoint(...points));
      points = [];
    }
  }
  chunks.push(String.fromCodePoint(...points));
  return chunks.join('');
}
