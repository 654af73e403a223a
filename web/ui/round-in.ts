import { readIn, toCoreUnit, type Quantity, type UnitReading } from '@unto/core';

/** A value of the core that is a round one, two digits, as the panel counts. */
export function roundIn(reading: UnitReading | null, quantity: Quantity, value: number): number {
  if (!reading) return Number(value.toPrecision(2));
  const shown = readIn(reading, quantity, value);
  const round = Number(shown.value.toPrecision(2));
  return toCoreUnit(quantity, round, reading.units[quantity], reading.scale) ?? Number(value.toPrecision(2));
}
