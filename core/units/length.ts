import { CoreError } from '../support/core-error.js';
import { requirePositive } from '../support/require.js';

/** Ways of stating the distance between hatch lines. Lines per length are its reciprocal. */
export const INTERVAL_UNITS = ['mm', 'in', 'lines/in', 'lines/cm'] as const;
export type IntervalUnit = (typeof INTERVAL_UNITS)[number];

/** Film thickness units; 1 mil is a thousandth of an inch, exactly 25.4 µm. */
export const FILM_UNITS = ['µm', 'mil'] as const;
export type FilmUnit = (typeof FILM_UNITS)[number];

/** Lengths of parts and stock. */
export const LENGTH_UNITS = ['mm', 'in'] as const;
export type LengthUnit = (typeof LENGTH_UNITS)[number];

/** Millimetres in an inch, exact (international yard and pound agreement, 1959). */
export const MM_PER_INCH = 25.4;

/**
 * Line interval in mm.
 * @param value above 0, in `unit`
 * @throws value.not-positive, unit.unknown
 * @example intervalToMm(340, 'lines/in') // 0.0747
 */
export function intervalToMm(value: number, unit: IntervalUnit): number {
  requirePositive('interval', value);
  if (unit === 'mm') return value;
  if (unit === 'in') return value * MM_PER_INCH;
  if (unit === 'lines/in') return MM_PER_INCH / value;
  if (unit === 'lines/cm') return 10 / value;
  throw new CoreError('unit.unknown', `Unknown interval unit “${String(unit)}”.`, { path: 'interval' });
}

/**
 * A line interval in mm, above 0, shown in another unit. Inverse of intervalToMm.
 * @throws value.not-positive, unit.unknown
 * @example intervalFromMm(0.0635, 'lines/in') // 400
 */
export function intervalFromMm(mm: number, unit: IntervalUnit): number {
  requirePositive('interval', mm);
  // Lines per length are their own inverse.
  return unit === 'in' ? mm / MM_PER_INCH : intervalToMm(mm, unit);
}
