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

/** Whole pieces that the contents of a container still cover. @throws value.not-positive */
export function remainingPieces(container: { nowG: number; tareG: number }, perPieceG: number): number {
  return Math.max(0, Math.floor((container.nowG - container.tareG) / requirePositive('mass per piece', perPieceG)));
}
