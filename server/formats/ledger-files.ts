import { decodeTable, PLAIN_SETTING, readCsv, writeCsv, writeCsvRows, type CsvRow, type SettingRest } from '@unto/core';
import { LEDGER_FILE, MAX_LEDGER_BYTES, unfitIn, type LedgerRecord } from '@unto/contract';
import { fault } from '../errors/api-error.js';
import { readJsonFile } from './json-file.js';
import { recordFaults } from './ledger-faults.js';

/** What a ledger file keeps of a record: everything stored, none of what is looked up. */
export type KeptRecord = Omit<
  LedgerRecord,
  'ticketNumber' | 'ticketTitle' | 'substrateName' | 'compoundName' | 'headName' | 'lensName' | 'correctedById'
>;

/** A record of a file with the line it stands on. */
export interface FileRecord {
  readonly line: number;
  readonly record: KeptRecord;
  /** Names that a table shows beside it; none in JSON. */
  readonly names: ShownCells['names'];
  /** What is wrong with it by itself. */
  readonly faults: readonly string[];
  /** Cells that say something else than what the row keeps. */
  readonly edited: readonly string[];
}

/** Cells of a table that are for reading only. */
interface ShownCells {
  readonly names: readonly { readonly column: string; readonly name: string; readonly id: string }[];
  readonly others: Readonly<Record<string, string>>;
}

type Cell = string | number | null;
interface Column {
  readonly name: string;
  readonly get: (record: LedgerRecord) => Cell;
}

const column = (name: string, get: (record: LedgerRecord) => Cell): Column => ({ name, get });

/** Columns of the CSV. Those with an id or “figure” are for bringing the file back, the others for reading. */
const COLUMNS: readonly Column[] = [
  column('id', (r) => r.id),
  column('at', (r) => r.at),
  column('operator id', (r) => r.by),
  column('ticket', (r) => r.ticketTitle),
  column('ticket id', (r) => r.ticketId),
  column('substrate', (r) => r.substrateName),
  column('substrate id', (r) => r.substrateId),
  column('compound', (r) => r.compoundName),
  column('compound id', (r) => r.compoundId),
  column('head', (r) => r.headName),
  column('head id', (r) => r.headId),
  column('lens', (r) => r.lensName),
  column('recipe id', (r) => r.recipeId),
  column('corrects id', (r) => r.correctsId),
  column('pieces', (r) => r.pieces),
  column('power', (r) => r.power.value),
  column('power unit', (r) => r.power.unit),
  column('speed', (r) => r.speed.value),
  column('speed unit', (r) => r.speed.unit),
  column('interval', (r) => r.interval.value),
  column('interval unit', (r) => r.interval.unit),
  column('passes', (r) => r.passes),
  column('crossing', (r) => r.hatches),
  column('hatch angle [°]', (r) => r.angleDeg),
  column('fill', (r) => r.fill),
  column('focus offset [mm]', (r) => r.focusOffsetMm),
  column('frequency [kHz]', (r) => r.frequencyKHz),
  column('pulse length [ns]', (r) => r.pulseNs),
  column('row directions', (r) => r.directions),
  column('power at turns', (r) => r.powerMode),
  column('air', (r) => r.air),
  column('extraction', (r) => r.extraction),
  column('minutes', (r) => r.minutes),
  column('minutes from', (r) => r.minutesFrom),
  column('note', (r) => r.note),
  column('why all the same', (r) => r.reason),
  column('power [%]', (r) => r.powerPercent),
  column('power at the part [W]', (r) => r.powerW),
  column('speed [mm/s]', (r) => r.speedMmPerS),
  column('interval [mm]', (r) => r.intervalMm),
  column('dose [J/mm²]', (r) => r.dose?.value ?? null),
  column('grade', (r) => r.grade),
  column('because', (r) => JSON.stringify(r.because)),
  column('dose figure', (r) => (r.dose ? JSON.stringify(r.dose) : null)),
  column('revision ids', (r) => JSON.stringify(r.revisions)),
  column('coat laid [g]', (r) => r.bench?.coat?.laidG ?? null),
  column('coat on pieces', (r) => r.bench?.coat?.pieces ?? null),
  column('dry film [µm]', (r) => r.bench?.coat?.film.value ?? null),
  column('film grade', (r) => r.bench?.coat?.film.grade ?? null),
  column('dried [s]', (r) => r.bench?.coat?.driedS ?? null),
  column('container', (r) => r.bench?.coat?.container ?? null),
  column('container lot', (r) => r.bench?.coat?.lot ?? null),
  column('focus found [mm]', (r) => r.bench?.focus.foundMm ?? null),
  column('focus set by', (r) => r.bench?.focus.setBy ?? null),
  column('blank', (r) => r.bench?.blank?.name ?? null),
  column('blank supplier', (r) => r.bench?.blank?.supplier ?? null),
  column('blank grade', (r) => r.bench?.blank?.grade ?? null),
  column('blank lot', (r) => r.bench?.blank?.lot ?? null),
  column('coupons', (r) => r.bench?.coupons.map(({ code }) => code).join('; ') ?? null),
  column('bench record', (r) => (r.bench ? JSON.stringify(r.bench) : null)),
  column('cleaning method', (r) => r.cleaning?.method ?? null),
  column('cleaning minutes', (r) => r.cleaning?.minutes ?? null),
  column('residue', (r) => r.cleaning?.residue ?? null),
  column('cleaning record', (r) => (r.cleaning ? JSON.stringify(r.cleaning) : null)),
  column('contrast step', (r) => r.judgement?.contrastStep ?? null),
  column('evenness', (r) => r.judgement?.evenness ?? null),
  column('good pieces', (r) => r.judgement?.piecesGood ?? null),
  column('faults', (r) => r.judgement?.faults?.join('; ') ?? null),
  column('durability', (r) => r.judgement?.tests?.map(({ test, result }) => `${test}: ${result}`).join('; ') ?? null),
  column('judgement record', (r) => (r.judgement ? JSON.stringify(r.judgement) : null)),
];

const NAMES = COLUMNS.map(({ name }) => name);
/** Columns that show the bench record. */
const BENCH_SHOWN = [
  'coat laid [g]',
  'coat on pieces',
  'dry film [µm]',
  'film grade',
  'dried [s]',
  'container',
  'container lot',
  'focus found [mm]',
  'focus set by',
  'blank',
  'blank supplier',
  'blank grade',
  'blank lot',
  'coupons',
] as const;
/** Columns that files of earlier releases do not have. */
const LATER: readonly string[] = [
  'crossing',
  'hatch angle [°]',
  'fill',
  'frequency [kHz]',
  'pulse length [ns]',
  'row directions',
  'power at turns',
  'extraction',
  'minutes from',
  'why all the same',
  'because',
  ...BENCH_SHOWN,
  'bench record',
];

const cellsOf = (record: LedgerRecord) => Object.fromEntries(COLUMNS.map(({ name, get }) => [name, get(record)]));

const read = (text: string) => JSON.parse(text) as LedgerRecord;

/** The record as CSV, row by row as it comes, each as its JSON. */
export async function* ledgerCsv(texts: AsyncIterable<string>): AsyncGenerator<string> {
  yield writeCsv(NAMES, []);
  let rows: ReturnType<typeof cellsOf>[] = [];
  for await (const text of texts) {
    rows.push(cellsOf(read(text)));
    if (rows.length < A_PART) continue;
    yield writeCsvRows(NAMES, rows);
    rows = [];
  }
  yield writeCsvRows(NAMES, rows);
}

/** What a ledger file holds. */
export interface LedgerFile {
  /** Records, some in each part: JSON of FileRecord[]. Text goes from thread to thread at once, records would hold both up. */
  readonly parts: readonly string[];
  /** What its runs refer to, as it stands in the file; undefined in a table and in files of earlier releases. */
  readonly around: unknown;
}

/** Letters of a piece that is sent at once. */
const PIECE = 128_000;

/** The record as JSON, entry by entry as it comes, and at its end what all of them refer to. */
export async function* ledgerJson(
  texts: AsyncIterable<string>,
  around: { note(record: LedgerRecord): void; whole(): Promise<object> },
): AsyncGenerator<string> {
  let some = `${JSON.stringify(LEDGER_FILE).slice(0, -1)},"records":[`;
  let separator = '\n';
  for await (const text of texts) {
    some += separator + text;
    separator = ',\n';
    around.note(read(text));
    // Sent some at a time: each piece costs the way to the network once.
    if (some.length < PIECE) continue;
    yield some;
    some = '';
  }
  yield `${some}\n],"around":${JSON.stringify(await around.whole())}}\n`;
}

/** Reads a file of either format. @throws CoreError csv.*; invalid-input */
export function readLedgerFile(format: 'csv' | 'json', bytes: Uint8Array): LedgerFile {
  const text = decodeTable(bytes, MAX_LEDGER_BYTES);
  const { entries, around } =
    format === 'csv' ? { entries: readLedgerCsv(text), around: undefined } : readLedgerJson(text);
  const parts: string[] = [];
  for (let from = 0; from < entries.length; from += A_PART)
    parts.push(JSON.stringify(entries.slice(from, from + A_PART).map(looked)));
  return { parts, around };
}

const A_PART = 100;

/** A record as it was read. */
interface ReadRecord {
  readonly line: number;
  readonly record: KeptRecord;
  readonly shown: ShownCells | null;
}

function looked(entry: ReadRecord): FileRecord {
  const { line, record, shown } = entry;
  return { line, record, names: shown?.names ?? [], faults: recordFaults(record), edited: editedCells(entry) };
}

/** Reads a CSV export. @throws CoreError csv.* with the line */
function readLedgerCsv(text: string): ReadRecord[] {
  return readCsv(
    text,
    NAMES.filter((name) => !LATER.includes(name)),
  ).rows.map((row) => ({ line: row.line, record: recordOf(row), shown: shownOf(row) }));
}

/** Columns that only show what another column keeps: whoever edits one of them edits nothing, and is told so. */
const SHOWN = [
  ...BENCH_SHOWN,
  'dose [J/mm²]',
  'cleaning method',
  'cleaning minutes',
  'residue',
  'contrast step',
  'evenness',
  'good pieces',
  'faults',
  'durability',
] as const;
/** Columns with a name that is looked up by the id beside it. */
const NAMED = { ticket: 'ticket id', substrate: 'substrate id', compound: 'compound id', head: 'head id' } as const;

function shownOf(row: CsvRow): ShownCells {
  const names = Object.entries(NAMED).map(([name, id]) => ({
    column: name,
    name: row.cells[name] ?? '',
    id: row.cells[id] ?? '',
  }));
  const others = SHOWN.flatMap((name) => (name in row.cells ? [[name, row.cells[name] ?? '']] : []));
  return { names, others: Object.fromEntries(others) as Record<string, string> };
}

/** Cells of a row that say something else than what the row keeps: nobody would see that the edit was lost. */
function editedCells({ line, record, shown }: ReadRecord): string[] {
  if (!shown) return [];
  const kept = cellsOf({ ...LOOKED_UP, ...record });
  return SHOWN.filter(
    (name) => shown.others[name] !== undefined && shown.others[name] !== String(kept[name] ?? ''),
  ).map(
    (name) =>
      `Line ${line}, column “${name}”: it says “${shown.others[name]}”, the record beside it “${kept[name] ?? ''}”. This column only shows it and is not taken; enter a correction instead.`,
  );
}

const LOOKED_UP = {
  ticketNumber: 0,
  ticketTitle: '',
  substrateName: '',
  compoundName: null,
  headName: '',
  lensName: '',
  correctedById: null,
};

/** Reads a JSON export; `line` counts records from 1. @throws invalid-input */
function readLedgerJson(text: string): { readonly entries: readonly ReadRecord[]; readonly around: unknown } {
  const { found: records, file } = readJsonFile(text, {
    ...LEDGER_FILE,
    entries: 'records',
    what: 'a ledger',
  });
  const entries = records.map((record, i) => ({
    line: i + 1,
    record: kept(renamed(record as unknown as LedgerRecord)),
    shown: null,
  }));
  return { entries, around: file['around'] };
}

/** Files of earlier releases called the revisions pins, and knew a part of the setting only. */
function renamed(record: LedgerRecord & { pins?: LedgerRecord['revisions'] }): LedgerRecord {
  const { pins, ...rest } = record;
  return Object.assign({ ...PLAIN_SETTING, reason: '', minutesFrom: 'typed', because: [], bench: null }, rest, {
    revisions: rest.revisions ?? pins,
  });
}

/** Leaves out what is looked up from other records. */
export function kept(record: LedgerRecord): KeptRecord {
  const {
    ticketNumber: _n,
    ticketTitle: _t,
    substrateName: _s,
    compoundName: _c,
    headName: _h,
    lensName: _l,
    correctedById: _x,
    ...rest
  } = record;
  return rest;
}

function recordOf(row: CsvRow): KeptRecord {
  const word = (name: string) => row.cells[name] ?? '';
  const orNull = (name: string) => word(name) || null;
  const number = (name: string) => {
    const value = Number(word(name));
    if (word(name).trim() === '' || !Number.isFinite(value))
      throw fault(name, `Line ${row.line}, column “${name}”: “${word(name)}” is not a number.`);
    return value;
  };
  const numberOrNull = (name: string) => (word(name) === '' ? null : number(name));
  const json = (name: string) => {
    if (word(name) === '') return null;
    try {
      const value = JSON.parse(word(name)) as never;
      if (unfitIn(value)) throw new SyntaxError();
      return value;
    } catch {
      throw fault(name, `Line ${row.line}, column “${name}” is damaged.`);
    }
  };
  return {
    id: word('id'),
    at: word('at'),
    by: word('operator id'),
    ticketId: word('ticket id'),
    substrateId: word('substrate id'),
    compoundId: orNull('compound id'),
    headId: word('head id'),
    recipeId: orNull('recipe id'),
    correctsId: orNull('corrects id'),
    pieces: number('pieces'),
    power: { value: number('power'), unit: word('power unit') as never },
    speed: { value: number('speed'), unit: word('speed unit') as never },
    interval: { value: number('interval'), unit: word('interval unit') as never },
    ...restOf(row, number),
    minutes: number('minutes'),
    minutesFrom: (word('minutes from') || 'typed') as never,
    note: word('note'),
    reason: word('why all the same'),
    powerPercent: numberOrNull('power [%]'),
    powerW: numberOrNull('power at the part [W]'),
    speedMmPerS: numberOrNull('speed [mm/s]'),
    intervalMm: number('interval [mm]'),
    bench: json('bench record'),
    grade: word('grade') as never,
    because: json('because') ?? [],
    dose: json('dose figure'),
    revisions: json('revision ids') ?? ({} as never),
    cleaning: json('cleaning record'),
    judgement: json('judgement record'),
  };
}

/** The setting besides power, speed and interval; a file of an earlier release lacks most of its columns. */
function restOf(row: CsvRow, number: (name: string) => number): SettingRest {
  const numberOr = <T extends number | null>(name: string, otherwise: T) =>
    row.cells[name] ? number(name) : otherwise;
  const wordOr = <T extends string | null>(name: string, otherwise: T) => (row.cells[name] || otherwise) as never;
  return {
    passes: number('passes'),
    hatches: numberOr('crossing', PLAIN_SETTING.hatches),
    angleDeg: numberOr('hatch angle [°]', PLAIN_SETTING.angleDeg),
    fill: wordOr('fill', PLAIN_SETTING.fill),
    focusOffsetMm: number('focus offset [mm]'),
    frequencyKHz: numberOr('frequency [kHz]', null),
    pulseNs: numberOr('pulse length [ns]', null),
    directions: wordOr('row directions', null),
    powerMode: wordOr('power at turns', null),
    air: wordOr('air', null),
    extraction: wordOr('extraction', null),
  };
}
