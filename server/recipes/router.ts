import { recipeRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { recipePage } from './drift.js';
import { createRecipe } from './service.js';
import { createRecipeState, createRecipeUse } from './use.js';

export const recipeRouter = router(recipeRoutes, {
  recipe: (context, { params }) => recipePage(context, params.id),
  createRecipe: (context, { body }) => createRecipe(context, body),
  createRecipeUse: (context, { params, body }) => createRecipeUse(context, params.id, body),
  createRecipeState: (context, { params, body }) => createRecipeState(context, params.id, body),
});
