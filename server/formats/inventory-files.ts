import {
  convertUnit,
  CoreError,
  decodeTable,
  quantityOfUnit,
  readCsv,
  usableUnits,
  writeCsv,
  type CsvRow,
  type UnitChoice,
} from '@unto/core';
import {
  INVENTORY_FILE,
  LATER_FIELDS,
  MAX_INVENTORY_BYTES,
  RENAMED_FIELDS,
  shelfFields,
  type ShelfField,
  type InventoryItem,
  type InventoryKind,
} from '@unto/contract';
import { fault } from '../errors/api-error.js';
import { readJsonFile } from './json-file.js';

const MOST_ITEMS = 5000;
const ROWS = ' | ';
const CELLS = '; ';

/** An item of a file with the line it stands on; a fault of its cells instead of a body when they cannot be read. */
export interface FileItem {
  readonly line: number;
  readonly id: string;
  readonly kind: InventoryKind;
  readonly retired: boolean;
  readonly body: Record<string, unknown>;
  /** Items that links name by name instead of id. */
  readonly linkNames: Readonly<Record<string, string>>;
  readonly problems: readonly string[];
}

export function inventoryJson(items: readonly InventoryItem[]) {
  return {
    ...INVENTORY_FILE,
    items: items.map(({ id, kind, retired, body }) => ({ id, kind, retired, body })),
  };
}

/** Reads a file of either format. @throws CoreError csv.*; invalid-input */
export function readInventoryFile(
  format: 'csv' | 'json',
  kind: InventoryKind | undefined,
  bytes: Uint8Array,
): FileItem[] {
  const text = decodeTable(bytes, MAX_INVENTORY_BYTES);
  if (format === 'json') return readInventoryJson(text);
  if (!kind) throw fault('kind', 'A CSV holds one kind: say which.');
  return readInventoryCsv(kind, text);
}

/** Reads a JSON export; `line` counts items from 1. @throws invalid-input */
export function readInventoryJson(text: string): FileItem[] {
  const { found: items } = readJsonFile(text, {
    ...INVENTORY_FILE,
    entries: 'items',
    what: 'a file of stores',
  });
  return atMost(items).map(({ id, kind, retired, body }, i) => ({
    line: i + 1,
    id: String(id),
    kind: String(kind) as InventoryKind,
    retired: retired === true,
    body: { ...LATER_FIELDS[kind as InventoryKind], ...asCalledNow(kind as InventoryKind, Object(body) as object) },
    linkNames: {},
    problems: [],
  }));
}

/** More items than any shop has are no stores. */
function atMost<T>(items: readonly T[]): readonly T[] {
  if (items.length > MOST_ITEMS)
    throw fault('text', `The file holds ${items.length} items; at most ${MOST_ITEMS} are taken at once.`);
  return items;
}

function asCalledNow(kind: InventoryKind, body: object): object {
  const renamed = RENAMED_FIELDS[kind] ?? {};
  return Object.fromEntries(Object.entries(body).map(([key, value]) => [renamed[key] ?? key, value]));
}

const headed = (label: string, unit: string) => (unit && !unit.startsWith('of ') ? `${label} [${unit}]` : label);
const heading = ({ label, unit }: ShelfField) => headed(label, unit);

/** The unit a field is written out in: the shop's where it has one for it. */
function unitIn(units: UnitChoice, { unit, kind }: ShelfField): string {
  const quantity = kind === 'number' ? quantityOfUnit(unit) : null;
  return quantity && usableUnits(quantity, {}).includes(units[quantity]) ? units[quantity] : unit;
}

/** Items of one kind as CSV: a column a field in the shop's unit, links by name and id, tables in one cell. */
export function inventoryCsv(
  kind: InventoryKind,
  items: readonly InventoryItem[],
  nameOf: (id: string) => string,
  units: UnitChoice,
): string {
  const fields = shelfFields(kind);
  const columnOf = (field: ShelfField) => headed(field.label, unitIn(units, field));
  const columns = [
    'id',
    'retired',
    ...fields.flatMap((field) => (field.kind === 'link' ? [columnOf(field), `${field.label} id`] : [columnOf(field)])),
  ];
  const rows = items.map((item) => {
    const body = item.body as unknown as Record<string, unknown>;
    const row: Record<string, string | number | null> = { id: item.id, retired: item.retired ? 'yes' : 'no' };
    for (const field of fields) {
      if (field.kind === 'link') {
        row[columnOf(field)] = body[field.key] ? nameOf(String(body[field.key])) : '';
        row[`${field.label} id`] = (body[field.key] as string | null) ?? '';
      } else row[columnOf(field)] = cellOf(field, body[field.key], unitIn(units, field));
    }
    return row;
  });
  return writeCsv(columns, rows);
}

function cellOf(field: ShelfField, value: unknown, unit: string): string | number | null {
  if (value === null || value === undefined) return null;
  switch (field.kind) {
    case 'yes':
      return value ? 'yes' : 'no';
    case 'many':
      return (value as string[]).join(ROWS);
    case 'rows':
      return (value as Record<string, unknown>[])
        .map((row) => field.columns.map(({ key }) => String(row[key])).join(CELLS))
        .join(ROWS);
    case 'file':
      return `${(value as { hash: string }).hash}${CELLS}${(value as { name: string }).name}`;
    case 'number':
      return unit === field.unit ? (value as number) : convertUnit(value as number, field.unit, unit, 17);
    default:
      return value as string;
  }
}

/**
 * Reads a CSV of one kind. Columns may stand in any order and carry another unit of the same dimension in their brackets; a field
 * whose column is missing, a unit that is not known and a number that is none are told apart.
 * @throws CoreError csv.*; invalid-input for a missing column
 */
export function readInventoryCsv(kind: InventoryKind, text: string): FileItem[] {
  const table = readCsv(text, ['id']);
  const fields = shelfFields(kind);
  const later = LATER_FIELDS[kind] ?? {};
  const found = fields.map((field) => ({ field, column: columnOf(field, table.columns) }));
  const missing = found.filter(({ field, column }) => !column && !(field.key in later) && !field.optional);
  if (missing.length)
    throw fault('text', `The file has no column ${missing.map(({ field }) => `“${heading(field)}”`).join(', ')}.`);
  return atMost(table.rows).map((row) => itemOf(kind, row, found, later));
}

interface FieldColumn {
  readonly field: ShelfField;
  readonly column: { readonly name: string; readonly unit: string } | undefined;
}

function columnOf(field: ShelfField, columns: readonly string[]): FieldColumn['column'] {
  for (const name of columns) {
    const [, label, unit] = /^(.*?)(?:\s*\[([^\]]*)\])?$/.exec(name)!;
    if (label!.trim() === field.label) return { name, unit: unit ?? field.unit };
  }
  return undefined;
}

function itemOf(
  kind: InventoryKind,
  row: CsvRow,
  found: readonly FieldColumn[],
  later: Record<string, unknown>,
): FileItem {
  const body: Record<string, unknown> = {};
  const linkNames: Record<string, string> = {};
  const problems: string[] = [];
  for (const { field, column } of found) {
    if (!column) {
      body[field.key] = later[field.key] ?? null;
      continue;
    }
    const text = row.cells[column.name] ?? '';
    if (field.kind === 'link') {
      body[field.key] = (row.cells[`${field.label} id`] ?? '') || null;
      if (!body[field.key] && text) linkNames[field.key] = text;
      continue;
    }
    try {
      body[field.key] = valueOf(field, text, column.unit);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      problems.push(`column “${column.name}”: ${error.message}`);
    }
  }
  return {
    line: row.line,
    id: row.cells['id'] ?? '',
    kind,
    retired: row.cells['retired'] === 'yes',
    body,
    linkNames,
    problems,
  };
}

function valueOf(field: ShelfField, text: string, unit: string): unknown {
  const empty = text.trim() === '';
  switch (field.kind) {
    case 'number':
      return empty && field.optional ? null : numberOf(text, unit, field.unit);
    case 'yes':
      return text === 'yes';
    case 'many':
      return empty ? [] : text.split(ROWS);
    case 'rows':
      return empty ? [] : text.split(ROWS).map((line) => tableRow(field, line));
    case 'file':
      return empty ? null : { hash: text.split(CELLS)[0], name: text.split(CELLS).slice(1).join(CELLS) };
    default:
      return empty && field.optional ? null : text;
  }
}

function tableRow(field: ShelfField, line: string): Record<string, unknown> {
  const cells = line.split(CELLS);
  return Object.fromEntries(
    field.columns.map(({ key, number }, i) => [key, number ? numberOf(cells[i] ?? '', '', '') : (cells[i] ?? '')]),
  );
}

function numberOf(text: string, from: string, to: string): number {
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value))
    throw new CoreError('value.not-finite', `“${text}” is not a number.`);
  return from && to && from !== to ? convertUnit(value, from, to) : value;
}
