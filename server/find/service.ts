import type { Found, FindQuery, FoundKind } from '@unto/contract';
import type { Context } from '../db/context.js';

/** So many of a kind are shown: whoever seeks more says more. */
const OF_A_KIND = 6;

interface Row {
  readonly kind: FoundKind;
  readonly title: string;
  readonly text: string;
  readonly to: string;
  readonly at: Date;
}

/**
 * What holds all words of a question, in whatever order and case, newest first in each kind; without a question what changed last. A
 * ticket is found by its number, title, note, compound and substrate; runs and settings by their ticket.
 */
export async function findThings(context: Context, { q = '' }: FindQuery): Promise<Found[]> {
  const terms = q.trim().split(/\s+/).filter(Boolean).map(likePattern);
  const [rows] = (await context.sequelize.query(SQL, {
    replacements: { terms: terms.length ? terms : ['%'], most: OF_A_KIND },
    transaction: context.transaction ?? null,
  })) as unknown as [Row[]];
  return rows.map(({ at, ...row }) => ({ ...row, at: new Date(at).toISOString() }));
}

/** A word as a pattern that finds it anywhere: its own % and _ mean themselves. */
const likePattern = (word: string) => `%${word.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;

const newest = (name: string, sql: string) => `${name} AS (${sql} ORDER BY at DESC LIMIT :most)`;
const holds = (text: string) => `${text} ILIKE ALL (ARRAY[:terms])`;

/** Tickets of a question with their words; runs and settings go by them. */
const SQL = `
WITH named AS (
  SELECT i.id, r.body ->> 'name' AS name FROM inventory_items i JOIN inventory_revisions r ON r.id = i.revision_id),
told AS (
  SELECT t.*, concat_ws(' · ', s.name, c.name) AS on_with
  FROM tickets t JOIN named s ON s.id = t.substrate_id LEFT JOIN named c ON c.id = t.compound_id),
sought AS (SELECT * FROM told WHERE ${holds("concat_ws(' ', 'ticket', number, title, note, on_with)")} ORDER BY changed_at DESC LIMIT 40),
${newest(
  'of_tickets',
  `SELECT 'ticket' AS kind, title, concat('ticket ', number, ' · ', on_with, CASE state WHEN 'done' THEN ' · done' END) AS text,
     concat('/tickets/', id) AS to, changed_at AS at FROM sought`,
)},
${newest(
  'of_coupons',
  `SELECT 'coupon' AS kind, k.design ->> 'code' AS title, concat_ws(' · ', s.name, c.name, t.title) AS text,
     concat('/coupons/', k.id) AS to, k.created_at AS at
   FROM coupons k JOIN named s ON s.id = k.substrate_id LEFT JOIN named c ON c.id = k.compound_id
   LEFT JOIN tickets t ON t.id = k.ticket_id
   WHERE ${holds("concat_ws(' ', 'coupon', k.design ->> 'code', s.name, c.name, t.title)")}`,
)},
${newest(
  'of_runs',
  `SELECT 'run' AS kind, t.title, concat_ws(' · ', r.pieces || CASE r.pieces WHEN 1 THEN ' piece' ELSE ' pieces' END, t.on_with) AS text,
     concat('/ledger/', r.id) AS to, r.at FROM sought t JOIN runs r ON r.ticket_id = t.id`,
)},
${newest(
  'of_settings',
  `SELECT 'setting' AS kind, concat(t.title, ', recipe v', p.number) AS title,
     concat_ws(' · ', p.grade, p.power_percent || ' %', round(p.speed_mm_per_s::numeric, 1) || ' mm/s', t.on_with) AS text,
     concat('/tickets/', t.id, '/prove') AS to, p.at FROM sought t JOIN recipes p ON p.ticket_id = t.id`,
)},
${newest(
  'of_stores',
  `SELECT 'store' AS kind, r.body ->> 'name' AS title,
     concat_ws(' · ', i.kind, 'lot ' || nullif(r.body ->> 'lot', ''), nullif(r.body ->> 'supplier', ''), CASE WHEN i.retired THEN 'retired' END)
       AS text, concat('/stores/', i.id) AS to, r.at
   FROM inventory_items i JOIN inventory_revisions r ON r.id = i.revision_id
   WHERE ${holds("concat_ws(' ', i.kind, r.body ->> 'name', r.body ->> 'lot', r.body ->> 'supplier', r.body ->> 'alloy', r.body ->> 'grade')")}`,
)},
${newest(
  'of_stated',
  `SELECT 'stated' AS kind, body ->> 'title' AS title, concat_ws(' · ', body ->> 'family', nullif(body ->> 'compound', ''), body ->> 'source')
     AS text, '/practice' AS to, at FROM stated_settings
   WHERE ${holds("concat_ws(' ', body ->> 'title', body ->> 'family', body ->> 'compound', body ->> 'source', body ->> 'note')")}`,
)}
SELECT * FROM of_tickets UNION ALL SELECT * FROM of_coupons UNION ALL SELECT * FROM of_runs UNION ALL SELECT * FROM of_settings
UNION ALL SELECT * FROM of_stores UNION ALL SELECT * FROM of_stated`;
