import { decisive, makeFigure, supporting, type Figure, type RecordRef } from '../evidence/figure.js';
import { saidOrUsual, widened, type UsualFactors } from '../evidence/usual-value.js';
import { CoreError } from '../support/core-error.js';
import { requireNotNegative, requirePositive } from '../support/require.js';
import { filmFromPartMass } from './film.js';
import { transferInput, type TransferKnowledge } from './transfer.js';

/** A container weighed before and after spraying, in g. */
export interface ContainerWeighing {
  readonly beforeG: number;
  readonly afterG: number;
  readonly tareG?: number | null | undefined;
}

/**
 * Mass laid down in g: before − after.
 * @throws weighing.reversed when after exceeds before; weighing.below-tare when either is lighter than the empty container
 */
export function massApplied(weighing: ContainerWeighing): number {
  const { beforeG, afterG, tareG } = weighing;
  requireNotNegative('before', beforeG);
  requireNotNegative('after', afterG);
  if (afterG > beforeG) {
    throw new CoreError(
      'weighing.reversed',
      `The container weighs more after spraying (${afterG} g) than before (${beforeG} g). Were the two swapped?`,
      { path: 'after' },
    );
  }
  if (tareG != null && afterG < tareG) {
    throw new CoreError(
      'weighing.below-tare',
      `${afterG} g is less than the empty container, ${tareG} g. Weigh it again, or mend the tare in Stores.`,
      { path: beforeG < tareG ? 'before' : 'after' },
    );
  }
  return beforeG - afterG;
}

/**
 * Dry film in µm judged from what left the container, with the interval that the transfer efficiency leaves.
 * Graded by the transfer efficiency: measured once that was learnt by weighing, usual before. Learnt with the same solids, their error
 * falls out; a density that is no more than usual widens the interval and holds the grade.
 * @throws as massApplied; value.not-positive when nothing was laid down or no area given
 */
export function filmFromWeighing(
  weighing: ContainerWeighing,
  coat: {
    areaMm2: number;
    dryDensity: number;
    massSolids: number;
    transfer: TransferKnowledge;
    usual?: UsualFactors<'dryDensity' | 'massSolids'>;
    ref?: RecordRef;
  },
): Figure {
  const laid = requirePositive('mass laid down', massApplied(weighing));
  const film = (share: number) =>
    filmFromPartMass(laid * requirePositive('solids by mass', coat.massSolids) * share, coat.areaMm2, coat.dryDensity);
  const { transfer, usual } = coat;
  const solids = transfer.grade === 'measured' ? undefined : usual?.massSolids;
  return makeFigure({
    formula: 'filmFromWeighing',
    value: film(transfer.value),
    unit: 'µm',
    interval: widened(film(transfer.value), { low: film(transfer.low), high: film(transfer.high) }, [
      solids,
      usual?.dryDensity,
    ]),
    inputs: [
      decisive('mass laid down', 'measured', { value: round(laid, 3), unit: 'g', ref: coat.ref }),
      transferInput(transfer),
      saidOrUsual('solids by mass', solids, { value: coat.massSolids }),
      saidOrUsual('dry density', usual?.dryDensity, { value: coat.dryDensity, unit: 'g/cm³' }),
      supporting('coated area', 'measured', { value: round(coat.areaMm2 / 100, 2), unit: 'cm²' }),
    ],
  });
}

function round(value: number, digits: number): number {
  return Number(value.toFixed(digits));
}
