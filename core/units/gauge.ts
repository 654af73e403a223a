import { CoreError } from '../support/core-error.js';
import { MM_PER_INCH } from './length.js';

/** Metals whose sheet is sold by gauge number, each with its own table. */
export const GAUGE_METALS = ['stainless', 'steel', 'galvanised', 'aluminium', 'brass', 'copper'] as const;
export type GaugeMetal = (typeof GAUGE_METALS)[number];

/** Manufacturers' Standard Gauge for uncoated sheet steel, inches, from gauge 7. Sources: docs/sources.md. */
const STEEL_FROM_7 = [
  0.1793, 0.1644, 0.1495, 0.1345, 0.1196, 0.1046, 0.0897, 0.0747, 0.0673, 0.0598, 0.0538, 0.0478, 0.0418, 0.0359,
  0.0329, 0.0299, 0.0269, 0.0239, 0.0209, 0.0179, 0.0164, 0.0149, 0.0135, 0.012,
];
/** Galvanised sheet gauge, inches, zinc included, from gauge 8. */
const GALVANISED_FROM_8 = [
  0.1681, 0.1532, 0.1382, 0.1233, 0.1084, 0.0934, 0.0785, 0.071, 0.0635, 0.0575, 0.0516, 0.0456, 0.0396, 0.0366, 0.0336,
  0.0306, 0.0276, 0.0247, 0.0217, 0.0202, 0.0187, 0.0172, 0.0157,
];
/** United States Standard gauge as used for stainless sheet, inches, from gauge 7. */
const STAINLESS_FROM_7 = [
  0.1875, 0.1719, 0.1563, 0.1406, 0.125, 0.1094, 0.0938, 0.0781, 0.0703, 0.0625, 0.0563, 0.05, 0.0438, 0.0375, 0.0344,
  0.0313, 0.0281, 0.025, 0.0219, 0.0188, 0.0172, 0.0156, 0.0141, 0.0125,
];

/**
 * Sheet thickness in mm of a gauge number. The same number means another thickness in another metal, so a metal must be named.
 * @param gauge whole number; 7 to 30 for steels (8 to 30 galvanised), 0 to 40 for aluminium, brass and copper
 * @throws gauge.no-metal, gauge.unknown
 * @example gaugeToMm(24, 'stainless') // 0.635
 */
export function gaugeToMm(gauge: number, metal: GaugeMetal | null | undefined): number {
  if (!metal) {
    throw new CoreError('gauge.no-metal', `Gauge ${gauge} means nothing until the metal is named.`, {
      path: 'metal',
    });
  }
  const inches = Number.isInteger(gauge) ? gaugeInches(gauge, metal) : undefined;
  if (inches === undefined) {
    throw new CoreError('gauge.unknown', `There is no gauge ${gauge} in the ${metal} table.`, { path: 'gauge' });
  }
  return inches * MM_PER_INCH;
}

function gaugeInches(gauge: number, metal: GaugeMetal): number | undefined {
  switch (metal) {
    case 'steel':
      return STEEL_FROM_7[gauge - 7];
    case 'galvanised':
      return GALVANISED_FROM_8[gauge - 8];
    case 'stainless':
      return STAINLESS_FROM_7[gauge - 7];
    default:
      return gauge >= 0 && gauge <= 40 ? brownAndSharpeInches(gauge) : undefined;
  }
}

/** Brown & Sharpe (American Wire Gauge): 39 equal ratios between 0.0050 in at 36 and 0.4600 in at 0000 (ASTM B258). */
function brownAndSharpeInches(gauge: number): number {
  return Math.round(0.005 * 92 ** ((36 - gauge) / 39) * 10000) / 10000;
}
