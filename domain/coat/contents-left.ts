import { decidingOrUsual, decisive, makeFigure, remainingGrams, remainingPieces, type Figure } from '@unto/core';
import type { ContainerBody } from '@unto/contract';
import { usualFactor } from '../kinds/usual-factors.js';

/** Weighings out of a container taken together, corrected ones left out; null where it was never weighed. */
export interface ContainerUse {
  /** As it weighed last, g. */
  readonly nowG: number;
  readonly weighedAt: string;
  /** Mass laid out of it so far, and the area that it coated, margins included. */
  readonly massAppliedG: number;
  readonly areaMm2: number;
  /** Area to coat on one piece of what was coated last. */
  readonly lastPieceMm2: number;
}

/** Contents of a container: grams, and pieces at the mean mass on an area of all weighings out of it. */
export interface ContentsLeft {
  readonly grams: Figure;
  /** Null while nothing was laid out of it. */
  readonly pieces: Figure | null;
  readonly weighedAt: string;
}

/**
 * What is left in a container; null where it was never weighed.
 * @param pieceMm2 area to coat on one of the pieces that are meant, as large as those coated last when not given
 * @throws value.negative
 * @example 150 g left, 60 g laid on 100 000 mm² so far: 50 pieces of 5000 mm², or 25 of twice that
 */
export function contentsLeft(
  shell: Pick<ContainerBody, 'tareG' | 'usual'>,
  use: ContainerUse | null,
  pieceMm2?: number,
): ContentsLeft | null {
  if (!use) return null;
  const { tareG } = shell;
  const factor = usualFactor('container', shell, 'tareG');
  const container = { nowG: use.nowG, tareG };
  /** Of what is worked out with the empty container's weight, between the heaviest and the lightest that it may be. */
  const between = (work: (tareG: number) => number) =>
    factor ? { low: work(tareG * factor), high: work(tareG / factor), level: 0.9 } : undefined;
  const weighed = decisive('newest weighing', 'measured', { value: use.nowG, unit: 'g' });
  const tare = decidingOrUsual('empty container', 'measured', factor, { value: tareG, unit: 'g' });
  const perPieceG = use.areaMm2 > 0 ? (use.massAppliedG / use.areaMm2) * (pieceMm2 ?? use.lastPieceMm2) : 0;
  const grams = makeFigure({
    formula: 'remainingGrams',
    value: remainingGrams(container),
    unit: 'g',
    interval: between((tareG) => remainingGrams({ ...container, tareG })),
    inputs: [weighed, tare],
  });
  if (perPieceG <= 0) return { grams, pieces: null, weighedAt: use.weighedAt };
  const rate = decisive('laid down a piece of this size so far', 'measured', {
    value: Number(perPieceG.toPrecision(3)),
    unit: 'g',
  });
  const pieces = makeFigure({
    formula: 'remainingPieces',
    value: remainingPieces(container, perPieceG),
    unit: 'pieces',
    interval: between((tareG) => remainingPieces({ ...container, tareG }, perPieceG)),
    inputs: [weighed, tare, rate],
  });
  return { grams, pieces, weighedAt: use.weighedAt };
}
