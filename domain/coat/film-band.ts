import type { FilmBand } from '@unto/core';
import type { CompoundBody } from '@unto/contract';

/** The dry film a compound wants, as the core takes it. */
export function bandOf({ bandLowUm, bandHighUm }: Pick<CompoundBody, 'bandLowUm' | 'bandHighUm'>): FilmBand {
  return { lowUm: bandLowUm, highUm: bandHighUm };
}
