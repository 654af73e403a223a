import { fn, Op, type WhereOptions } from 'sequelize';
import type { LedgerPage, LedgerQuery, LedgerRecord } from '@unto/contract';
import { type Context, list } from '../db/context.js';
import { pageOf } from '../db/page.js';
import { JsonText } from '../http/json-text.js';
import { ledgerRecords, recordTexts } from './ledger-record.js';

const PAGE = 50;
/** Records of an export that are read at once. */
const AT_ONCE = 500;

/** A page of the ledger, newest first, as the database has it. */
export async function ledgerPage(context: Context, query: LedgerQuery): Promise<JsonText<LedgerPage>> {
  const { texts, next } = await pageOfTexts(context, query);
  return new JsonText(`{"records":[${texts.join(',')}],"next":${JSON.stringify(next)}}`);
}

interface PageOfTexts {
  readonly texts: readonly string[];
  readonly next: string | null;
}

async function pageOfTexts(context: Context, query: LedgerQuery): Promise<PageOfTexts> {
  const where = { [Op.and]: filters(query) } as WhereOptions;
  const by = { key: 'at', where, more: { attributes: ['id', 'at'] } } as const;
  const { rows, next } = await pageOf(context, 'ledgerRows', by, { limit: PAGE, ...query });
  return { texts: await recordTexts(context, idsOf(rows)), next };
}

/**
 * Everything that matches, newest first, each as its JSON, page by page: never all of it at once. The next page is read while one is taken.
 */
export async function* ledgerTexts(context: Context, query: LedgerQuery): AsyncGenerator<string> {
  const pageAt = (cursor?: string) => pageOfTexts(context, { ...query, cursor, limit: AT_ONCE });
  let next: Promise<PageOfTexts> | null = pageAt();
  while (next) {
    const page: PageOfTexts = await next;
    next = page.next ? pageAt(page.next) : null;
    // Whoever takes no more of it does not hear of a page that could not be read.
    next?.catch(() => undefined);
    yield* page.texts;
  }
}

/** Ids of the newest runs that a filter lets through, at most so many. */
export async function newestIn(context: Context, query: LedgerQuery, limit: number): Promise<string[]> {
  const where = { [Op.and]: filters(query) } as WhereOptions;
  return idsOf(await list(context, 'ledgerRows', { where, order: NEWEST, limit, attributes: ['id'] }));
}

const NEWEST = [
  ['at', 'DESC'],
  ['id', 'DESC'],
];

/** Runs of a ticket, newest first. */
export async function runsOf(context: Context, ticketId: string): Promise<LedgerRecord[]> {
  const rows = await list(context, 'runs', { where: { ticketId }, order: NEWEST, attributes: ['id'] });
  return ledgerRecords(context, idsOf(rows));
}

const idsOf = (rows: readonly { id: string }[]) => rows.map(({ id }) => id);

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
