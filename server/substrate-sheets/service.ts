import { GRADES, type Fault } from '@unto/core';
import type { HeadBody, InventoryItem, MachineBody, SubstrateSheet } from '@unto/contract';
import { list, together, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { lastingRows } from '../durability/service.js';
import { waysBefore } from '../faults/reworks.js';
import { inventoryItem, itemsById, listInventory } from '../inventory/service.js';
import { recipeById } from '../recipes/views.js';

/** Newest judged runs that a sheet is of. */
const NEWEST = 2000;
/** Settings, tests and faults that a sheet shows at most. */
const MOST = 24;

/** What works on a substrate here: settings, cleaning, what marks stood, faults and what they were, what was never tried. @throws not-found */
export async function substrateSheet(context: Context, id: string): Promise<SubstrateSheet> {
  const { body } = await inventoryItem(context, 'substrate', id);
  const { runs, went, cleaned, seen } = await countedOn(context, id);
  const [settings, cleaning, lasting, faults, never, before] = await together(
    context,
    () => settingsOn(context, id, went),
    () => cleaningOn(context, cleaned),
    () => lastingRows(context, { substrateId: id }),
    () => faultsOn(context, id, seen),
    () => neverTried(context, id),
    () => waysBefore(context),
  );
  const { name, family, layer, finish, thicknessMm } = body;
  return {
    ...{ id, name, family, layer, finish, thicknessMm, runs, settings, cleaning, faults, never },
    lasting: lasting.slice(0, MOST),
    reworks: Object.entries(before).map(([way, counts]) => ({ way: way as never, ...counts })),
    at: context.now.toISOString(),
  };
}

async function rowsOfSql<T>(context: Context, sql: string, id: string): Promise<T[]> {
  const [rows] = await context.sequelize.query(sql, { replacements: { id }, transaction: context.transaction ?? null });
  return rows as T[];
}

interface Went {
  readonly recipeId: string;
  readonly runs: number;
  readonly pieces: number;
  readonly good: number;
  /** Of runs that somebody timed or counted. */
  readonly minutesPerPiece: number | null;
  readonly gramsPerPiece: number | null;
  readonly compoundMinor: number | null;
}

type Cleaned = Omit<SubstrateSheet['cleaning'][number], 'compoundName'>;

/** What the newest judged runs of a substrate come to. */
interface Counted {
  readonly runs: number;
  /** By recipe, from what was timed and weighed. */
  readonly went: readonly Went[];
  readonly cleaned: readonly Cleaned[];
  readonly seen: readonly { readonly fault: Fault; readonly runs: number }[];
}

/** Counts over the newest judged runs, found once for all of it. */
async function countedOn(context: Context, id: string): Promise<Counted> {
  const part = (name: string) => `(SELECT coalesce(json_agg(${name}), '[]') FROM ${name}) AS ${name}`;
  const [row] = await rowsOfSql<Counted>(
    context,
    `WITH newest AS MATERIALIZED (
       SELECT id FROM ledger_rows WHERE substrate_id = :id AND judged ORDER BY at DESC, id DESC LIMIT ${NEWEST}),
     r AS MATERIALIZED (
       SELECT t.id, t.recipe_id, t.compound_id, t.pieces, t.minutes, t.minutes_from, t.bench -> 'coat' AS coat, j.pieces_good, j.faults
       FROM newest JOIN runs t ON t.id = newest.id
       CROSS JOIN LATERAL (SELECT x.pieces_good, x.faults FROM judgements x WHERE x.run_id = t.id ORDER BY x.sequence DESC LIMIT 1) j
       WHERE NOT EXISTS (SELECT 1 FROM runs later WHERE later.corrects_id = t.id)),
     went AS (
       SELECT r.recipe_id AS "recipeId", count(*)::int AS runs, sum(r.pieces)::int AS pieces, sum(least(r.pieces_good, r.pieces))::int AS good,
         sum(r.minutes) FILTER (WHERE r.minutes_from <> 'planned') / nullif(sum(r.pieces) FILTER (WHERE r.minutes_from <> 'planned'), 0) AS "minutesPerPiece",
         avg((r.coat ->> 'laidG')::float / nullif((r.coat ->> 'pieces')::float, 0)) AS "gramsPerPiece",
         avg((r.coat ->> 'laidG')::float / nullif((r.coat ->> 'pieces')::float, 0)
           * (c.body ->> 'priceMinor')::float / nullif((c.body ->> 'netG')::float, 0)) AS "compoundMinor"
       FROM r
       LEFT JOIN weighings w ON w.id = (r.coat ->> 'weighingId')::uuid
       LEFT JOIN inventory_revisions c ON c.id = w.container_revision_id
       WHERE r.recipe_id IS NOT NULL GROUP BY r.recipe_id),
     cleaned AS (
       SELECT r.compound_id AS "compoundId", c.method, count(*)::int AS runs, count(*) FILTER (WHERE c.residue = 'none')::int AS clean,
         sum(c.minutes) / sum(r.pieces) AS "minutesPerPiece"
       FROM r JOIN LATERAL (SELECT * FROM cleanings x WHERE x.run_id = r.id ORDER BY x.sequence DESC LIMIT 1) c ON true
       GROUP BY 1, 2 ORDER BY runs DESC LIMIT ${MOST}),
     seen AS (
       SELECT f.fault, count(*)::int AS runs FROM r CROSS JOIN LATERAL jsonb_array_elements_text(r.faults) AS f (fault)
       GROUP BY 1 ORDER BY runs DESC LIMIT ${MOST})
     SELECT (SELECT count(*)::int FROM r) AS runs, ${['went', 'cleaned', 'seen'].map(part).join(', ')}`,
    id,
  );
  return row!;
}

/** The newest standing recipe of each head, lens and compound, proved ones first, with how it went. */
async function settingsOn(context: Context, id: string, how: readonly Went[]): Promise<SubstrateSheet['settings']> {
  const rows = await list(context, 'standingRecipes', { where: { substrateId: id }, order: [['number', 'DESC']] });
  const newest = new Map<string, Rows['standingRecipes']>();
  for (const row of rows.filter(({ kind }) => kind !== 'step test')) {
    const key = [row.compoundId, row.headId, row.lensId].join(' ');
    if (!newest.has(key)) newest.set(key, row);
  }
  const went = new Map(how.map((row) => [row.recipeId, row]));
  const of = [...newest.values()].slice(0, MOST);
  const items = await itemsById(
    context,
    of.flatMap(({ compoundId, headId, lensId }) => [headId, lensId, ...(compoundId ? [compoundId] : [])]),
  );
  const heads = of.map(({ headId }) => items.get(headId) as InventoryItem<'head'>);
  const machines = await itemsById(
    context,
    heads.map(({ body }) => body.machineId),
  );
  const rateOf = ({ machineId }: HeadBody) => (machines.get(machineId)!.body as MachineBody).laserMinorPerMinute;
  const found = [];
  for (const [i, row] of of.entries()) {
    const recipe = await recipeById(context, row.id);
    const { compoundMinor = null, recipeId: _id, ...how } = went.get(row.id) ?? NOTHING;
    found.push({
      ...{ compoundId: row.compoundId, headId: row.headId, recipe, grade: recipe.grade, ...how },
      compoundName: row.compoundId ? items.get(row.compoundId)!.body.name : null,
      headName: items.get(row.headId)!.body.name,
      lensName: items.get(row.lensId)!.body.name,
      priceMinor: priceOf({ ...how, compoundMinor }, rateOf(heads[i]!.body)),
      swatch: recipe.weights.length > 0,
    });
  }
  return found.sort((a, b) => GRADES.indexOf(a.grade) - GRADES.indexOf(b.grade) || b.pieces - a.pieces);
}

const NOTHING = {
  recipeId: '',
  runs: 0,
  pieces: 0,
  good: 0,
  minutesPerPiece: null,
  gramsPerPiece: null,
  compoundMinor: null,
};

/** Compound and laser of a good piece; null where neither was kept or none came out good. */
function priceOf(
  { pieces, good, minutesPerPiece, compoundMinor }: Omit<Went, 'recipeId' | 'runs' | 'gramsPerPiece'>,
  rate: number,
) {
  if (!good || (minutesPerPiece === null && compoundMinor === null)) return null;
  return (((minutesPerPiece ?? 0) * rate + (compoundMinor ?? 0)) * pieces) / good;
}

async function cleaningOn(context: Context, rows: readonly Cleaned[]): Promise<SubstrateSheet['cleaning']> {
  const names = await itemsById(
    context,
    rows.flatMap(({ compoundId }) => (compoundId ? [compoundId] : [])),
  );
  return rows.map((row) => ({ ...row, compoundName: row.compoundId ? names.get(row.compoundId)!.body.name : null }));
}

async function faultsOn(context: Context, id: string, seen: Counted['seen']): Promise<SubstrateSheet['faults']> {
  const settled = await list(context, 'settledFaults', { where: { substrateId: id } });
  return seen.map(({ fault, runs }) => {
    const causes = settled.filter(({ faults }) => faults.includes(fault)).flatMap((one) => one.causes);
    const often = [...new Set(causes)].map((cause) => ({ cause, cases: causes.filter((one) => one === cause).length }));
    return { fault, runs, causes: often.sort((a, b) => b.cases - a.cases) };
  });
}

/** Compounds on the shelf, and heads, that name this material and each other, without a coupon or run of the two on it. */
async function neverTried(context: Context, id: string): Promise<SubstrateSheet['never']> {
  const { body } = await inventoryItem(context, 'substrate', id);
  const [compounds, heads, tried] = await together(
    context,
    () => listInventory(context, { kind: 'compound' }),
    () => listInventory(context, { kind: 'head' }),
    () =>
      rowsOfSql<{ compound: string; head: string }>(
        context,
        `SELECT DISTINCT compound_id AS compound, head_id AS head FROM coupons WHERE substrate_id = :id AND burnt_at IS NOT NULL
         UNION SELECT c.compound_id, h.id FROM (SELECT id AS compound_id FROM inventory_items WHERE kind = 'compound') c
           CROSS JOIN (SELECT id FROM inventory_items WHERE kind = 'head') h
           CROSS JOIN LATERAL (
             SELECT 1 FROM ledger_rows l WHERE l.substrate_id = :id AND l.compound_id = c.compound_id AND l.head_id = h.id LIMIT 1) t`,
        id,
      ),
  );
  const done = new Set(tried.map(({ compound, head }) => `${compound} ${head}`));
  return compounds
    .filter((compound) => compound.body.statedFamilies.includes(body.family))
    .flatMap((compound) =>
      heads
        .filter(
          (head) =>
            compound.body.statedBeams.includes(head.body.wavelengthClass) && !done.has(`${compound.id} ${head.id}`),
        )
        .map((head) => ({
          ...{ compoundId: compound.id, compoundName: compound.body.name, headId: head.id, headName: head.body.name },
        })),
    )
    .slice(0, MOST);
}
