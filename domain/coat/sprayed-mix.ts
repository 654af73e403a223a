import { thinnedMassSolids, thinnedSolids } from '@unto/core';
import type { CompoundBody } from '@unto/contract';

/** A compound as it leaves the nozzle: with the thinner it is sprayed with here. */
export interface SprayedMix {
  /** Solids by mass of the mix, 0 to 1. */
  readonly massSolids: number;
  /** Solids by volume of the wet film of the mix, 0 to 1. */
  readonly volumeSolids: number;
  /** Share of the mass of the mix that is compound, 0 to 1; the rest is thinner. */
  readonly compoundShare: number;
}

type Thinned = Pick<CompoundBody, 'massSolids' | 'volumeSolids' | 'thinnerRatio' | 'thinnerDensityRatio'>;

/**
 * The mix that is sprayed of a compound. Whatever plans, weighs, prices or compares a coat takes its solids from here, so that thinner
 * counts everywhere or nowhere. A compound used as it is has a compound share of 1.
 * @throws value.not-positive, value.out-of-range, value.negative
 * @example ratio 1, thinner 0.8 times as dense: 18 % solids by mass become 10 %, and 56 % of the mix is compound
 */
export function sprayedMix({ massSolids, volumeSolids, thinnerRatio, thinnerDensityRatio }: Thinned): SprayedMix {
  const thinned = thinnedMassSolids(massSolids, thinnerRatio, thinnerDensityRatio);
  return {
    massSolids: thinned,
    volumeSolids: thinnedSolids(volumeSolids, thinnerRatio),
    compoundShare: thinned / massSolids,
  };
}
