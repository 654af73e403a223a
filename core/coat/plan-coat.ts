import { decisive, makeFigure, supporting, type Figure, type FigureInput, type RecordRef } from '../evidence/figure.js';
import { decidingOrUsual, saidOrUsual, usualInterval, widened, type UsualFactors } from '../evidence/usual-value.js';
import { compoundForJob } from './compound-for-job.js';
import { thinnedSolids, wetFilmFor } from './film.js';
import type { FilmBand } from './judge-film.js';
import { compoundPrice } from './price.js';
import { transferInput, type TransferKnowledge } from './transfer.js';

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
  /** Those of its values that are no more than usual; `band` for its limits, `price` for what the container costs. */
  readonly usual?: UsualFactors<'band' | 'volumeSolids' | 'massSolids' | 'dryDensity' | 'price'> | undefined;
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
  const { band, usual, ref } = compound;
  const dryUm = (band.lowUm + band.highUm) / 2;
  const areaMm2 = job.areaPerPieceMm2 * job.pieces;
  const mass = (transfer: number) => compoundForJob({ ...compound, areaMm2, dryFilmUm: dryUm, transfer });
  const label = decisive('coat band', usual?.band ? 'usual' : 'stated', {
    value: `${band.lowUm}–${band.highUm} µm`,
    ref,
  });
  const share = transferInput(job.transfer);
  // A share that was learnt with these solids makes their error good.
  const massSolids = job.transfer.grade === 'measured' ? undefined : usual?.massSolids;
  const ofCompound = [
    saidOrUsual('solids by mass', massSolids, { value: compound.massSolids, ref }),
    saidOrUsual('dry density', usual?.dryDensity, { value: compound.dryDensity, unit: 'g/cm³', ref }),
  ];
  const grams = mass(job.transfer.value);
  const range = { low: mass(job.transfer.high), high: mass(job.transfer.low) };
  // The mass in the cup is compound and thinner; only the compound is paid for here.
  const paid = grams / (1 + compound.thinnerRatio * compound.thinnerDensityRatio);
  const price = (per: number): Figure => {
    const value = compoundPrice(paid, compound.container) / per / 100;
    const bounds = { low: (value * range.low) / grams, high: (value * range.high) / grams };
    return makeFigure({
      formula: 'compoundPrice',
      value,
      unit: '',
      interval: value > 0 ? widened(value, bounds, [massSolids, usual?.dryDensity, usual?.price]) : undefined,
      inputs: [
        label,
        share,
        ...ofCompound,
        saidOrUsual('container price', usual?.price, { value: compound.container.priceMinor / 100 }),
      ],
    });
  };
  return {
    dry: makeFigure({
      formula: 'dryFilm',
      value: dryUm,
      unit: 'µm',
      interval: { low: band.lowUm, high: band.highUm, level: 0.9 },
      inputs: [label],
    }),
    wet: wetFigure(compound, dryUm, label),
    mass: makeFigure({
      formula: 'compoundForJob',
      value: grams,
      unit: 'g',
      interval: widened(grams, range, [massSolids, usual?.dryDensity]),
      inputs: [
        label,
        share,
        ...ofCompound,
        supporting('area with margin', 'measured', { value: areaMm2 / 100, unit: 'cm²' }),
      ],
    }),
    pricePerPiece: price(job.pieces),
    pricePerCm2: price(areaMm2 / 100),
  };
}

function wetFigure(compound: CoatCompound, dryUm: number, label: FigureInput): Figure {
  const solids = Number(thinnedSolids(compound.volumeSolids, compound.thinnerRatio).toPrecision(3));
  const factor = compound.usual?.volumeSolids;
  const value = wetFilmFor(dryUm, compound);
  return makeFigure({
    formula: 'wetFilmFor',
    value,
    unit: 'µm',
    interval: usualInterval(value, factor),
    inputs: [
      label,
      decidingOrUsual('share of solids, thinner counted', 'stated', factor, { value: solids, ref: compound.ref }),
    ],
  });
}
