import { CoreError } from '../support/core-error.js';
import { symbolModules } from '../lettering/data-matrix.js';
import { labelStrokes, textWidth } from '../lettering/label-strokes.js';
import { moduleRects, type SymbolKind } from '../lettering/symbols.js';
import type { ArtworkShape } from './shapes.js';

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

/** Shapes of a field's text: strokes to follow, or the boxes of a symbol to fill. @throws artwork.text-too-long for a symbol */
export function textShapes(field: TextField, text: string): ArtworkShape[] {
  if (text === '') return [];
  if (field.kind !== 'letters') return symbolShapes(field, field.kind, text);
  const free = (field.widthMm ?? textWidth(text, field.heightMm)) - textWidth(text, field.heightMm);
  const xMm = field.xMm + { left: 0, middle: free / 2, right: free }[field.align];
  const rings = labelStrokes({ text, xMm, yMm: field.yMm, heightMm: field.heightMm }).map((stroke) =>
    Float64Array.from(stroke.flat()),
  );
  return [{ as: 'line', rule: 'nonzero', rings, drawnMm: null }];
}

function symbolShapes(field: TextField, kind: SymbolKind, text: string): ArtworkShape[] {
  const dark = symbolModules(kind, text);
  const moduleMm = field.heightMm / dark.length;
  const rings = moduleRects({ dark, moduleMm, xMm: field.xMm, yMm: field.yMm }).map(
    ({ xMm: x, yMm: y, widthMm: w, heightMm: h }) => Float64Array.of(x, y, x + w, y, x + w, y + h, x, y + h, x, y),
  );
  return [{ as: 'marked', rule: 'nonzero', rings, drawnMm: null }];
}

/** Something wrong with the texts of some pieces (numbered from 1), told before anything burns. */
export interface TextFault {
  readonly kind: 'missing' | 'twice' | 'too long' | 'letters' | 'too small' | 'unreadable' | 'left over';
  readonly words: string;
  readonly pieces: readonly number[];
  /** Whether it may be burnt all the same. */
  readonly stops: boolean;
}

export interface TextJob {
  readonly fields: readonly TextField[];
  readonly table: TextTable;
  readonly numbers: TextNumbers;
  readonly pieces: number;
  readonly spotMm: number;
  /** Smallest height of a letter that reads, mm. */
  readonly legibleMm: number;
}

/** Least modules of a symbol are so many spots wide: fewer and a camera does not tell them apart. Common practice, no source. */
const SPOTS_A_MODULE = 2;

/**
 * What would go wrong: pieces without a text, the same text twice, letters wider than their room or that the font lacks, too small to read,
 * symbols that do not hold their text or whose modules are too fine, rows of the table that no piece takes.
 * @throws csv.missing-column
 */
export function textFaults(job: TextJob): TextFault[] {
  const { fields, table, numbers, pieces } = job;
  const faults: TextFault[] = [];
  for (const field of fields) {
    const texts = Array.from({ length: pieces }, (_, piece) => textOf(field, piece, table, numbers));
    faults.push(...fieldFaults(field, texts, job));
  }
  if (fields.length && table.rows.length > pieces)
    faults.push({
      kind: 'left over',
      words: `The table has ${table.rows.length} rows for ${pieces} pieces: the last ${table.rows.length - pieces} are left.`,
      pieces: [],
      stops: false,
    });
  return faults;
}

function fieldFaults(field: TextField, texts: readonly string[], job: TextJob): TextFault[] {
  const faults: TextFault[] = [];
  const name = `“${field.says}”`;
  const say = (kind: TextFault['kind'], stops: boolean, is: (text: string, piece: number) => boolean, why: string) => {
    const pieces = texts.flatMap((text, piece) => (is(text, piece) ? [piece + 1] : []));
    if (pieces.length) faults.push({ kind, words: `${name}: ${why}`, pieces, stops });
  };
  const changes = /\{[^{}]*\}/.test(field.says);
  say('missing', true, (text) => text.trim() === '', 'nothing to write.');
  if (changes) {
    const first = new Map<string, number>();
    texts.forEach((text, piece) => first.has(text) || first.set(text, piece));
    say(
      'twice',
      false,
      (text, piece) => text.trim() !== '' && first.get(text) !== piece,
      'the same as on an earlier piece.',
    );
  }
  if (field.kind === 'letters') {
    const room = field.widthMm;
    if (room !== null) say('too long', true, (text) => textWidth(text, field.heightMm) > room, 'wider than its room.');
    say('letters', true, (text) => /[^\x20-\x7e]/.test(text), 'a letter that the one-stroke font lacks.');
    if (field.heightMm < job.legibleMm)
      say(
        'too small',
        false,
        (text) => text !== '',
        `letters below ${job.legibleMm.toFixed(1)} mm do not read with this spot.`,
      );
  } else {
    const { kind } = field;
    say('unreadable', true, (text) => text !== '' && modulesAcross(kind, text) === null, `no ${kind} holds it.`);
    const fine = (text: string) => field.heightMm / (modulesAcross(kind, text) ?? 1) < SPOTS_A_MODULE * job.spotMm;
    say(
      'too small',
      false,
      (text) => text !== '' && fine(text),
      'its modules are finer than two spots: make it larger.',
    );
  }
  return faults;
}

function modulesAcross(kind: SymbolKind, text: string): number | null {
  try {
    return symbolModules(kind, text).length;
  } catch {
    return null;
  }
}
