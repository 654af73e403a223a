import { array, number, string, type Schema } from 'yup';
import { byKind, flag, record, uuid } from '../fields/index.js';
import { INVENTORY_BODIES, INVENTORY_FILE, INVENTORY_KINDS } from '../inventory/index.js';
import { LEDGER_FILE, ledgerAround, ledgerRecord } from '../runs/index.js';
import { jsonSchemaOf } from './openapi.js';

/** Files that the shop's records go out as, by the name that their schema has. */
export const FILE_SCHEMAS = ['ledger', 'stores'] as const;
export type FileSchema = (typeof FILE_SCHEMAS)[number];

const kinds = Object.fromEntries(INVENTORY_KINDS.map((kind) => [kind, { body: INVENTORY_BODIES[kind] }]));

const FILES: Record<FileSchema, { readonly title: string; readonly shape: Schema }> = {
  ledger: {
    title: 'The ledger: every run with what followed it, and what the runs refer to',
    shape: record({ ...headOf(LEDGER_FILE), records: array().of(ledgerRecord).required(), around: ledgerAround }),
  },
  stores: {
    title: 'What a shop keeps: items with their newest revision',
    shape: record({
      ...headOf(INVENTORY_FILE),
      items: array()
        .of(byKind('kind', kinds, { id: uuid(), retired: flag() }))
        .required(),
    }),
  },
};

function headOf({ format, version }: { readonly format: string; readonly version: number }) {
  return { format: string().required().oneOf([format]), version: number().required().oneOf([version]) };
}

/** The JSON Schema (2020-12) of a file that goes out as JSON, so that whoever has the file can read it without this program. */
export function fileSchema(file: FileSchema): Record<string, unknown> {
  const { title, shape } = FILES[file];
  const { version } = file === 'ledger' ? LEDGER_FILE : INVENTORY_FILE;
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    $id: `urn:unto:${file}:${version}`,
    title,
    ...jsonSchemaOf(shape),
  };
}
