import type { ModelStatic, Model } from 'sequelize';
import type { LedgerRecord } from '@unto/contract';
import type { Context } from '../db/context.js';
import { inParts } from '../db/in-parts.js';
import type { Models } from '../db/models/index.js';

/** Moments as JSON has them everywhere else. */
const MOMENT = `'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'`;

/** Columns of a table as the fields that its model calls them, but for some. */
function fieldsOf(model: Models[keyof Models], table: string, without: readonly string[] = []): string {
  return Object.entries((model as unknown as ModelStatic<Model>).getAttributes())
    .filter(([name]) => !without.includes(name))
    .map(([name, { field, type }]) => {
      const column = `${table}.${field}`;
      const value = String(type).startsWith('TIMESTAMP') ? `to_char(${column} AT TIME ZONE 'UTC', ${MOMENT})` : column;
      return `${value} AS "${name === 'byId' ? 'by' : name}"`;
    })
    .join(', ');
}

/** The newest of what followed a run, as JSON. */
const newest = (model: Models[keyof Models], table: string) => `(
  SELECT row_to_json(x) FROM (
    SELECT ${fieldsOf(model, 'f', ['runId'])} FROM ${table} f WHERE f.run_id = r.id ORDER BY f.sequence DESC LIMIT 1) x)`;

/** An id of text that may be none: files of before held others. */
const idIn = (text: string) =>
  `CASE WHEN ${text} ~ '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$' THEN (${text})::uuid END`;

const statements = new WeakMap<Models, string>();

/**
 * The database puts a record together: of many runs that costs a tenth of what it costs to fetch them piece by piece. Names are looked up once
 * for all of them.
 */
function statementOf(models: Models): string {
  const known = statements.get(models);
  if (known) return known;
  const sql = `WITH r AS MATERIALIZED (
      SELECT t.*, asked.place, ${idIn("t.revisions ->> 'lens'")} AS lens_revision_id
      FROM unnest(ARRAY[:ids]::uuid[]) WITH ORDINALITY AS asked (id, place) JOIN runs t ON t.id = asked.id),
    items AS MATERIALIZED (
      SELECT i.id, v.body ->> 'name' AS name FROM inventory_items i JOIN inventory_revisions v ON v.id = i.revision_id
      WHERE i.id IN (SELECT substrate_id FROM r UNION SELECT compound_id FROM r UNION SELECT head_id FROM r)),
    lenses AS MATERIALIZED (
      SELECT v.id, v.body ->> 'name' AS name FROM inventory_revisions v WHERE v.id IN (SELECT lens_revision_id FROM r))
    SELECT row_to_json(l)::text AS record FROM (
      SELECT ${fieldsOf(models.runs, 'r', ['entered'])},
        r.entered -> 'power' AS power, r.entered -> 'speed' AS speed, r.entered -> 'interval' AS interval,
        t.number AS "ticketNumber", t.title AS "ticketTitle",
        coalesce(s.name, '') AS "substrateName", c.name AS "compoundName", coalesce(h.name, '') AS "headName",
        coalesce(lenses.name, '') AS "lensName",
        (SELECT c.id FROM runs c WHERE c.corrects_id = r.id ORDER BY c.sequence DESC LIMIT 1) AS "correctedById",
        ${newest(models.cleanings, 'cleanings')} AS cleaning,
        ${newest(models.judgements, 'judgements')} AS judgement
      FROM r
      JOIN tickets t ON t.id = r.ticket_id
      LEFT JOIN items s ON s.id = r.substrate_id
      LEFT JOIN items c ON c.id = r.compound_id
      LEFT JOIN items h ON h.id = r.head_id
      LEFT JOIN lenses ON lenses.id = r.lens_revision_id
      ORDER BY r.place) l`;
  statements.set(models, sql);
  return sql;
}

/**
 * Runs by their ids, in that order, each as the JSON of its record: with their names, newest cleaning and judgement, and whether they were
 * corrected.
 */
export async function recordTexts(context: Context, ids: readonly string[]): Promise<string[]> {
  const texts: string[] = [];
  for (const some of inParts(ids)) {
    const [rows] = await context.sequelize.query(statementOf(context.models), {
      replacements: { ids: some },
      transaction: context.transaction ?? null,
    });
    texts.push(...(rows as { record: string }[]).map(({ record }) => record));
  }
  return texts;
}

/** As recordTexts, read. */
export async function ledgerRecords(context: Context, ids: readonly string[]): Promise<LedgerRecord[]> {
  return (await recordTexts(context, ids)).map((text) => JSON.parse(text) as LedgerRecord);
}
