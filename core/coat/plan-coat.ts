import { decisive, makeFigure, supporting, type Figure, type RecordRef } from '../evidence/figure.js';
import { compoundForJob } from './compound-for-job.js';
import { thinnedSolids, wetFilmFor } from './film.js';
import type { FilmBand } from './judge-film.js';
import { compoundPrice } from './price.js';
import type { TransferKnowledge } from './transfer.js';

/** What a compound's record says that a coat is planned from. */
export interface CoatCompound {
  readonly band: FilmBand;
  readonly volumeSolids: number;
  readonly massSolids: number;
  readonly dryDensity: number;
  readonly thinnerRatio: number;
  readonly thinnerDensityRatio: number;
  /** The container the price is taken from. */
  readonly container: { readonly priceMinor: number; readonly netG: number };
  readonly ref?: RecordRef | undefined;
}

/** A coat for a number of pieces. Money in minor units, not rounded. */
export interface CoatPlan {
  readonly dry: Figure;
  readonly wet: Figure;
  readonly mass: Figure;
  readonly pricePerPiece: Figure;
  readonly pricePerCm2: Figure;
}

/**
 * Plans a coat to the middle of the compound's band: films in µm, mass in g leaving the container for all pieces, prices.
 * @param job area to coat on one piece in mm², margin included; pieces, 1 or more
 * @throws value.not-positive, value.out-of-range
 */
export function planCoat(
  compound: CoatCompound,
  job: { areaPerPieceMm2: number; pieces: number; transfer: TransferKnowledge },
): CoatPlan {
  const { band, ref } = compound;
  const dryUm = (band.lowUm + band.highUm) / 2;
  const mass = (transfer: number) =>
    compoundForJob({ ...compound, areaMm2: job.areaPerPieceMm2 * job.pieces, dryFilmUm: dryUm, transfer });
  const label = decisive('coat band', 'stated', { value: `${band.lowUm}–${band.highUm} µm`, ref });
  const share = decisive('share reaching the part', job.transfer.grade, {
    value: Number(job.transfer.value.toPrecision(3)),
  });
  const grams = mass(job.transfer.value);
  // The mass in the cup is compound and thinner; only the compound is paid for here.
  const paid = grams / (1 + compound.thinnerRatio * compound.thinnerDensityRatio);
  const price = compoundPrice(paid, compound.container);
  const priced = [
    label,
    share,
    supporting('container price', 'stated', { value: compound.container.priceMinor / 100 }),
  ];
  const solids = thinnedSolids(compound.volumeSolids, compound.thinnerRatio);
  return {
    dry: makeFigure({
      formula: 'dryFilm',
      value: dryUm,
      unit: 'µm',
      interval: { low: band.lowUm, high: band.highUm, level: 0.9 },
      inputs: [label],
    }),
    wet: makeFigure({
      formula: 'wetFilmFor',
      value: wetFilmFor(dryUm, compound),
      unit: 'µm',
      inputs: [
        label,
        decisive('share of solids, thinner counted', 'stated', { value: Number(solids.toPrecision(3)), ref }),
      ],
    }),
    mass: makeFigure({
      formula: 'compoundForJob',
      value: grams,
      unit: 'g',
      interval: { low: mass(job.transfer.high), high: mass(job.transfer.low), level: 0.9 },
      inputs: [
        label,
        share,
        supporting('area with margin', 'measured', { value: (job.areaPerPieceMm2 * job.pieces) / 100, unit: 'cm²' }),
      ],
    }),
    pricePerPiece: makeFigure({ formula: 'compoundPrice', value: price / job.pieces / 100, unit: '', inputs: priced }),
    pricePerCm2: makeFigure({
      formula: 'compoundPrice',
      value: price / ((job.areaPerPieceMm2 * job.pieces) / 100) / 100,
      unit: '',
      inputs: priced,
    }),
  };
}
