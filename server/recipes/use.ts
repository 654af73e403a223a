import { randomUUID } from 'node:crypto';
import type { CreateRecipeState, CreateRecipeUse, Pairing, Recipe } from '@unto/contract';
import { pairingOf, samePairing } from '@unto/domain';
import { createOnce, find, insert, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError, fault } from '../errors/api-error.js';
import { recipeById } from './views.js';

/** A ticket takes a recipe of its pairing into use; one that drifted, or was found on another piece, is none for it. */
export async function createRecipeUse(context: Context, ticketId: string, request: CreateRecipeUse): Promise<Recipe> {
  await createOnce(context, 'recipe use', request, async () => {
    const ticket = await find(context, 'tickets', ticketId, { lock: true });
    const recipe = await find(context, 'recipes', request.recipeId);
    requireOf(ticket, recipe);
    if ((await recipeById(context, recipe.id)).state.state === 'suspended')
      throw new ApiError('wrong-stage', `Recipe v${recipe.number} is suspended: make a check coupon first.`);
    await takeIntoUse(context, ticketId, recipe.id, request.id);
  });
  return recipeById(context, request.recipeId);
}

/** @throws invalid-input where a recipe is of another pairing, or of another ticket’s one piece */
export function requireOf(ticket: Rows['tickets'], recipe: Rows['recipes']): void {
  if (!samePairing(ticket, recipe))
    throw fault('recipeId', 'That recipe is of another compound, part, head or lens than this ticket.');
  if (recipe.kind === 'step test' && recipe.ticketId !== ticket.id)
    throw fault('recipeId', 'That setting was found on the one piece of another ticket.');
}

export async function takeIntoUse(
  context: Context,
  ticketId: string,
  recipeId: string,
  id: string = randomUUID(),
): Promise<void> {
  await insert(context, 'recipeUses', { id, ticketId, recipeId, at: context.now, byId: context.actor });
}

/** Suspends a recipe, or puts it back into use: that wants a coupon of its pairing fired and scrubbed since. */
export async function createRecipeState(
  context: Context,
  recipeId: string,
  request: CreateRecipeState,
): Promise<Recipe> {
  await createOnce(context, 'recipe state', request, async () => {
    const recipe = await recipeById(context, recipeId);
    const { state, since } = recipe.state;
    if (state === request.state) throw fault('state', `Recipe v${recipe.number} is ${state} already.`);
    if (state === 'suspended' && !(await checkedSince(context, recipe, new Date(since!))))
      throw new ApiError(
        'wrong-stage',
        'Fire and scrub a check coupon of its pairing first: nothing was seen of it since it drifted.',
      );
    await setState(context, recipeId, request);
  });
  return recipeById(context, recipeId);
}

export async function setState(
  context: Context,
  recipeId: string,
  { id, state, why }: Pick<CreateRecipeState, 'id' | 'why'> & { state: Recipe['state']['state'] },
): Promise<void> {
  await insert(context, 'recipeStates', { id, recipeId, state, why, at: context.now, byId: context.actor });
}

/** Whether a coupon of a pairing was fired since a moment, and scrubbed. */
export async function checkedSince(context: Context, pairing: Pairing, since: Date): Promise<boolean> {
  const coupons = await list(context, 'coupons', { where: pairingOf(pairing), attributes: ['id', 'burntAt'] });
  const fired = coupons.filter(({ burntAt }) => burntAt !== null && burntAt >= since).map(({ id }) => id);
  const staged = await list(context, 'couponStages', { where: { couponId: fired, stage: 'scrubbed' } });
  return staged.length > 0;
}
