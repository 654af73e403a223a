import type { ImportReport } from '@unto/contract';
import { alone, insertMany, isId, rowsOf, stableJson, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError } from '../errors/api-error.js';
import { bringAround } from './around.js';
import { checkedWhole, type Imported } from './imported.js';
import { gently, inParts } from '../db/in-parts.js';
import { ledgerRecords } from './ledger-record.js';
import { kept, type FileRecord, type KeptRecord } from '../formats/ledger-files.js';

type FileProblem = ImportReport['problems'][number];
type Unknown = FileProblem & { readonly what: string; readonly id: string };

/**
 * Brings an exported ledger back. A record that is here already, unchanged, is counted and left; a changed one, or one that refers
 * to something this shop does not have, is a problem of its line. With any problem nothing at all is written.
 */
export async function importLedger(context: Context, format: 'csv' | 'json', bytes: Uint8Array): Promise<ImportReport> {
  const { parts, around } = await context.pool.run('readLedger', { format, bytes });
  const entries = (await gently(parts, (part) => JSON.parse(part) as FileRecord[], 1)).flat();
  await alone(context, 'import');
  if (around !== undefined) await bringAround(context, around);
  const { fresh, unchanged, problems } = await compare(context, entries);
  const unknown = await unknownReferences(context, fresh);
  if (fresh.length > 0 && unknown.length >= fresh.length) refuseStrange(unknown, fresh.length);
  problems.push(...unknown);
  problems.push(...entries.flatMap(({ line, edited }) => edited.map((message) => ({ line, message }))));
  problems.push(...(await otherNames(context, entries)));
  const whole = await checkedWhole(context, fresh);
  problems.push(...whole.problems);
  if (problems.length > 0) {
    throw new ApiError(
      'invalid-input',
      `${problems.length} of ${entries.length} records cannot be taken; nothing was imported.`,
      { faults: problems },
    );
  }
  await write(
    context,
    inOrder(whole.records).map(({ record }) => record),
  );
  return { created: fresh.length, unchanged, problems };
}

/** A ledger of another shop: what it lacks is said once, and what brings it along. */
function refuseStrange(unknown: readonly Unknown[], records: number): never {
  const whats = [...new Set(unknown.map(({ what }) => what))];
  const faults = whats.map((what) => {
    const ids = new Set(unknown.filter((one) => one.what === what).map(({ id }) => id));
    return { path: what, message: `${ids.size} × ${what} that ${ids.size === 1 ? 'is' : 'are'} not kept here.` };
  });
  throw new ApiError(
    'invalid-input',
    `These ${records} runs belong to another shop: what they refer to (${whats.join(', ')}) is not kept here. A table does not hold it: bring the ledger as JSON, which does, or the whole shop from its backup. Nothing was imported.`,
    { faults },
  );
}

async function compare(context: Context, entries: readonly FileRecord[]) {
  const ids = entries.map(({ record }) => record.id).filter((id) => isId(id ?? ''));
  const here = await ledgerRecords(context, ids);
  const byId = new Map(await gently(here, (record): [string, string] => [record.id, stableJson(kept(record))]));
  const seen = new Set<string>();
  const problems: FileProblem[] = [];
  const fresh: FileRecord[] = [];
  const differing: FileRecord[] = [];
  await gently(entries, (entry) => {
    const { line, record } = entry;
    const known = byId.get(record.id);
    if (seen.has(record.id))
      problems.push({ line, message: `Line ${line}: the record ${record.id} stands in the file twice.` });
    else if (known === undefined) fresh.push(entry);
    else if (known !== stableJson(record)) differing.push(entry);
    seen.add(record.id);
  });
  problems.push(...(await otherEntries(context, differing, byId)));
  return { fresh, problems, unchanged: entries.length - fresh.length };
}

/** Records that are here with other entries, also when what follows from them is worked out anew as it was when they were brought. */
async function otherEntries(
  context: Context,
  differing: readonly FileRecord[],
  here: ReadonlyMap<string, string>,
): Promise<FileProblem[]> {
  const { records } = await checkedWhole(context, differing);
  const same = new Set(
    records.filter(({ record }) => here.get(record.id) === stableJson(record)).map(({ line }) => line),
  );
  return differing.flatMap(({ line }) =>
    same.has(line)
      ? []
      : [
          {
            line,
            message: `Line ${line}: this run is here already with other entries. Runs are never changed; enter a correction.`,
          },
        ],
  );
}

/** What some records refer to and this shop does not have. */
async function unknownReferences(context: Context, entries: readonly FileRecord[]): Promise<Unknown[]> {
  const problems: Unknown[] = [];
  for (const { table, what, of } of REFERENCES) {
    const wanted = entries.flatMap(({ line, record }) => (of(record) ? [{ line, id: of(record)! }] : []));
    const here = await idsHere(context, table, [...new Set(wanted.map(({ id }) => id))]);
    for (const { line, id } of wanted)
      if (!here.has(id))
        problems.push({ what, id, line, message: `Line ${line}: its ${what} ${id} is not kept here.` });
  }
  return problems;
}

const REFERENCES: readonly { table: keyof Rows; what: string; of: (record: KeptRecord) => string | null }[] = [
  { table: 'tickets', what: 'ticket', of: ({ ticketId }) => ticketId },
  { table: 'inventoryItems', what: 'substrate', of: ({ substrateId }) => substrateId },
  { table: 'inventoryItems', what: 'compound', of: ({ compoundId }) => compoundId },
  { table: 'inventoryItems', what: 'head', of: ({ headId }) => headId },
  { table: 'operators', what: 'operator', of: ({ by }) => by },
];

async function idsHere(context: Context, table: keyof Rows, ids: readonly string[]): Promise<ReadonlySet<string>> {
  const rows = await rowsOf(context, table, ids.filter(isId), { attributes: ['id'] });
  return new Set((rows as { id: string }[]).map(({ id }) => id));
}

/** Names in a table that the thing of that id never had: edited there, they would be lost without a word. */
async function otherNames(context: Context, entries: readonly FileRecord[]): Promise<FileProblem[]> {
  const cells = entries.flatMap(({ line, names }) => names.map((cell) => ({ line, ...cell })));
  const ids = [...new Set(cells.map(({ id }) => id))].filter(isId);
  const known = new Map<string, string[]>();
  const add = (id: string, name: string) => known.set(id, [...(known.get(id) ?? []), name]);
  const revisions = await rowsOf(context, 'inventoryRevisions', ids, { key: 'itemId' });
  revisions.forEach(({ itemId, body }) => add(itemId, body.name));
  const tickets = await rowsOf(context, 'tickets', ids, { attributes: ['id', 'title'] });
  tickets.forEach(({ id, title }) => add(id, title));
  return cells.flatMap(({ line, column, name, id }) => {
    const names = known.get(id);
    return names && name !== '' && !names.includes(name)
      ? [
          {
            line,
            message: `Line ${line}, column “${column}”: “${name}” is not what stands behind its id (${names.at(-1)}). The name only shows it and is not taken.`,
          },
        ]
      : [];
  });
}

/** A correction after what it corrects. */
function inOrder(entries: readonly Imported[]): Imported[] {
  return [...entries].sort(
    (a, b) =>
      Number(a.record.correctsId !== null) - Number(b.record.correctsId !== null) ||
      a.record.at.localeCompare(b.record.at),
  );
}

/** Writes records with what followed each; the ledger is told of them once, at the end. */
async function write(context: Context, records: readonly KeptRecord[]): Promise<void> {
  const transaction = context.transaction ?? null;
  await context.sequelize.query(`SELECT set_config('unto.ledger', 'later', true)`, { transaction });
  await writeRows(context, records);
  for (const ids of inParts(records.map(({ id }) => id)))
    await context.sequelize.query('SELECT note_runs_in_ledger(ARRAY[:ids]::uuid[])', {
      replacements: { ids },
      transaction,
    });
  await context.sequelize.query(`SELECT set_config('unto.ledger', '', true)`, { transaction });
}

async function writeRows(context: Context, records: readonly KeptRecord[]): Promise<void> {
  const runs = records.map(({ power, speed, interval, by, at, cleaning: _c, judgement: _j, ...rest }) => ({
    ...rest,
    entered: { power, speed, interval },
    at: new Date(at),
    byId: by,
  }));
  await insertMany(context, 'runs', runs as Partial<Rows['runs']>[]);
  for (const [table, part] of [
    ['cleanings', 'cleaning'],
    ['judgements', 'judgement'],
  ] as const) {
    const rows = records.flatMap((record) => {
      if (!record[part]) return [];
      const { by, at, ...fields } = record[part];
      return [{ ...fields, runId: record.id, at: new Date(at), byId: by }];
    });
    await insertMany(context, table, rows as never);
  }
}
