import { CoreError } from '../support/core-error.js';
import { requirePositive, requireWithin } from '../support/require.js';
import { evaluateCurve, invertCurve, monotoneCurve, type TablePoint } from './monotone-cubic.js';

/** Scales a machine's panel may show speed on. `dial` is a bare number tied to mm/s by a measured table. */
export const SPEED_UNITS = ['mm/s', 'mm/min', 'in/s', '%', 'dial'] as const;
export type SpeedUnit = (typeof SPEED_UNITS)[number];

/** What a relative speed unit is relative to. */
export interface SpeedScale {
  readonly topSpeedMmPerS?: number | null | undefined;
  /** Rows of (dial number, measured mm/s), rising. */
  readonly dialTable?: readonly TablePoint[] | null | undefined;
}

const MM_PER_S: Partial<Record<SpeedUnit, number>> = { 'mm/s': 1, 'mm/min': 1 / 60, 'in/s': 25.4 };

/**
 * Speed in mm/s, or null where the unit is relative to a figure nobody knows yet (25 % of an unknown top speed).
 * @param value above 0; at most 100 for %
 * @throws value.not-positive, value.out-of-range, unit.unknown
 * @example speedToMmPerS(300, 'mm/min') // 5
 */
export function speedToMmPerS(value: number, unit: SpeedUnit, scale: SpeedScale = {}): number | null {
  requirePositive('speed', value);
  const factor = MM_PER_S[unit];
  if (factor !== undefined) return value * factor;
  if (unit === '%') {
    requireWithin('speed', value, 0, 100);
    return scale.topSpeedMmPerS ? (scale.topSpeedMmPerS * value) / 100 : null;
  }
  if (unit === 'dial') {
    if (!scale.dialTable) return null;
    const curve = monotoneCurve(scale.dialTable, 'dial table');
    const first = curve.points[0]!.x;
    const last = curve.points[curve.points.length - 1]!.x;
    return evaluateCurve(curve, requireWithin('speed', value, first, last));
  }
  throw new CoreError('unit.unknown', `Unknown speed unit “${String(unit)}”.`, { path: 'speed' });
}

/**
 * A speed in mm/s shown on another scale; null where that scale is not known. Inverse of speedToMmPerS.
 * @throws value.not-positive, value.out-of-range, unit.unknown
 */
export function speedFromMmPerS(mmPerS: number, unit: SpeedUnit, scale: SpeedScale = {}): number | null {
  requirePositive('speed', mmPerS);
  const factor = MM_PER_S[unit];
  if (factor !== undefined) return mmPerS / factor;
  if (unit === '%') return scale.topSpeedMmPerS ? (100 * mmPerS) / scale.topSpeedMmPerS : null;
  if (unit === 'dial') {
    return scale.dialTable ? invertCurve(monotoneCurve(scale.dialTable, 'dial table'), mmPerS, 'speed') : null;
  }
  throw new CoreError('unit.unknown', `Unknown speed unit “${String(unit)}”.`, { path: 'speed' });
}
