import { decisive, makeFigure, type Figure, type RecordRef } from '../evidence/figure.js';
import { CoreError } from '../support/core-error.js';
import { requireNotNegative, requirePositive } from '../support/require.js';
import { dryFilm } from './film.js';

/** A wet-film comb set on the fresh coat: the deepest tooth that came out wet and the next one that stayed dry. */
export interface CombReading {
  readonly wettedUm: number;
  readonly dryToothUm: number;
}

/**
 * Dry film in µm behind a comb reading: the wet film lies between the two teeth (ISO 2808 reads a comb so), its dry film is the
 * share of solids of that. Graded by the stated share of solids.
 * @throws comb.reversed when the dry tooth is not the higher one; value.negative, value.not-positive
 * @example 75 µm wetted, 100 µm dry, 30 % solids: 26 µm, between 22.5 and 30
 */
export function filmFromComb(
  reading: CombReading,
  mix: { volumeSolids: number; thinnerRatio: number },
  ref?: RecordRef,
): Figure {
  const wetted = requireNotNegative('wetted tooth', reading.wettedUm);
  const dry = requirePositive('dry tooth', reading.dryToothUm);
  if (dry <= wetted) {
    throw new CoreError('comb.reversed', 'The tooth that stayed dry must be the higher one: were the two swapped?', {
      path: 'dryToothUm',
    });
  }
  const of = (wetUm: number) => dryFilm(Math.max(wetUm, 1e-6), mix);
  return makeFigure({
    formula: 'filmFromComb',
    value: of((wetted + dry) / 2),
    unit: 'µm',
    interval: { low: of(wetted), high: of(dry), level: 0.9 },
    inputs: [
      decisive('teeth', 'measured', { value: `${wetted} wet, ${dry} dry`, unit: 'µm' }),
      decisive('share of solids, thinner counted', 'stated', { value: Number(of(100).toPrecision(3)), unit: '%', ref }),
    ],
  });
}
