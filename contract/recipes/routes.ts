import { createRecipe, recipe } from './recipes.js';
import { route } from '../routing/index.js';

export const recipeRoutes = {
  createRecipe: route({
    method: 'post',
    path: '/api/recipes',
    summary: 'Accept a setting as a recipe',
    params: {},
    body: createRecipe,
    answer: recipe,
  }),
} as const;
