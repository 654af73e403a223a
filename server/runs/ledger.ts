import { literal, Op, type WhereOptions } from 'sequelize';
import type { Cleaning, CreateRun, Judgement, LedgerPage, LedgerQuery, LedgerRecord } from '@unto/contract';
import { type Context, isId, list, OLDEST_FIRST, together } from '../db/context.js';
import { pageOf } from '../db/page.js';
import type { Rows } from '../db/models/index.js';
import { namesOf } from '../inventory/service.js';

const PAGE = 50;
/** Records of an export that are read at once. */
const AT_ONCE = 500;

/** A page of the ledger, newest first. */
export async function ledgerPage(context: Context, query: LedgerQuery): Promise<LedgerPage> {
  const where = { [Op.and]: filters(query) } as WhereOptions;
  const { rows, next } = await pageOf(context, 'runs', { key: 'at', where }, { limit: PAGE, ...query });
  return { records: await ledgerRecords(context, rows), next };
}

/** Everything that matches, newest first, page by page: never all of it at once. */
export async function* ledgerAll(context: Context, query: LedgerQuery): AsyncGenerator<LedgerRecord> {
  let cursor: string | null | undefined = undefined;
  do {
    const page: LedgerPage = await ledgerPage(context, { ...query, cursor, limit: AT_ONCE });
    yield* page.records;
    cursor = page.next;
  } while (cursor);
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

function filters(query: LedgerQuery): object[] {
  const equal = (['substrateId', 'compoundId', 'headId', 'ticketId', 'grade'] as const)
    .filter((key) => query[key])
    .map((key) => ({ [key]: query[key] }));
  const from = query.from ? [{ at: { [Op.gte]: new Date(query.from) } }] : [];
  const to = query.to ? [{ at: { [Op.lt]: new Date(query.to) } }] : [];
  const judged = query.judged ? [judgedIs(query.judged === 'yes')] : [];
  return [...equal, ...from, ...to, ...judged];
}

function judgedIs(yes: boolean): object {
  return { id: { [yes ? Op.in : Op.notIn]: literal('(SELECT run_id FROM judgements)') } };
}
