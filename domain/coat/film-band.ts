import type { FilmBand } from '@unto/core';
import type { CompoundBody } from '@unto/contract';

/** The dry film a compound wants, as the core takes it. */
export function bandOf({ dryFilmMinUm, dryFilmMaxUm }: Pick<CompoundBody, 'dryFilmMinUm' | 'dryFilmMaxUm'>): FilmBand {
  return { lowUm: dryFilmMinUm, highUm: dryFilmMaxUm };
}
