import { array, number, string, type ObjectShape } from 'yup';
import { byKind, flag, record, uuid } from '../fields/index.js';
import { INVENTORY_FILE, INVENTORY_SHAPES } from '../inventory/index.js';
import { LEDGER_FILE, ledgerAround, ledgerRecord } from '../runs/index.js';
import { jsonSchemaOf } from './openapi.js';

/** Files that the shop's records go out as, by the name that their schema has. */
export const FILE_SCHEMAS = ['ledger', 'stores'] as const;
export type FileSchema = (typeof FILE_SCHEMAS)[number];

interface FileKind {
  readonly title: string;
  /** What such a file says that it is. */
  readonly is: { readonly format: string; readonly version: number };
  readonly holds: ObjectShape;
}

const FILES: Record<FileSchema, FileKind> = {
  ledger: {
    title: 'The ledger: every run with what followed it, and what the runs refer to',
    is: LEDGER_FILE,
    holds: { records: array().of(ledgerRecord).required(), around: ledgerAround },
  },
  stores: {
    title: 'What a shop keeps: items with their newest revision',
    is: INVENTORY_FILE,
    holds: {
      items: array()
        .of(byKind('kind', INVENTORY_SHAPES, { id: uuid(), retired: flag() }))
        .required(),
    },
  },
};

/** The JSON Schema (2020-12) of a file that goes out as JSON, so that whoever has the file can read it without this program. */
export function fileSchema(file: FileSchema): Record<string, unknown> {
  const { title, is, holds } = FILES[file];
  const { format, version } = is;
  const head = { format: string().required().oneOf([format]), version: number().required().oneOf([version]) };
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    $id: `urn:unto:${file}:${version}`,
    title,
    ...jsonSchemaOf(record({ ...head, ...holds })),
  };
}
