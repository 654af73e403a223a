import { requireNotNegative, requirePositive, requireWithin } from '../support/require.js';

/** What a job's coat is computed from. */
export interface CoatJob {
  /** Area to be coated on all pieces, margin included; overspray is inside the transfer efficiency. mm² */
  readonly areaMm2: number;
  /** µm */
  readonly dryFilmUm: number;
  /** g/cm³ */
  readonly dryDensity: number;
  /** 0 to 1 */
  readonly transfer: number;
  /** Solids by mass of what leaves the container, 0 to 1, before thinning. */
  readonly massSolids: number;
  /** Parts of thinner per part of compound by volume; 0 for none. */
  readonly thinnerRatio: number;
  /** ρ thinner ÷ ρ compound; used only when thinned. */
  readonly thinnerDensityRatio: number;
}

/**
 * Solids by mass (0 to 1) after thinning by r parts: w_s/(1 + r·ρ_thinner/ρ_compound).
 * @throws value.not-positive, value.out-of-range, value.negative
 * @example thinnedMassSolids(0.18, 1, 0.8) // 0.1
 */
export function thinnedMassSolids(massSolids: number, thinnerRatio: number, thinnerDensityRatio: number): number {
  requireWithin('solids by mass', requirePositive('solids by mass', massSolids), 0, 1);
  requireNotNegative('thinner ratio', thinnerRatio);
  return massSolids / (1 + thinnerRatio * requirePositive('thinner density ratio', thinnerDensityRatio));
}

/**
 * Mass in g that must leave the container (or the cup, when thinned) for a job: A·ρ·DFT/(TE·w_s).
 * @throws value.not-positive, value.out-of-range
 * @example 100 cm² at 10 µm, 2 g/cm³, half reaching the part, 20 % solids: 2 g
 */
export function compoundForJob(job: CoatJob): number {
  const dryG =
    requirePositive('area', job.areaMm2) *
    requirePositive('dry film', job.dryFilmUm) *
    requirePositive('dry density', job.dryDensity) *
    1e-6;
  requireWithin('transfer', requirePositive('transfer', job.transfer), 0, 1);
  return dryG / (job.transfer * thinnedMassSolids(job.massSolids, job.thinnerRatio, job.thinnerDensityRatio));
}
