import type { Grade, UsualFactors } from '@unto/core';
import type { InventoryBodyOf } from '@unto/contract';
import type { KindedItem } from './kinds.js';

/**
 * How far what is usual for a kind may be off for the one on this bench: nine times in ten the true value lies between it ÷ and × the
 * factor. Common practice, no source.
 */
const FACTORS: { readonly [K in KindedItem]: UsualFactors<keyof InventoryBodyOf[K] & string> } = {
  machine: { topSpeedMmPerS: 1.6, accelerationMmPerS2: 3, jumpDelayS: 3, laserMinorPerMinute: 2.5 },
  head: { ratedW: 1.2, m2: 1.5 },
  lens: { spotXMm: 1.4, spotYMm: 1.4, depthOfFocusMm: 1.8 },
  compound: {
    ...{ dryFilmMinUm: 1.4, dryFilmMaxUm: 1.4, volumeSolids: 1.6, massSolids: 1.8, dryDensity: 1.4, dryS: 1.5 },
    sizes: 1.6,
  },
  container: { tareG: 1.25, netG: 1.3, priceMinor: 1.6 },
  substrate: { thicknessMm: 1.5 },
  blank: { priceMinor: 3, thicknessMm: 1.5 },
};

interface Kinded {
  readonly usual: readonly string[];
}

/** Factors of those of some fields that stand at what is usual. */
export function usualFactors<K extends KindedItem, F extends keyof InventoryBodyOf[K] & string>(
  kind: K,
  body: Kinded,
  fields: readonly F[],
): Partial<Record<F, number>> {
  const factors = FACTORS[kind] as Partial<Record<F, number>>;
  return Object.fromEntries(
    fields.filter((field) => body.usual.includes(field) && factors[field]).map((field) => [field, factors[field]]),
  ) as Partial<Record<F, number>>;
}

/** The factor of one field; undefined where somebody has said it. */
export function usualFactor<K extends KindedItem>(
  kind: K,
  body: Kinded,
  field: keyof InventoryBodyOf[K] & string,
): number | undefined {
  return usualFactors(kind, body, [field])[field];
}

/** The grade of what a field holds: stated, or no more than usual. */
export function gradeOf<K extends KindedItem>(
  kind: K,
  body: Kinded,
  field: keyof InventoryBodyOf[K] & string,
): Extract<Grade, 'stated' | 'usual'> {
  return usualFactor(kind, body, field) === undefined ? 'stated' : 'usual';
}
