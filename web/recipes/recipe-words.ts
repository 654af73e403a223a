import type { Recipe } from '@unto/contract';

/** What a recipe was taken for. */
export const RECIPE_WORDS: Record<Recipe['kind'], string> = {
  quickest: 'quickest that holds',
  widest: 'widest margin',
  strongest: 'strongest contrast',
  mix: 'own mix',
  match: 'matched to a piece',
  cheapest: 'cheapest a piece',
  stated: 'as stated',
  'step test': 'found by a step test on this piece',
};
