import { CoreError } from '../support/core-error.js';
import { requirePositive, requireWithin } from '../support/require.js';

/** Scales a machine's panel may show power on: percent, 0-1000, or watts. */
export const POWER_UNITS = ['%', '0-1000', 'W'] as const;
export type PowerUnit = (typeof POWER_UNITS)[number];

/**
 * Power as percent of the head's full scale; null for watts when the rating is not known.
 * @param value above 0; at most 100 %, 1000, or the rating
 * @throws value.not-positive, value.out-of-range, unit.unknown
 * @example powerToPercent(850, '0-1000') // 85
 */
export function powerToPercent(value: number, unit: PowerUnit, ratedW?: number | null): number | null {
  requirePositive('power', value);
  switch (unit) {
    case '%':
      return requireWithin('power', value, 0, 100);
    case '0-1000':
      return requireWithin('power', value, 0, 1000) / 10;
    case 'W':
      return ratedW ? (100 * requireWithin('power', value, 0, ratedW)) / ratedW : null;
    default:
      throw new CoreError('unit.unknown', `Unknown power unit “${String(unit)}”.`, { path: 'power' });
  }
}

/**
 * Percent of full scale (0 to 100) shown on another scale; null for watts when the rating is not known.
 * @throws value.out-of-range, unit.unknown
 * @example powerFromPercent(85, '0-1000') // 850
 */
export function powerFromPercent(percent: number, unit: PowerUnit, ratedW?: number | null): number | null {
  requireWithin('power', percent, 0, 100);
  switch (unit) {
    case '%':
      return percent;
    case '0-1000':
      return percent * 10;
    case 'W':
      return ratedW ? (ratedW * percent) / 100 : null;
    default:
      throw new CoreError('unit.unknown', `Unknown power unit “${String(unit)}”.`, { path: 'power' });
  }
}
