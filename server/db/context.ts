import { createHash } from 'node:crypto';
import { literal, Op, type Model, type ModelStatic, type OrderItem, type Sequelize, type Transaction } from 'sequelize';
import type { DeviceList } from '@unto/contract';
import type { JobQueue } from '../jobs/queue.js';
import type { Pool } from '../pool/pool.js';
import type { FileStore } from '../storage/file-store.js';
import { ApiError } from '../errors/api-error.js';
import { inParts } from './in-parts.js';
import type { Models, Rows } from './models/index.js';

/** What a service works with: the tables, its transaction, the moment and who is at the bench. */
export interface Context {
  readonly sequelize: Sequelize;
  readonly models: Models;
  readonly files: FileStore;
  /** Devices there are. None is asked from here: what is wanted of one is a job. */
  readonly tied: DeviceList;
  /** Null where no worker does any. */
  readonly jobs: JobQueue | null;
  /** Where heavy work is done. */
  readonly pool: Pool;
  readonly transaction: Transaction | undefined;
  readonly now: Date;
  /** How long ago, in ms, what is asked was entered: it may have waited for a connection. */
  readonly agoMs?: number;
  /** Operator's id; empty for reads. */
  readonly actor: string;
}

/** A table by its name, whichever it is. */
function modelOf(context: Context, table: keyof Rows): ModelStatic<Model> {
  return context.models[table] as unknown as ModelStatic<Model>;
}

/** Whether a text can be an id at all. */
export const isId = (id: string) => /^[0-9a-f-]{36}$/.test(id);

export const nothingUnder = (id: string) => new ApiError('not-found', `Nothing is kept under ${id}.`);

/** A row by id. @throws not-found */
export async function find<T extends keyof Rows>(
  context: Context,
  table: T,
  id: string,
  options: { lock?: boolean } = {},
): Promise<Rows[T]> {
  const row = isId(id)
    ? await modelOf(context, table).findOne({
        where: { id },
        raw: true,
        ...(context.transaction ? { transaction: context.transaction, ...(options.lock ? { lock: true } : {}) } : {}),
      })
    : null;
  if (!row) throw nothingUnder(id);
  return row as unknown as Rows[T];
}

/** Rows in the order in which they came to be: by one sequence over all tables, since a clock can be set back. */
export const OLDEST_FIRST: OrderItem[] = [[literal('sequence'), 'ASC']];
export const NEWEST_FIRST: OrderItem[] = [[literal('sequence'), 'DESC']];

/** Rows that match. */
export async function list<T extends keyof Rows>(context: Context, table: T, options: object = {}): Promise<Rows[T][]> {
  const rows = await modelOf(context, table).findAll({
    ...options,
    raw: true,
    transaction: context.transaction ?? null,
  });
  return rows as unknown as Rows[T][];
}

/** Does a piece of work whole or not at all. */
export function atomically<T>(context: Context, work: (context: Context) => Promise<T>): Promise<T> {
  return context.sequelize.transaction((transaction) => work({ ...context, transaction }));
}

/** Lets one transaction at a time into a piece of work that others would disturb; the others wait until it has ended. */
export async function alone(context: Context, work: 'import' | 'workshop' | 'recipe'): Promise<void> {
  await context.sequelize.query('SELECT pg_advisory_xact_lock(hashtext(:work))', {
    replacements: { work: `unto ${work}` },
    transaction: context.transaction ?? null,
  });
}

/** Several reads at once on connections of their own; one after another inside a transaction, which has but one. */
export async function together<T extends readonly (() => Promise<unknown>)[]>(
  context: Context,
  ...reads: T
): Promise<{ -readonly [K in keyof T]: Awaited<ReturnType<T[K]>> }> {
  const answers: unknown[] = [];
  if (context.transaction) for (const read of reads) answers.push(await read());
  else answers.push(...(await Promise.all(reads.map((read) => read()))));
  return answers as never;
}

/** Adds a row. */
export async function insert<T extends keyof Rows>(context: Context, table: T, row: Partial<Rows[T]>): Promise<void> {
  await modelOf(context, table).create(row, { transaction: context.transaction ?? null });
}

/** Rows of a table by their ids, or by another of its columns; of however many. */
export async function rowsOf<T extends keyof Rows>(
  context: Context,
  table: T,
  ids: Iterable<string>,
  { key = 'id', attributes }: { readonly key?: string; readonly attributes?: readonly string[] } = {},
): Promise<Rows[T][]> {
  const rows: Rows[T][] = [];
  for (const some of inParts([...ids])) {
    const where = { [key]: { [Op.in]: some } };
    rows.push(...(await list(context, table, { where, ...(attributes ? { attributes: [...attributes] } : {}) })));
  }
  return rows;
}

const ROWS_AT_ONCE = 200;

/** Adds many rows, in their order. */
export async function insertMany<T extends keyof Rows>(
  context: Context,
  table: T,
  rows: readonly Partial<Rows[T]>[],
): Promise<void> {
  for (const some of inParts(rows, ROWS_AT_ONCE))
    await modelOf(context, table).bulkCreate(some, { transaction: context.transaction ?? null });
}

/**
 * Runs `create` unless a record with this id was already made from the same body: a repeated request changes nothing.
 * @throws identity-conflict when the id stands for another body
 */
export async function createOnce(
  context: Context,
  resource: string,
  body: { id: string },
  create: () => Promise<void>,
): Promise<void> {
  const bodyHash = createHash('sha256').update(stableJson(body)).digest('hex');
  const [, inserted] = await context.sequelize.query(
    'INSERT INTO creations (id, resource, body_hash) VALUES (:id, :resource, :bodyHash) ON CONFLICT (id) DO NOTHING',
    {
      replacements: { id: body.id, resource, bodyHash },
      transaction: context.transaction ?? null,
      type: 'INSERT' as never,
    },
  );
  if ((inserted as unknown as number) > 0) return create();
  const earlier = await find(context, 'creations', body.id);
  if (earlier.bodyHash !== bodyHash || earlier.resource !== resource) {
    throw new ApiError(
      'identity-conflict',
      'A record with this identifier was already made from other entries. Reload the page and enter it again.',
    );
  }
}

/** Refuses a stale write. @throws version-conflict carrying the record as it stands */
export function requireVersion(stored: number, sent: number, current: unknown): void {
  if (stored !== sent) {
    throw new ApiError(
      'version-conflict',
      'It was changed by somebody else since you opened it. Both versions are kept: choose one.',
      { current },
    );
  }
}

/** JSON with sorted keys: equal text for equal content. */
export function stableJson(value: unknown): string {
  return JSON.stringify(value, (_, inner: unknown) =>
    inner && typeof inner === 'object' && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );
}
