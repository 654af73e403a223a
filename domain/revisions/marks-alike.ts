import type { InventoryBodyOf, InventoryKind } from '@unto/contract';

/**
 * Fields that say more of a thing, or what it costs, without changing how it marks: a change of these alone leaves the same thing on the
 * bench. What enters a setting, its watts, its spot, or how the coat is laid and dried is none of them.
 */
const NEUTRAL: Partial<Record<InventoryKind, readonly string[]>> = {
  machine: ['bedWidthMm', 'bedHeightMm', 'accelerationMmPerS2', 'jumpDelayS', 'laserMinorPerMinute'],
  head: ['eyewear'],
  lens: ['spotSource'],
  calibration: [],
  compound: [
    ...[
      'makerClaim',
      'colour',
      'statedBeams',
      'statedFamilies',
      'containsPtfe',
      'solventBased',
      'hazards',
      'dataSheet',
    ],
    ...['leadTimeDays', 'availability', 'help', 'trackRecord', 'sizes', 'cleaning', 'shelfLifeDays', 'potLifeHours'],
    ...['thinnerMinorPerL', 'volumeSolids', 'massSolids', 'dryDensity'],
  ],
  substrate: ['thermalSource', 'density'],
};
const OF_ANY = ['name', 'ofKind', 'usual'];

/** Whether two revisions of one thing mark alike: they differ in nothing but what is neutral. */
export function marksAlike<K extends InventoryKind>(kind: K, a: InventoryBodyOf[K], b: InventoryBodyOf[K]): boolean {
  const neutral = NEUTRAL[kind];
  if (!neutral) return false;
  const [one, other] = [a as unknown as Record<string, unknown>, b as unknown as Record<string, unknown>];
  return [...new Set([...Object.keys(one), ...Object.keys(other)])].every(
    (field) =>
      OF_ANY.includes(field) || neutral.includes(field) || JSON.stringify(one[field]) === JSON.stringify(other[field]),
  );
}
