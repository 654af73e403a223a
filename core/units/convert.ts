import { CoreError } from '../support/core-error.js';
import { requireFinite } from '../support/require.js';
import { MM_PER_INCH } from './length.js';
import { GRAMS_PER_OUNCE } from './mass.js';

/** Units that turn into one another by a factor, each group in terms of its first. */
const DIMENSIONS: readonly Readonly<Record<string, number>>[] = [
  { mm: 1, cm: 10, m: 1000, in: MM_PER_INCH, µm: 0.001, um: 0.001, mil: MM_PER_INCH / 1000, nm: 1e-6 },
  { 'mm/s': 1, 'mm/min': 1 / 60, 'in/s': MM_PER_INCH, 'in/min': MM_PER_INCH / 60 },
  { g: 1, kg: 1000, oz: GRAMS_PER_OUNCE },
  { s: 1, min: 60, h: 3600, days: 86_400 },
  { W: 1, mW: 0.001, kW: 1000 },
  { kHz: 1, Hz: 0.001 },
  { ns: 1, µs: 1000, us: 1000 },
  { 'g/cm³': 1, 'g/cm3': 1, 'kg/m³': 0.001, 'kg/m3': 0.001 },
  { 'W/(mm·K)': 1, 'W/(m·K)': 0.001, 'W/mK': 0.001 },
  { 'mm²/s': 1, 'm²/s': 1e6 },
  { 'mm/s²': 1, 'm/s²': 1000 },
];

/**
 * A value in another unit of the same dimension.
 * @param digits that are kept, 1 to 17; what is written out with 17 comes back unchanged when it is read with the usual 12
 * @throws unit.unknown when the two do not belong together or one is not known
 * @example convertUnit(0.047, 'in', 'mm') // 1.1938
 */
export function convertUnit(value: number, from: string, to: string, digits = 12): number {
  requireFinite('value', value);
  if (from === to) return value;
  const group = DIMENSIONS.find((units) => Object.hasOwn(units, to));
  const factor = (unit: string) => (group && Object.hasOwn(group, unit) ? group[unit] : undefined);
  const [a, b] = [factor(from), factor(to)];
  if (a === undefined || b === undefined) {
    const known = group ? ` It can be given in ${Object.keys(group).join(', ')}.` : '';
    throw new CoreError('unit.unknown', `“${from}” does not turn into ${to}.${known}`);
  }
  return Number(((value * a) / b).toPrecision(digits));
}
