import {
  CoreError,
  decisive,
  filmFromWeighing,
  massApplied,
  makeFigure,
  massToG,
  transferEfficiency,
  type Figure,
  type RecordRef,
  type TransferKnowledge,
} from '@unto/core';
import type { CompoundBody, CreateWeighing, Ticket } from '@unto/contract';
import { usualFactors } from '../kinds/usual-factors.js';
import { coatedAreaMm2 } from './coat-plan.js';
import { sprayedMix } from './sprayed-mix.js';

/** How far the film of a coat stands from its own weighed parts: their scatter on a bench scale (common practice, no source). */
const OWN_PARTS_SPREAD = 0.03;

/** What a weighing says of a coat. */
export interface WeighedCoat {
  readonly beforeG: number;
  readonly afterG: number;
  /** Dry film, µm. */
  readonly film: Figure;
  /** Share of the solids that reached the parts; null where these were not weighed. */
  readonly transfer: Figure | null;
}

/** What a weighing is worked out against. */
export interface WeighingSetup {
  readonly compound: CompoundBody;
  readonly tareG: number;
  readonly ticket: Pick<Ticket, 'markWidthMm' | 'markHeightMm' | 'coatMarginMm'>;
  readonly learnt: TransferKnowledge;
  readonly ref: RecordRef;
}

/**
 * Works a weighing out: the film that what left the container means, solids taken from the mix as it is sprayed, with the transfer that its
 * own parts show or that earlier weighings taught.
 * @throws CoreError with the field's path: weighing.reversed, weighing.below-tare, weighing.nothing-left, weighing.parts-lighter,
 * weighing.more-than-left
 */
export function workOutWeighing(
  request: Pick<CreateWeighing, 'pieces' | 'before' | 'after' | 'partsBefore' | 'partsAfter'>,
  { compound, tareG, ticket, learnt, ref }: WeighingSetup,
): WeighedCoat {
  const beforeG = massToG(request.before.value, request.before.unit);
  const afterG = massToG(request.after.value, request.after.unit);
  const massG = massApplied({ beforeG, afterG, tareG });
  if (massG === 0)
    throw new CoreError('weighing.nothing-left', 'Nothing left the container: both weights are the same.', {
      path: 'after',
    });
  const { massSolids } = sprayedMix(compound);
  const transfer = transferOf(request, massG, massSolids);
  const film = filmFromWeighing(
    { beforeG, afterG, tareG },
    {
      areaMm2: coatedAreaMm2(ticket) * request.pieces,
      dryDensity: compound.dryDensity,
      massSolids,
      transfer: transfer ? ofOwnParts(transfer.value) : learnt,
      usual: usualFactors('compound', compound, ['massSolids', 'dryDensity']),
      ref,
    },
  );
  return { beforeG, afterG, film, transfer };
}

function ofOwnParts(value: number): TransferKnowledge {
  const [low, high] = [value * (1 - OWN_PARTS_SPREAD), value * (1 + OWN_PARTS_SPREAD)];
  return { value, low, high, grade: 'measured', weighings: 1 };
}

function transferOf(
  { partsBefore, partsAfter }: Pick<CreateWeighing, 'partsBefore' | 'partsAfter'>,
  massG: number,
  massSolids: number,
): Figure | null {
  if (!partsBefore || !partsAfter) return null;
  const dryG = massToG(partsAfter.value, partsAfter.unit) - massToG(partsBefore.value, partsBefore.unit);
  if (dryG <= 0)
    throw new CoreError('weighing.parts-lighter', 'The parts weigh no more after drying than before coating.', {
      path: 'partsAfter',
    });
  if (dryG > massG * massSolids)
    throw new CoreError(
      'weighing.more-than-left',
      `${dryG.toFixed(2)} g dry on the parts is more than the ${(massG * massSolids).toFixed(2)} g of solids that left the container.`,
      { path: 'partsAfter' },
    );
  return makeFigure({
    formula: 'transferEfficiency',
    value: transferEfficiency(dryG, massG, massSolids),
    unit: '',
    inputs: [
      decisive('dry mass on the parts', 'measured', { value: Number(dryG.toFixed(3)), unit: 'g' }),
      decisive('mass laid down', 'measured', { value: Number(massG.toFixed(3)), unit: 'g' }),
    ],
  });
}
