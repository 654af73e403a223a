import { uuid } from '../fields/index.js';
import { createRecipe, createRecipeState, createRecipeUse, recipe, recipePage } from './recipes.js';
import { route } from '../routing/index.js';

export const recipeRoutes = {
  recipe: route({
    method: 'get',
    path: '/api/recipes/:id',
    summary: 'A recipe, how its judged runs went, and whether they drift',
    params: { id: uuid() },
    answer: recipePage,
  }),
  createRecipe: route({
    method: 'post',
    path: '/api/recipes',
    summary: 'Accept a setting as a recipe of its pairing',
    params: {},
    body: createRecipe,
    answer: recipe,
    patient: true,
  }),
  createRecipeUse: route({
    method: 'post',
    path: '/api/tickets/:id/recipe-uses',
    summary: 'Take a recipe of its pairing into use on a ticket',
    params: { id: uuid() },
    body: createRecipeUse,
    answer: recipe,
  }),
  createRecipeState: route({
    method: 'post',
    path: '/api/recipes/:id/states',
    summary: 'Suspend a recipe, or put it back into use after a check coupon',
    params: { id: uuid() },
    body: createRecipeState,
    answer: recipe,
  }),
} as const;
