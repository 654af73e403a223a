import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom, standardNormal } from '../support/random.js';
import { mean, median, nextValue, sampleVariance, studentT90 } from './index.js';

describe('the median', () => {
  it('is the middle, of an even number the mean of the two in it, whatever the order', () => {
    expect([median([3, 1, 2]), median([3, 1, 2, 10]), median(new Float64Array([5]))]).toEqual([2, 2.5, 5]);
    expect([median([]), median([], 0)]).toEqual([Number.NaN, 0]);
  });

  it('leaves as many values below it as above', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { minLength: 1 }), (values) => {
        const middle = median(values);
        const count = (test: (value: number) => boolean) => values.filter(test).length;
        expect(count((value) => value < middle)).toBeLessThanOrEqual(values.length / 2);
        expect(count((value) => value > middle)).toBeLessThanOrEqual(values.length / 2);
      }),
    );
  });
});

describe('moments of a sample', () => {
  // NIST/SEMATECH e-Handbook, StRD NumAcc1: 10000001, 10000003, 10000002 have mean 10000002 and standard deviation 1.
  it('are those of the certified set NumAcc1', () => {
    const values = [10000001, 10000003, 10000002];
    expect([mean(values), sampleVariance(values)]).toEqual([10000002, 1]);
  });
});

describe('the next value', () => {
  it('of 9, 10, 11 lies within 2.92 · √(4/3) of 10', () => {
    const { mean: middle, reach } = nextValue([9, 10, 11]);
    expect(middle).toBe(10);
    expect(reach).toBeCloseTo(2.92 * Math.sqrt(4 / 3), 9);
  });

  it.each([2, 3, 5, 12])('of %i normal ones is caught nine times in ten', (n) => {
    const random = seededRandom(n);
    let caught = 0;
    for (let i = 0; i < 8000; i += 1) {
      const { mean: middle, reach } = nextValue(Array.from({ length: n }, () => standardNormal(random)));
      if (Math.abs(standardNormal(random) - middle) <= reach) caught += 1;
    }
    expect(caught / 8000).toBeGreaterThan(0.888);
    expect(caught / 8000).toBeLessThan(0.914);
  });

  it('uses the tabled quantiles of Student’s t (standard tables, two-sided 90 %)', () => {
    expect([1, 5, 10].map(studentT90)).toEqual([6.314, 2.015, 1.812]);
    expect(studentT90(30)).toBeCloseTo(1.697, 2);
  });
});
