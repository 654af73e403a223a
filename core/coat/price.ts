import { requireNotNegative, requirePositive } from '../support/require.js';

/**
 * Price in minor units (not rounded) of a mass of compound out of a container.
 * @param massG g used @param container price in minor units and net contents in g
 * @throws value.negative, value.not-positive
 */
export function compoundPrice(massG: number, container: { priceMinor: number; netG: number }): number {
  requireNotNegative('mass', massG);
  return (massG * requireNotNegative('price', container.priceMinor)) / requirePositive('net contents', container.netG);
}

/** Contents left in g at the newest weighing; never below 0. @throws value.negative */
export function remainingGrams(container: { nowG: number; tareG: number }): number {
  return Math.max(
    0,
    requireNotNegative('weight', container.nowG) - requireNotNegative('empty container', container.tareG),
  );
}

/** Whole pieces that the contents of a container still cover. @throws value.not-positive */
export function remainingPieces(container: { nowG: number; tareG: number }, perPieceG: number): number {
  return Math.floor(remainingGrams(container) / requirePositive('mass per piece', perPieceG));
}
