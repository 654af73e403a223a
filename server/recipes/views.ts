import { literal, Op } from 'sequelize';
import { rasterTime, type ProgramSetting } from '@unto/core';
import type { OfferedRecipe, Pairing, Recipe, RecipeRecord } from '@unto/contract';
import { pairingOf, rowMotion, sweptMark } from '@unto/domain';
import { find, list, NEWEST_FIRST, rowsOf, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { layoutSeconds } from '../artworks/service.js';
import { inventoryItem } from '../inventory/service.js';

type Ticket = Pick<Rows['tickets'], 'id' | 'substrateId' | 'compoundId' | 'headId' | 'lensId'> &
  Pick<Rows['tickets'], 'markWidthMm' | 'markHeightMm' | 'pieces' | 'layoutId'>;

/** A recipe as it stands: whether it is in use or suspended beside what was frozen. @throws not-found */
export async function recipeById(context: Context, id: string): Promise<Recipe> {
  return (await recipeViews(context, [await find(context, 'recipes', id)]))[0]!;
}

/** Recipes of a pairing that any of its tickets may take, the newest version first. */
export async function recipesOfPairing(context: Context, pairing: Pairing): Promise<Recipe[]> {
  const where = { ...pairingOf(pairing), kind: { [Op.ne]: 'step test' } };
  return recipeViews(context, await list(context, 'recipes', { where, order: [['number', 'DESC']] }));
}

async function recipeViews(context: Context, rows: readonly Rows['recipes'][]): Promise<Recipe[]> {
  if (!rows.length) return [];
  const standing = await rowsOf(
    context,
    'standingRecipes',
    rows.map(({ id }) => id),
  );
  const states = new Map(standing.map((row) => [row.id, row]));
  return rows.map(({ byId, at, ...row }) => {
    const { state, why, since, sinceBy } = states.get(row.id)!;
    return {
      ...row,
      acceptedBy: byId,
      acceptedAt: at.toISOString(),
      state: { state, why: why ?? '', since: since?.toISOString() ?? null, by: sinceBy },
    } as Recipe;
  });
}

const SINCE_RESTART = literal(
  `sequence > COALESCE((SELECT restarted_sequence FROM tickets t WHERE t.id = ticket_id), 0)`,
);

/** Recipes that a ticket took into use, newest first; those of before it began anew with another part or head are not among them. */
export async function recipesOf(context: Context, ticket: Ticket): Promise<Recipe[]> {
  const uses = await list(context, 'recipeUses', {
    where: { [Op.and]: [{ ticketId: ticket.id }, SINCE_RESTART] },
    order: NEWEST_FIRST,
  });
  const ids = [...new Set(uses.map(({ recipeId }) => recipeId))];
  const known = new Map(
    (await recipeViews(context, await rowsOf(context, 'recipes', ids))).map((one) => [one.id, one]),
  );
  return Promise.all(ids.map((id) => onTicket(context, known.get(id)!, ticket)));
}

/** The newest proved recipe of a ticket’s pairing with how it went, where it is another than the one in use. */
export async function offeredRecipe(
  context: Context,
  ticket: Ticket,
  inUse: Recipe | undefined,
): Promise<OfferedRecipe | null> {
  const [newest] = await list(context, 'standingRecipes', {
    where: { ...pairingOf(ticket), proved: true, suspended: false },
    order: [['number', 'DESC']],
    limit: 1,
  });
  if (!newest || newest.id === inUse?.id || (inUse && inUse.number > newest.number)) return null;
  const recipe = await onTicket(context, await recipeById(context, newest.id), ticket);
  return { recipe, record: await recordOf(context, newest.id) };
}

/** A recipe with the seconds that a piece of a ticket takes: its frozen ones are of the mark it was accepted for. */
async function onTicket(context: Context, recipe: Recipe, ticket: Ticket): Promise<Recipe> {
  if (recipe.ticketId === ticket.id && !ticket.layoutId) return recipe;
  const head = await inventoryItem(context, 'head', ticket.headId);
  const { body: machine } = await inventoryItem(context, 'machine', head.body.machineId);
  const { speedMmPerS, intervalMm, passes, hatches, directions } = recipe;
  const [motion, rows] = [rowMotion(machine), { directions: directions ?? ('two-way' as const) }];
  if (ticket.layoutId) {
    const of = { context, layoutId: ticket.layoutId, pieces: ticket.pieces };
    return { ...recipe, secondsPerPiece: await layoutSeconds({ ...of, motion, setting: settingFor(recipe, rows) }) };
  }
  const raster = { ...sweptMark(ticket), speedMmPerS, intervalMm, passes: passes * hatches, ...rows };
  return { ...recipe, secondsPerPiece: rasterTime(raster, motion) };
}

/** What of a recipe its path is run by. */
function settingFor(
  { powerPercent, speedMmPerS, intervalMm, passes, hatches, angleDeg }: Recipe,
  rows: Pick<ProgramSetting, 'directions'>,
): ProgramSetting {
  return { powerPercent, speedMmPerS, intervalMm, passes, hatches, angleDeg, ...rows };
}

/** How the judged runs of a recipe went, all tickets together. */
export async function recordOf(context: Context, recipeId: string): Promise<RecipeRecord> {
  const [rows] = await context.sequelize.query(
    `SELECT count(*)::int AS runs, coalesce(sum(pieces), 0)::int AS pieces, coalesce(sum(pieces_good), 0)::int AS good, max(at) AS newest
     FROM standing_runs WHERE recipe_id = :recipeId AND judged`,
    { replacements: { recipeId }, transaction: context.transaction ?? null },
  );
  const [row] = rows as { runs: number; pieces: number; good: number; newest: Date | null }[];
  return { ...row!, newest: row!.newest?.toISOString() ?? null };
}
