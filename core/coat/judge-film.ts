import { requirePositive } from '../support/require.js';
import { CoreError } from '../support/core-error.js';

/** Dry film a compound wants, µm. */
export interface FilmBand {
  readonly lowUm: number;
  readonly highUm: number;
}

export type FilmVerdict = 'thin' | 'right' | 'thick';

/** A verdict on a coat and whether its interval leaves room for another one. */
export interface FilmJudgement {
  readonly verdict: FilmVerdict;
  /** Verdicts that the interval still allows, the stated one included. */
  readonly possible: readonly FilmVerdict[];
}

/**
 * Judges a dry film (µm, with an optional interval) against the compound's band.
 * @throws value.out-of-range for a reversed band
 * @example judgeFilm({ value: 9.4, low: 8.3, high: 10.5 }, { lowUm: 8, highUm: 12 }).verdict // 'right'
 */
export function judgeFilm(film: { value: number; low?: number; high?: number }, band: FilmBand): FilmJudgement {
  requirePositive('band', band.lowUm);
  if (band.highUm <= band.lowUm) {
    throw new CoreError('value.out-of-range', 'The coat band must rise from its thin to its thick end.', {
      path: 'band',
    });
  }
  const of = (um: number): FilmVerdict => (um < band.lowUm ? 'thin' : um > band.highUm ? 'thick' : 'right');
  const order: FilmVerdict[] = ['thin', 'right', 'thick'];
  const first = order.indexOf(of(film.low ?? film.value));
  const last = order.indexOf(of(film.high ?? film.value));
  return { verdict: of(film.value), possible: order.slice(first, last + 1) };
}
