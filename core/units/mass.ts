import { requireNotNegative } from '../support/require.js';

/** Units a bench scale may show. */
export const MASS_UNITS = ['g', 'oz'] as const;
export type MassUnit = (typeof MASS_UNITS)[number];

/** Grams in an avoirdupois ounce, exact (international yard and pound agreement, 1959). */
export const GRAMS_PER_OUNCE = 28.349523125;

/** Mass in grams, 0 or above. @throws value.not-finite, value.negative @example massToG(1, 'oz') // 28.3495 */
export function massToG(value: number, unit: MassUnit): number {
  requireNotNegative('mass', value);
  return unit === 'oz' ? value * GRAMS_PER_OUNCE : value;
}
