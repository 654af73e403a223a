import { decisive, makeFigure, type Figure, type RecordRef } from '../evidence/figure.js';
import { decidingOrUsual, usualInterval } from '../evidence/usual-value.js';
import { requirePositive, requireWithin } from '../support/require.js';
import { evaluateCurve, monotoneCurve } from '../units/monotone-cubic.js';

/** One row of a head's power calibration: what a meter showed at a panel percentage. */
export interface CalibrationRow {
  readonly percent: number;
  readonly watts: number;
}

/** What is needed to say how much power a head delivers. */
export interface PowerSource {
  readonly ratedW: number;
  /** Percent below which a CO2 tube does not fire; 0 where there is no threshold. */
  readonly firingThresholdPercent?: number | undefined;
  readonly calibration?: readonly CalibrationRow[] | undefined;
  /** Where nobody has said the rating: by how much it may be off, see UsualFactors. */
  readonly ratingFactor?: number | undefined;
}

/**
 * Power at the part in W for a panel percentage (0 to 100): monotone cubic through the calibration table
 * (Fritsch & Carlson 1980), held at its end rows outside it, or rated watts × percent without a table.
 * Zero below the firing threshold.
 * @throws value.out-of-range for percent outside 0-100; table.* for a faulty calibration
 * @example deliveredPower(50, { ratedW: 55 }) // 27.5
 */
export function deliveredPower(percent: number, source: PowerSource): number {
  requireWithin('power', percent, 0, 100);
  requirePositive('ratedW', source.ratedW);
  if (percent <= 0 || percent < (source.firingThresholdPercent ?? 0)) return 0;
  if (!source.calibration?.length) return (source.ratedW * percent) / 100;
  return evaluateCurve(calibrationCurve(source.calibration), percent);
}

/** Checks a calibration table and prepares its curve. @throws table.too-short, table.duplicate, table.falls */
export function calibrationCurve(rows: readonly CalibrationRow[]) {
  return monotoneCurve(
    rows.map((row) => ({ x: row.percent, y: row.watts })),
    'calibration',
  );
}

/** deliveredPower as a Figure: measured from a metered table, stated from the rating, usual where nobody has said that. */
export function deliveredPowerFigure(percent: number, source: PowerSource, ref?: RecordRef): Figure {
  const value = deliveredPower(percent, source);
  const { calibration, ratingFactor } = source;
  const draft = { formula: 'deliveredPower', value, unit: 'W' };
  if (calibration?.length)
    return makeFigure({
      ...draft,
      inputs: [decisive('calibration table', 'measured', { value: `${calibration.length} rows`, ref })],
    });
  // At no power at all nothing is uncertain.
  const factor = value > 0 ? ratingFactor : undefined;
  return makeFigure({
    ...draft,
    interval: usualInterval(value, factor),
    inputs: [decidingOrUsual('rated power', 'stated', factor, { value: source.ratedW, unit: 'W', ref })],
  });
}
