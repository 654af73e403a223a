/** The least and most that a figure in a unit can be on a bench: wider than any machine, narrower than what breaks arithmetic. */
export interface UnitRange {
  /** Least of what must be above 0. */
  readonly least: number;
  /** Most, and the most below 0 where a sign is allowed. */
  readonly most: number;
}

/** Common practice, no source: orders of magnitude beyond the smallest and largest benches. */
const RANGES: Readonly<Record<string, UnitRange>> = {
  mm: { least: 0.001, most: 20_000 },
  µm: { least: 0.001, most: 100_000 },
  nm: { least: 1, most: 20_000 },
  px: { least: 0.001, most: 100_000 },
  'mm/s': { least: 0.001, most: 100_000 },
  'mm/s²': { least: 0.1, most: 1e7 },
  W: { least: 1e-4, most: 100_000 },
  s: { least: 0.001, most: 1e7 },
  min: { least: 0.001, most: 100_000 },
  h: { least: 0.001, most: 100_000 },
  days: { least: 0.001, most: 100_000 },
  kHz: { least: 0.001, most: 1e6 },
  ns: { least: 1e-4, most: 1e10 },
  g: { least: 0.001, most: 1e6 },
  mL: { least: 0.001, most: 1e6 },
  'g/cm³': { least: 0.001, most: 30 },
  'W/(mm·K)': { least: 1e-6, most: 10 },
  'mm²/s': { least: 1e-4, most: 2000 },
  'L*': { least: 1e-6, most: 200 },
  '%': { least: 1e-4, most: 1000 },
  '°': { least: 1e-4, most: 360 },
  'per minute': { least: 0.001, most: 1e6 },
};

/** What has no unit, or one that is not listed. */
const ANY: UnitRange = { least: 1e-6, most: 1e6 };

export const rangeOf = (unit: string): UnitRange => RANGES[unit] ?? ANY;
