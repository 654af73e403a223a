import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { convertUnit } from './convert.js';

describe('units that turn into one another', () => {
  // Exact by definition: inch 25.4 mm, ounce 28.349523125 g (international yard and pound agreement, 1959).
  it.each([
    [1, 'in', 'mm', 25.4],
    [3, 'mil', 'µm', 76.2],
    [1, 'oz', 'g', 28.349523125],
    [1000, 'mm/min', 'mm/s', 1000 / 60],
    [4, 'min', 's', 240],
    [16.2, 'W/(m·K)', 'W/(mm·K)', 0.0162],
    [8000, 'kg/m³', 'g/cm³', 8],
    [1064, 'nm', 'µm', 1.064],
  ])('%d %s is so many %s', (value, from, to, expected) => {
    expect(convertUnit(value, from, to)).toBeCloseTo(expected, 9);
  });

  it('come back the way they went', () => {
    const length = fc.constantFrom('mm', 'cm', 'm', 'in', 'µm', 'mil');
    fc.assert(
      fc.property(fc.double({ min: 0.001, max: 1e4, noNaN: true }), length, length, (value, a, b) => {
        expect(convertUnit(convertUnit(value, a, b), b, a) / value).toBeCloseTo(1, 9);
      }),
    );
  });

  it('come back exactly when they were written out with all their digits', () => {
    const pair = fc.constantFrom(['µm', 'mil'], ['mm', 'in'], ['g', 'oz'], ['mm/s', 'in/s'], ['mm/s', 'mm/min']);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e7 }), pair, (thousandths, [a, b]) => {
        const value = thousandths / 1000;
        expect(convertUnit(convertUnit(value, a!, b!, 17), b!, a!)).toBe(value);
      }),
    );
  });

  it('refuse a unit nobody knows and one of another kind, and say what would do', () => {
    expect(() => convertUnit(1, 'ell', 'mm')).toThrow(/“ell” does not turn into mm\. It can be given in mm, cm, m, in/);
    expect(() => convertUnit(1, 'g', 'mm')).toThrow(/“g” does not turn into mm/);
    expect(() => convertUnit(1, 'g', 'furlong')).toThrow(/does not turn into furlong/);
    expect(convertUnit(7, 'parts', 'parts')).toBe(7);
  });
});
