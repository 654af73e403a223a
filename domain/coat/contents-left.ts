import { decisive, makeFigure, remainingGrams, remainingPieces, type Figure } from '@unto/core';
import type { ContainerBody } from '@unto/contract';

/** Weighings out of a container taken together, corrected ones left out; null where it was never weighed. */
export interface ContainerUse {
  /** As it weighed last, g. */
  readonly nowG: number;
  readonly weighedAt: string;
  /** Mass laid and pieces coated out of it so far. */
  readonly massAppliedG: number;
  readonly pieces: number;
}

/** Contents of a container: grams, and pieces at the mean rate of all weighings out of it. */
export interface ContentsLeft {
  readonly grams: Figure;
  /** Null while nothing was laid out of it. */
  readonly pieces: Figure | null;
  readonly weighedAt: string;
}

/** What is left in a container; null where it was never weighed. @throws value.negative */
export function contentsLeft({ tareG }: Pick<ContainerBody, 'tareG'>, use: ContainerUse | null): ContentsLeft | null {
  if (!use) return null;
  const container = { nowG: use.nowG, tareG };
  const weighed = decisive('newest weighing', 'measured', { value: use.nowG, unit: 'g' });
  const tare = decisive('empty container', 'measured', { value: tareG, unit: 'g' });
  const perPieceG = use.pieces > 0 ? use.massAppliedG / use.pieces : 0;
  const grams = makeFigure({
    formula: 'remainingGrams',
    value: remainingGrams(container),
    unit: 'g',
    inputs: [weighed, tare],
  });
  if (perPieceG <= 0) return { grams, pieces: null, weighedAt: use.weighedAt };
  const rate = decisive('laid down a piece so far', 'measured', { value: perPieceG, unit: 'g' });
  const pieces = makeFigure({
    formula: 'remainingPieces',
    value: remainingPieces(container, perPieceG),
    unit: 'pieces',
    inputs: [weighed, tare, rate],
  });
  return { grams, pieces, weighedAt: use.weighedAt };
}
