import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  decimalsIn,
  fromCoreUnit,
  QUANTITIES,
  quantityOfUnit,
  toCoreUnit,
  UNIT_WORDS,
  type Quantity,
} from './index.js';

const NAMES = Object.keys(QUANTITIES) as Quantity[];
const SCALE = {
  topSpeedMmPerS: 600,
  ratedW: 75,
  dialTable: [
    { x: 1, y: 4 },
    { x: 5, y: 60 },
    { x: 10, y: 500 },
  ],
};

describe('every quantity', () => {
  it('comes back from every one of its units', () => {
    const unit = fc
      .constantFrom(...NAMES)
      .chain((name) => fc.tuple(fc.constant(name), fc.constantFrom<string>(...QUANTITIES[name].units)));
    fc.assert(
      fc.property(unit, fc.double({ min: 4.1, max: 99, noNaN: true }), ([name, of], value) => {
        const shown = fromCoreUnit(name, value, of, SCALE)!;
        expect(toCoreUnit(name, shown, of, SCALE)! / value).toBeCloseTo(1, 6);
      }),
    );
  });

  it('is counted by the core in a unit of its own list, and every unit has words', () => {
    for (const name of NAMES) expect(QUANTITIES[name].units).toContain(QUANTITIES[name].core);
    const units = NAMES.flatMap((name): string[] => [...QUANTITIES[name].units]);
    expect(units.filter((unit) => !UNIT_WORDS[unit])).toEqual([]);
  });

  // Exact by definition: inch 25.4 mm, ounce 28.349523125 g (international yard and pound agreement, 1959).
  it.each([
    ['film', 25.4, 'mil', 1],
    ['length', 304.8, 'in', 12],
    ['mass', 28.349523125, 'oz', 1],
    ['speed', 508, 'in/s', 20],
    ['speed', 5, 'mm/min', 300],
    ['speed', 150, '%', 25],
    ['power', 85, '0-1000', 850],
    ['power', 70, 'W', 52.5],
    ['interval', 0.0635, 'lines/in', 400],
    ['length', -2.54, 'in', -0.1],
  ] as const)('%s %d reads in %s', (name, core, unit, shown) => {
    expect(fromCoreUnit(name, core, unit, SCALE)).toBeCloseTo(shown, 9);
  });
});

describe('what a unit cannot show', () => {
  it('is null, for the page to fall back to the unit of the core', () => {
    expect(fromCoreUnit('speed', 100, '%')).toBeNull();
    expect(fromCoreUnit('speed', 900, 'dial', SCALE)).toBeNull();
    expect(fromCoreUnit('speed', 0, 'dial', SCALE)).toBeNull();
    expect(fromCoreUnit('speed', 0, 'in/s')).toBe(0);
    expect(fromCoreUnit('power', 50, 'W')).toBeNull();
    expect(fromCoreUnit('power', 110, '0-1000')).toBeNull();
    expect(fromCoreUnit('interval', 0, 'lines/in')).toBeNull();
    expect(toCoreUnit('speed', 25, '%')).toBeNull();
  });

  it('is refused where it is no unit of that quantity, or no number', () => {
    expect(() => toCoreUnit('film', 1, 'oz')).toThrow(/“oz” does not turn into µm/);
    expect(() => toCoreUnit('film', 1, 'constructor')).toThrow(/does not turn into µm/);
    expect(() => fromCoreUnit('length', 1, 'ell')).toThrow(/does not turn into/);
    expect(() => fromCoreUnit('length', Number.NaN, 'in')).toThrow(/length/);
    expect(() => toCoreUnit('speed', 120, '%', SCALE)).toThrow(/between 0 and 100/);
  });
});

describe('decimals', () => {
  it.each([
    ['length', 'mm', 0.01, 2],
    ['length', 'in', 0.01, 3],
    ['length', 'in', 1, 1],
    ['film', 'mil', 0.1, 2],
    ['mass', 'oz', 0.01, 3],
    ['length', 'mm', 10, 0],
  ] as const)('%s in %s from a step of %d', (name, unit, step, decimals) => {
    expect(decimalsIn(name, unit, step)).toBe(decimals);
  });

  it('keep what is rounded within about a step of what it was', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 500, noNaN: true }), fc.constantFrom(1, 0.1, 0.01), (mm, step) => {
        const shown = Number(fromCoreUnit('length', mm, 'in')!.toFixed(decimalsIn('length', 'in', step)));
        expect(Math.abs(shown * 25.4 - mm)).toBeLessThan(1.6 * step);
      }),
    );
  });
});

it('reads a unit of the core as the quantity it usually is', () => {
  expect(quantityOfUnit('mm')).toBe('length');
  expect(quantityOfUnit('µm')).toBe('film');
  expect(quantityOfUnit('kHz')).toBeNull();
});
