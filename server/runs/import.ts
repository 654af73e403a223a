import { Op } from 'sequelize';
import { ValidationError } from 'yup';
import { createCleaning, createJudgement, createRun, type ImportReport } from '@unto/contract';
import { insert, list, stableJson, type Context } from '../db/context.js';
import type { Rows } from '../db/models.js';
import { Refusal } from '../http/refusal.js';
import { ledgerRecords } from './ledger.js';
import { kept, readLedgerCsv, readLedgerJson, type FileRecord, type KeptRecord } from './ledger-files.js';

type FileProblem = ImportReport['problems'][number];

/**
 * Brings an exported ledger back. A record that is here already, unchanged, is counted and left; a changed one, or one that refers
 * to something this shop does not have, is a problem of its line. With any problem nothing at all is written.
 */
export async function importLedger(
  context: Context,
  request: { format: 'csv' | 'json'; text: string },
): Promise<ImportReport> {
  const entries = request.format === 'csv' ? readLedgerCsv(request.text) : readLedgerJson(request.text);
  const { fresh, unchanged, problems } = await compare(context, entries);
  for (const { line, record } of fresh) problems.push(...(await unknownReferences(context, line, record)));
  if (problems.length > 0) {
    throw new Refusal(
      'invalid-input',
      `${problems.length} of ${entries.length} records cannot be taken; nothing was imported.`,
      { faults: problems },
    );
  }
  for (const { record } of inOrder(fresh)) await write(context, record);
  return { created: fresh.length, unchanged, problems };
}

async function compare(context: Context, entries: readonly FileRecord[]) {
  const ids = entries.map(({ record }) => record.id).filter((id) => /^[0-9a-f-]{36}$/.test(id ?? ''));
  const here = await ledgerRecords(context, await list(context, 'runs', { where: { id: { [Op.in]: ids } } }));
  const byId = new Map(here.map((record) => [record.id, stableJson(kept(record))]));
  const seen = new Set<string>();
  const problems: FileProblem[] = [];
  const fresh: FileRecord[] = [];
  for (const { line, record } of entries) {
    const known = byId.get(record.id);
    if (seen.has(record.id))
      problems.push({ line, message: `Line ${line}: the record ${record.id} stands in the file twice.` });
    else if (known === undefined) {
      problems.push(...(await faultsOf(line, record)));
      fresh.push({ line, record });
    } else if (known !== stableJson(record)) {
      problems.push({
        line,
        message: `Line ${line}: this run is here already with other entries. Runs are never changed; enter a correction.`,
      });
    }
    seen.add(record.id);
  }
  return { fresh, problems, unchanged: entries.length - fresh.length };
}

async function faultsOf(line: number, record: KeptRecord): Promise<FileProblem[]> {
  try {
    await createRun.validate(pick(record, Object.keys(createRun.fields)), { strict: true, abortEarly: false });
    for (const [schema, part] of [
      [createCleaning, record.cleaning],
      [createJudgement, record.judgement],
    ] as const) {
      if (part) await schema.validate(pick(part, Object.keys(schema.fields)), { strict: true, abortEarly: false });
    }
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return error.errors.map((message) => ({ line, message: `Line ${line}: ${message}` }));
  }
}

function pick(record: object, keys: readonly string[]): object {
  return Object.fromEntries(Object.entries(record).filter(([key]) => keys.includes(key)));
}

async function unknownReferences(context: Context, line: number, record: KeptRecord): Promise<FileProblem[]> {
  const references: [keyof Rows, string, string | null][] = [
    ['tickets', 'ticket', record.ticketId],
    ['storeItems', 'substrate', record.substrateId],
    ['storeItems', 'compound', record.compoundId],
    ['storeItems', 'head', record.headId],
    ['recipes', 'recipe', record.recipeId],
    ['operators', 'operator', record.by],
  ];
  const problems: FileProblem[] = [];
  for (const [table, what, id] of references) {
    if (id && (await list(context, table, { where: { id }, attributes: ['id'] })).length === 0) {
      problems.push({ line, message: `Line ${line}: its ${what} ${id} is not kept here.` });
    }
  }
  return problems;
}

/** A correction after what it corrects. */
function inOrder(entries: readonly FileRecord[]): FileRecord[] {
  return [...entries].sort(
    (a, b) =>
      Number(a.record.correctsId !== null) - Number(b.record.correctsId !== null) ||
      a.record.at.localeCompare(b.record.at),
  );
}

async function write(context: Context, record: KeptRecord): Promise<void> {
  const { power, speed, interval, by, at, cleaning, judgement, ...rest } = record;
  await insert(context, 'runs', { ...rest, entered: { power, speed, interval }, at: new Date(at), byId: by } as Partial<
    Rows['runs']
  >);
  for (const [table, part] of [
    ['cleanings', cleaning],
    ['judgements', judgement],
  ] as const) {
    if (!part) continue;
    const { by: who, at: when, ...fields } = part;
    await insert(context, table, { ...fields, runId: record.id, at: new Date(when), byId: who } as never);
  }
}
