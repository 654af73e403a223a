import { fn, Op, type WhereOptions } from 'sequelize';
import type { Cleaning, CreateRun, Judgement, LedgerPage, LedgerQuery, LedgerRecord } from '@unto/contract';
import { type Context, isId, list, OLDEST_FIRST, rowsOf, together } from '../db/context.js';
import { pageOf } from '../db/page.js';
import type { Rows } from '../db/models/index.js';
import { namesOf } from '../inventory/service.js';

const PAGE = 50;
/** Records of an export that are read at once. */
const AT_ONCE = 500;

/** A page of the ledger, newest first. */
export async function ledgerPage(context: Context, query: LedgerQuery): Promise<LedgerPage> {
  const where = { [Op.and]: filters(query) } as WhereOptions;
  const { rows, next } = await pageOf(context, 'ledgerRows', { key: 'at', where }, { limit: PAGE, ...query });
  const ids = rows.map(({ id }) => id);
  const runs = new Map((await rowsOf(context, 'runs', ids)).map((run) => [run.id, run]));
  const records = await ledgerRecords(
    context,
    ids.map((id) => runs.get(id)!),
  );
  return { records, next };
}

/** Everything that matches, newest first, page by page: never all of it at once. The next page is read while one is taken. */
export async function* ledgerAll(context: Context, query: LedgerQuery): AsyncGenerator<LedgerRecord> {
  const pageAt = (cursor?: string) => ledgerPage(context, { ...query, cursor, limit: AT_ONCE });
  let next: Promise<LedgerPage> | null = pageAt();
  while (next) {
    const page: LedgerPage = await next;
    next = page.next ? pageAt(page.next) : null;
    // Whoever takes no more of it does not hear of a page that could not be read.
    next?.catch(() => undefined);
    yield* page.records;
  }
}

/** Runs of a ticket, newest first. */
export async function runsOf(context: Context, ticketId: string): Promise<LedgerRecord[]> {
  const order = [
    ['at', 'DESC'],
    ['id', 'DESC'],
  ];
  return ledgerRecords(context, await list(context, 'runs', { where: { ticketId }, order }));
}

/** Runs with their names, newest cleaning and judgement, and whether they were corrected. */
export async function ledgerRecords(context: Context, rows: readonly Rows['runs'][]): Promise<LedgerRecord[]> {
  const ids = rows.map(({ id }) => id);
  const among = { where: { runId: { [Op.in]: ids } }, order: OLDEST_FIRST };
  const [cleanings, judgements, tickets, corrections, lenses, names] = await together(
    context,
    () => list(context, 'cleanings', among),
    () => list(context, 'judgements', among),
    () => list(context, 'tickets', { where: { id: { [Op.in]: distinct(rows.map(({ ticketId }) => ticketId)) } } }),
    () => list(context, 'runs', { where: { correctsId: { [Op.in]: ids } }, attributes: ['id', 'correctsId'] }),
    () =>
      list(context, 'inventoryRevisions', {
        where: { id: { [Op.in]: distinct(rows.map(({ revisions }) => revisions.lens)).filter(isId) } },
      }),
    () =>
      namesOf(
        context,
        rows.flatMap((row) => [row.substrateId, row.compoundId, row.headId]),
      ),
  );
  const ticketById = new Map(tickets.map((ticket) => [ticket.id, ticket]));
  const cleaningByRun = new Map(cleanings.map((row) => [row.runId, row]));
  const judgementByRun = new Map(judgements.map((row) => [row.runId, row]));
  const corrected = new Map(corrections.map((row) => [row.correctsId, row.id]));
  const lensName = new Map(lenses.map((row) => [row.id, row.body.name]));
  return rows.map((row) => {
    const { entered, at, byId, ...rest } = row;
    const ticket = ticketById.get(row.ticketId)!;
    return {
      ...rest,
      ...(entered as Pick<CreateRun, 'power' | 'speed' | 'interval'>),
      at: at.toISOString(),
      by: byId,
      ticketNumber: ticket.number,
      ticketTitle: ticket.title,
      substrateName: names.get(row.substrateId) ?? '',
      compoundName: row.compoundId ? (names.get(row.compoundId) ?? '') : null,
      headName: names.get(row.headId) ?? '',
      lensName: lensName.get(row.revisions.lens) ?? '',
      correctedById: corrected.get(row.id) ?? null,
      cleaning: followUp<Cleaning>(cleaningByRun.get(row.id)),
      judgement: followUp<Judgement>(judgementByRun.get(row.id)),
    } as LedgerRecord;
  });
}

function distinct(ids: readonly string[]): string[] {
  return [...new Set(ids)];
}

function followUp<T>(row: Rows['cleanings'] | Rows['judgements'] | undefined): T | null {
  if (!row) return null;
  const { runId: _run, byId, at, ...rest } = row;
  return { ...rest, at: at.toISOString(), by: byId } as T;
}

/** A query as the rows of the ledger are filtered by it. */
function filters(query: LedgerQuery): object[] {
  const { operatorId, from, to, judged, text } = query;
  const equal = (['substrateId', 'compoundId', 'headId', 'ticketId', 'grade', 'canLot', 'blankLot'] as const)
    .filter((key) => query[key])
    .map((key) => ({ [key]: query[key] }));
  return [
    ...equal,
    ...(operatorId ? [{ byId: operatorId }] : []),
    ...(from ? [{ at: { [Op.gte]: new Date(from) } }] : []),
    ...(to ? [{ at: { [Op.lt]: new Date(to) } }] : []),
    ...(judged === 'faulty' ? [{ faulty: true }] : judged ? [{ judged: judged === 'yes' }] : []),
    ...wordsIn(text ?? ''),
  ];
}

/** Signs that mean something in a search of PostgreSQL. */
const SIGNS = /['\\:&|!()<>*]/g;

/** Every word of a text, each as it begins; nothing where the text has none. */
function wordsIn(text: string): object[] {
  const words = text
    .replace(SIGNS, ' ')
    .split(/\s+/)
    .filter((word) => /[\p{L}\p{N}]/u.test(word));
  if (!words.length) return [];
  const asked = words.map((word) => `'${word}':*`).join(' & ');
  return [{ words: { [Op.match]: fn('to_tsquery', 'simple', asked) } }];
}

/** Lots that stand in the ledger, in the order of their names. */
export async function ledgerChoices(context: Context): Promise<{ canLots: string[]; blankLots: string[] }> {
  const distinctOf = async (column: 'can_lot' | 'blank_lot') => {
    // Steps from one lot to the next on the index, whatever number of runs each has.
    const [rows] = (await context.sequelize.query(
      `WITH RECURSIVE lots AS (
         (SELECT ${column} AS lot FROM ledger_rows WHERE ${column} IS NOT NULL ORDER BY ${column} LIMIT 1)
         UNION ALL
         SELECT (SELECT ${column} FROM ledger_rows WHERE ${column} > lots.lot ORDER BY ${column} LIMIT 1) FROM lots WHERE lots.lot IS NOT NULL)
       SELECT lot FROM lots WHERE lot IS NOT NULL LIMIT 500`,
      { transaction: context.transaction ?? null },
    )) as unknown as [{ lot: string }[]];
    return rows.map(({ lot }) => lot);
  };
  return { canLots: await distinctOf('can_lot'), blankLots: await distinctOf('blank_lot') };
}
