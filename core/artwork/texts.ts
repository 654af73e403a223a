import { symbolModules } from '../lettering/data-matrix.js';
import { labelStrokes, textWidth } from '../lettering/label-strokes.js';
import { moduleRects, type SymbolKind } from '../lettering/symbols.js';
import type { ArtworkShape } from './shapes.js';
import { textOf, type TextField, type TextNumbers, type TextTable } from './text-of.js';

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
