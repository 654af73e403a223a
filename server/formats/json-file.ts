import { unfitIn } from '@unto/contract';
import { fault } from '../errors/api-error.js';

/** What a JSON export is: its format and version, and the field that holds its entries. */
export interface JsonFormat {
  readonly format: string;
  readonly version: number;
  readonly entries: string;
  /** As it is called to a person, such as “a ledger”. */
  readonly what: string;
}

/** The entries of a JSON export, each a record of whatever fields, and the file they stand in. @throws invalid-input at `text` */
export function readJsonFile(
  text: string,
  { format, version, entries, what }: JsonFormat,
): { readonly found: Record<string, unknown>[]; readonly file: Readonly<Record<string, unknown>> } {
  let file: Record<string, unknown> | null;
  try {
    file = JSON.parse(text) as typeof file;
  } catch (error) {
    throw fault('text', `The file is not readable JSON: ${(error as Error).message.slice(0, 200)}`);
  }
  const unfit = unfitIn(file);
  if (unfit) throw fault('text', `The file cannot be read at ${unfit.path || 'its beginning'}: ${unfit.message}`);
  const found = file?.[entries];
  if (file?.['format'] !== format || !Array.isArray(found))
    throw fault('text', `This JSON file is not ${what} exported here.`);
  if (file['version'] !== version)
    throw fault('text', `The file is of version ${String(file['version'])}; this release reads version ${version}.`);
  const none = found.findIndex((entry) => typeof entry !== 'object' || entry === null || Array.isArray(entry));
  if (none >= 0) throw fault('text', `Entry ${none + 1} of the file is no record.`);
  return { found: found as Record<string, unknown>[], file };
}
