import { Op, type WhereOptions } from 'sequelize';
import { fault } from '../errors/api-error.js';
import { list, type Context } from './context.js';
import type { Rows } from './models/index.js';

const USUAL_LIMIT = 100;
const UUID = /^[0-9a-f-]{36}$/;

/** What part of a list is asked for. */
export interface Asked {
  readonly cursor?: string | undefined;
  readonly limit?: number | undefined;
}

/** Rows of one page, newest first, and the cursor of the next; null at the end. */
export interface PageOfRows<Row> {
  readonly rows: Row[];
  readonly next: string | null;
}

/**
 * A page of a table, newest first by `key` and then by id: the next one begins where this one ends, whatever was added meanwhile.
 * `more` says what is read with each row.
 * @throws invalid-input for a cursor that is none of ours
 */
export async function pageOf<T extends keyof Rows>(
  context: Context,
  table: T,
  by: { readonly key: keyof Rows[T] & string; readonly where?: WhereOptions; readonly more?: object },
  asked: Asked,
): Promise<PageOfRows<Rows[T]>> {
  const limit = asked.limit ?? USUAL_LIMIT;
  const { key } = by;
  const after = asked.cursor ? [beyond(key, asked.cursor)] : [];
  const rows = await list(context, table, {
    ...by.more,
    where: { [Op.and]: [by.where ?? {}, ...after] },
    order:
      key === 'id'
        ? [['id', 'DESC']]
        : [
            [key, 'DESC'],
            ['id', 'DESC'],
          ],
    limit: limit + 1,
  });
  const shown = rows.slice(0, limit);
  const last = shown.at(-1) as (Rows[T] & { id: string }) | undefined;
  return { rows: shown, next: rows.length > limit && last ? cursorOf(last[key], last.id) : null };
}

function cursorOf(key: unknown, id: string): string {
  const place = key instanceof Date ? key.toISOString() : key === id ? 0 : key;
  return Buffer.from(JSON.stringify([place, id])).toString('base64url');
}

/** Rows after a cursor. The first bound lets the index start there; PostgreSQL does not see that through the OR alone. */
function beyond(key: string, cursor: string): object {
  const [place, id] = placeOf(cursor);
  if (key === 'id') return { id: { [Op.lt]: id } };
  return { [key]: { [Op.lte]: place }, [Op.or]: [{ [key]: { [Op.lt]: place } }, { id: { [Op.lt]: id } }] };
}

function placeOf(cursor: string): [number | Date, string] {
  try {
    const [place, id] = JSON.parse(Buffer.from(cursor, 'base64url').toString()) as [unknown, unknown];
    const moment = typeof place === 'string' ? new Date(place) : place;
    const known = moment instanceof Date ? !Number.isNaN(moment.getTime()) : Number.isFinite(moment);
    if (known && UUID.test(String(id))) return [moment as number | Date, String(id)];
  } catch {
    // Said below.
  }
  throw fault('cursor', 'That cursor is none of ours: begin the list anew.');
}
