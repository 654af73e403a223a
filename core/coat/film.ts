import { requireNotNegative, requirePositive, requireWithin } from '../support/require.js';

/**
 * Share of the wet film that stays as solids after thinning: VS₀/(1+r).
 * @param volumeSolids 0 < VS₀ ≤ 1, of the compound as supplied @param thinnerRatio r, parts thinner per part compound, 0 or more
 * @throws value.not-positive, value.out-of-range, value.negative
 */
export function thinnedSolids(volumeSolids: number, thinnerRatio: number): number {
  requireWithin('volume solids', requirePositive('volume solids', volumeSolids), 0, 1);
  return volumeSolids / (1 + requireNotNegative('thinner ratio', thinnerRatio));
}

/**
 * Dry film in µm of a wet film in µm: DFT = WFT · VS. Source: coatings practice, the definition of volume solids (ISO 3233).
 * @throws value.not-positive, value.out-of-range
 * @example dryFilm(76.2, { volumeSolids: 0.3, thinnerRatio: 0 }) // 22.86
 */
export function dryFilm(wetUm: number, mix: { volumeSolids: number; thinnerRatio: number }): number {
  return requirePositive('wet film', wetUm) * thinnedSolids(mix.volumeSolids, mix.thinnerRatio);
}

/**
 * Wet film in µm to lay for a dry film in µm, above 0. Inverse of dryFilm.
 * @throws value.not-positive, value.out-of-range, value.negative
 * @example wetFilmFor(22.86, { volumeSolids: 0.3, thinnerRatio: 0 }) // 76.2
 */
export function wetFilmFor(dryUm: number, mix: { volumeSolids: number; thinnerRatio: number }): number {
  return requirePositive('dry film', dryUm) / thinnedSolids(mix.volumeSolids, mix.thinnerRatio);
}

/**
 * Area in m² that a litre covers at a wet film in µm: 1000/WFT.
 * @throws value.not-positive @example spreadingRate(76.2) // 13.12
 */
export function spreadingRate(wetUm: number): number {
  return 1000 / requirePositive('wet film', wetUm);
}

/**
 * Dry film in µm of a dry mass spread over an area: mass/(ρ·A). 1 g/cm³ is 1 mg/mm³.
 * @param dryMassG g @param areaMm2 mm² @param dryDensity g/cm³
 * @throws value.negative, value.not-positive
 */
export function filmFromPartMass(dryMassG: number, areaMm2: number, dryDensity: number): number {
  requireNotNegative('dry mass', dryMassG);
  return (dryMassG * 1e6) / (requirePositive('area', areaMm2) * requirePositive('dry density', dryDensity));
}
