import { readCsv, writeCsv, type CsvRow } from '@unto/core';
import type { LedgerRecord } from '@unto/contract';
import { fault } from '../http/refusal.js';

/** What a ledger file keeps of a record: everything stored, none of what is looked up. */
export type KeptRecord = Omit<
  LedgerRecord,
  'ticketNumber' | 'ticketTitle' | 'substrateName' | 'compoundName' | 'headName' | 'lensName' | 'correctedById'
>;

/** A record of a file with the line it stands on. */
export interface FileRecord {
  readonly line: number;
  readonly record: KeptRecord;
}

const FORMAT = 'unto-ledger';
const VERSION = 1;

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
  column('focus offset [mm]', (r) => r.focusOffsetMm),
  column('air', (r) => r.air),
  column('minutes', (r) => r.minutes),
  column('note', (r) => r.note),
  column('power [%]', (r) => r.powerPercent),
  column('power at the part [W]', (r) => r.powerW),
  column('speed [mm/s]', (r) => r.speedMmPerS),
  column('interval [mm]', (r) => r.intervalMm),
  column('dose [J/mm²]', (r) => r.dose?.value ?? null),
  column('grade', (r) => r.grade),
  column('dose figure', (r) => (r.dose ? JSON.stringify(r.dose) : null)),
  column('revision ids', (r) => JSON.stringify(r.pins)),
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

export function ledgerCsv(records: readonly LedgerRecord[]): string {
  const rows = records.map((record) => Object.fromEntries(COLUMNS.map(({ name, get }) => [name, get(record)])));
  return writeCsv(
    COLUMNS.map(({ name }) => name),
    rows,
  );
}

export function ledgerJson(records: readonly LedgerRecord[]) {
  return { format: FORMAT, version: VERSION, records };
}

/** Reads a CSV export. @throws CoreError csv.* with the line */
export function readLedgerCsv(text: string): FileRecord[] {
  return readCsv(
    text,
    COLUMNS.map(({ name }) => name),
  ).rows.map((row) => ({ line: row.line, record: recordOf(row) }));
}

/** Reads a JSON export; `line` counts records from 1. @throws invalid-input */
export function readLedgerJson(text: string): FileRecord[] {
  let file: { format?: string; version?: number; records?: LedgerRecord[] };
  try {
    file = JSON.parse(text) as typeof file;
  } catch (error) {
    throw fault('text', `The file is not readable JSON: ${(error as Error).message}`);
  }
  if (file?.format !== FORMAT || !Array.isArray(file.records))
    throw fault('text', 'This JSON file is not a ledger exported here.');
  if (file.version !== VERSION)
    throw fault('text', `The file is of version ${file.version}; this release reads version ${VERSION}.`);
  return file.records.map((record, i) => ({ line: i + 1, record: kept(record) }));
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
      return JSON.parse(word(name)) as never;
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
    passes: number('passes'),
    focusOffsetMm: number('focus offset [mm]'),
    air: word('air') as never,
    minutes: number('minutes'),
    note: word('note'),
    powerPercent: numberOrNull('power [%]'),
    powerW: numberOrNull('power at the part [W]'),
    speedMmPerS: numberOrNull('speed [mm/s]'),
    intervalMm: number('interval [mm]'),
    grade: word('grade') as never,
    dose: json('dose figure'),
    pins: json('revision ids') ?? ({} as never),
    cleaning: json('cleaning record'),
    judgement: json('judgement record'),
  };
}
