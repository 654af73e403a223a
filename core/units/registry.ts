import { CoreError } from '../support/core-error.js';
import { requireFinite } from '../support/require.js';
import { convertUnit } from './convert.js';
import { FILM_UNITS, INTERVAL_UNITS, intervalFromMm, intervalToMm, LENGTH_UNITS, type IntervalUnit } from './length.js';
import { MASS_UNITS } from './mass.js';
import { POWER_UNITS, powerFromPercent, powerToPercent, type PowerUnit } from './power.js';
import { SPEED_UNITS, speedFromMmPerS, speedToMmPerS, type SpeedScale, type SpeedUnit } from './speed.js';

/** What can be read in more than one unit: the unit the core counts in, and those a person may choose from. */
export const QUANTITIES = {
  power: { core: '%', units: POWER_UNITS },
  speed: { core: 'mm/s', units: SPEED_UNITS },
  interval: { core: 'mm', units: INTERVAL_UNITS },
  length: { core: 'mm', units: LENGTH_UNITS },
  film: { core: 'µm', units: FILM_UNITS },
  mass: { core: 'g', units: MASS_UNITS },
} as const;
export type Quantity = keyof typeof QUANTITIES;
export type UnitOf<Q extends Quantity> = (typeof QUANTITIES)[Q]['units'][number];
/** A unit for each quantity. */
export type UnitChoice = { readonly [Q in Quantity]: UnitOf<Q> };

/** Speed units that stand without a machine's own scale or need only its top speed; a shop can choose among these. */
export const SHOP_SPEED_UNITS = ['mm/s', 'mm/min', 'in/s', '%'] as const satisfies readonly SpeedUnit[];

/** What a panel's relative numbers are relative to. */
export interface PanelScale extends SpeedScale {
  readonly ratedW?: number | null | undefined;
}

/** Units as a person would say them, one and many; what is missing here is said as it is written. */
export const UNIT_WORDS: Readonly<Record<string, string>> = {
  mm: 'millimetres',
  in: 'inches',
  'lines/in': 'lines per inch',
  'lines/cm': 'lines per centimetre',
  µm: 'micrometres',
  mil: 'thousandths of an inch',
  'mm/s': 'millimetres per second',
  'mm/min': 'millimetres per minute',
  'in/s': 'inches per second',
  '%': 'percent of full scale',
  '0-1000': 'thousandths of full scale',
  dial: 'number on the dial',
  W: 'watts',
  g: 'grams',
  oz: 'ounces',
};

/**
 * A value in the unit the core counts in; null where its unit is relative to something unknown (% of no known top speed).
 * @param value in `unit`; above 0 for power, speed and interval
 * @throws value.*, unit.unknown
 * @example toCoreUnit('film', 0.5, 'mil') // 12.7
 */
export function toCoreUnit(quantity: Quantity, value: number, unit: string, scale: PanelScale = {}): number | null {
  switch (quantity) {
    case 'power':
      return powerToPercent(value, unit as PowerUnit, scale.ratedW);
    case 'speed':
      return speedToMmPerS(value, unit as SpeedUnit, scale);
    case 'interval':
      return intervalToMm(value, unit as IntervalUnit);
    default:
      return convertUnit(value, unit, QUANTITIES[quantity].core);
  }
}

/**
 * A value of the core in another unit; null where that unit's scale is not known or does not reach so far. Inverse of toCoreUnit.
 * @throws value.not-finite, unit.unknown
 * @example fromCoreUnit('length', 50.8, 'in') // 2
 */
export function fromCoreUnit(quantity: Quantity, value: number, unit: string, scale: PanelScale = {}): number | null {
  requireFinite(quantity, value);
  if (unit === QUANTITIES[quantity].core) return value;
  switch (quantity) {
    case 'power':
      return value < 0 || value > 100 ? null : powerFromPercent(value, unit as PowerUnit, scale.ratedW);
    case 'speed':
      return value > 0 ? speedOrNull(value, unit as SpeedUnit, scale) : convertOrNull(value, quantity, unit);
    case 'interval':
      return value > 0 ? intervalFromMm(value, unit as IntervalUnit) : null;
    default:
      return convertUnit(value, QUANTITIES[quantity].core, unit);
  }
}

/** A speed that lies off a dial's table has no number on that dial. */
function speedOrNull(value: number, unit: SpeedUnit, scale: PanelScale): number | null {
  try {
    return speedFromMmPerS(value, unit, scale);
  } catch (error) {
    if (error instanceof CoreError && error.code === 'value.out-of-range') return null;
    throw error;
  }
}

/** No speed is nought in every unit. */
function convertOrNull(value: number, quantity: Quantity, unit: string): number | null {
  return unit === '%' || unit === 'dial' ? null : convertUnit(value, QUANTITIES[quantity].core, unit);
}

/**
 * Decimals that show in `unit` about what a step of `coreStep` shows in the core's own: 0.01 mm is 3 decimals of an inch.
 * @param coreStep above 0, in the unit of the core
 * @throws unit.unknown
 * @example decimalsIn('film', 'mil', 0.1) // 2
 */
export function decimalsIn(quantity: 'length' | 'film' | 'mass', unit: string, coreStep: number): number {
  const step = convertUnit(coreStep, QUANTITIES[quantity].core, unit);
  return Math.max(0, Math.round(-Math.log10(step)));
}

/** The quantity that a unit of the core is read as where nothing says more: mm are lengths, µm films. */
export function quantityOfUnit(unit: string): Quantity | null {
  const plain: Readonly<Record<string, Quantity>> = { 'mm/s': 'speed', mm: 'length', µm: 'film', g: 'mass' };
  return plain[unit] ?? null;
}

/** The units somebody reads in, and what a panel's numbers are relative to. */
export interface UnitReading {
  readonly units: UnitChoice;
  readonly scale: PanelScale;
}

/** As the core counts. */
export const CORE_READING: UnitReading = {
  units: { power: '%', speed: 'mm/s', interval: 'mm', length: 'mm', film: 'µm', mass: 'g' },
  scale: {},
};

/** A value of the core as it reads in chosen units; in the core's own where the chosen one cannot show it. */
export function readIn(
  { units, scale }: UnitReading,
  quantity: Quantity,
  value: number,
): { readonly value: number; readonly unit: string } {
  const shown = Number.isFinite(value) ? fromCoreUnit(quantity, value, units[quantity], scale) : null;
  return shown === null ? { value, unit: QUANTITIES[quantity].core } : { value: shown, unit: units[quantity] };
}

/** A unit by its own name, as over a column or along an axis. */
export const unitName = (unit: string): string => (unit === '0-1000' ? 'of 1000' : unit);

/**
 * A unit as it is written behind a number. Percent of full power and percent of top speed stand side by side on some panels: then each
 * says what it is of.
 */
export function unitBehind({ units, scale }: UnitReading, quantity: Quantity, unit: string): string {
  if (unit === 'dial') return 'on the dial';
  if (unit !== '%') return unitName(unit);
  const both = units.speed === '%' && Boolean(scale.topSpeedMmPerS);
  return quantity === 'speed' ? '% speed' : both ? '% power' : '%';
}

/** A value of the core with its unit as it reads here, to four significant digits. */
export function writtenIn(reading: UnitReading, quantity: Quantity, value: number): string {
  const shown = readIn(reading, quantity, value);
  return `${Number(shown.value.toPrecision(4))} ${unitBehind(reading, quantity, shown.unit)}`;
}

/** Units of a quantity that can be used where only so much of a panel's scale is known. */
export function usableUnits(quantity: Quantity, scale: PanelScale): readonly string[] {
  const unknown = [
    ...(quantity === 'speed' && !scale.topSpeedMmPerS ? ['%'] : []),
    ...(quantity === 'speed' && !scale.dialTable ? ['dial'] : []),
    ...(quantity === 'power' && !scale.ratedW ? ['W'] : []),
  ];
  return QUANTITIES[quantity].units.filter((unit) => !unknown.includes(unit));
}
