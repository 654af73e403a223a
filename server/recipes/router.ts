import { recipeRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { createRecipe } from './service.js';

export const recipeRouter = router(recipeRoutes, { createRecipe: (context, { body }) => createRecipe(context, body) });
