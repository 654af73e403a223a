import { requirePositive } from '../support/require.js';
import type { FilmBand } from './judge-film.js';

/** How a hand was held while coating, as far as it is known. */
export interface SprayTechnique {
  /** Strokes laid on the batch. */
  readonly strokes: number | null;
  readonly distanceMm: number | null;
  readonly distanceMinMm: number;
  readonly distanceMaxMm: number;
}

/** What would bring a film to the middle of its band. */
export interface FilmChange {
  /** Compound to lay, as a multiple of what was laid. */
  readonly factor: number;
  /** Strokes now and then; null when nobody counted, or when whole strokes cannot bring it into the band. */
  readonly strokes: { readonly now: number; readonly then: number } | null;
  /** Distance instead, the same strokes: the fan widens with it, so the film falls as 1/distance; null when out of the compound's range. */
  readonly distanceMm: number | null;
}

/**
 * The change that would bring a dry film (µm) into its band; null when it lies inside.
 * Mass laid goes with the strokes; the film under a fan goes as 1/distance (geometry of a fan of fixed angle).
 * @throws value.not-positive
 * @example filmChange(15, { lowUm: 8, highUm: 12 }, { strokes: 3, distanceMm: 200, distanceMinMm: 150, distanceMaxMm: 250 }).strokes.then // 2
 */
export function filmChange(filmUm: number, band: FilmBand, hand: SprayTechnique): FilmChange | null {
  requirePositive('film', filmUm);
  if (filmUm >= band.lowUm && filmUm <= band.highUm) return null;
  const factor = (band.lowUm + band.highUm) / 2 / filmUm;
  return { factor, strokes: wholeStrokes(filmUm, band, factor, hand.strokes), distanceMm: moved(factor, hand) };
}

function wholeStrokes(filmUm: number, band: FilmBand, factor: number, now: number | null): FilmChange['strokes'] {
  if (now === null) return null;
  const then = Math.max(1, Math.round(now * factor));
  const film = (filmUm * then) / now;
  return then !== now && film >= band.lowUm && film <= band.highUm ? { now, then } : null;
}

function moved(factor: number, hand: SprayTechnique): number | null {
  if (hand.distanceMm === null) return null;
  const then = hand.distanceMm / factor;
  return then >= hand.distanceMinMm && then <= hand.distanceMaxMm ? Math.round(then / 5) * 5 : null;
}
