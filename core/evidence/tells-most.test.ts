import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decisive, makeFigure, saidOrUsual, tellsMost, widened } from './index.js';

describe('an interval of a product', () => {
  it('adds squares of logarithms: two factors of 2 make 2^√2', () => {
    const wide = widened(10, { low: 10, high: 10 }, [2, 2]);
    expect(wide.high / 10).toBeCloseTo(2 ** Math.SQRT2, 9);
    expect(10 / wide.low).toBeCloseTo(2 ** Math.SQRT2, 9);
    expect(widened(10, { low: 5, high: 20 }, [])).toEqual({ low: 5, high: 20, level: 0.9 });
  });

  it('is never narrower for one factor more', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 1e4, noNaN: true }),
        fc.array(fc.double({ min: 1.01, max: 5, noNaN: true }), { minLength: 1, maxLength: 4 }),
        (value, factors) => {
          const bounds = { low: value / 1.2, high: value * 1.3 };
          const [fewer, more] = [widened(value, bounds, factors.slice(1)), widened(value, bounds, factors)];
          expect(more.low).toBeLessThan(fewer.low);
          expect(more.high).toBeGreaterThan(fewer.high);
        },
      ),
    );
  });
});

describe('the measurement that tells most', () => {
  const figure = (factors: Record<string, number>, settled: readonly string[] = []) =>
    makeFigure({
      formula: 'compoundForJob',
      value: 1,
      unit: 'g',
      interval: widened(1, { low: 1, high: 1 }, Object.values(factors)),
      inputs: [
        ...Object.entries(factors).map(([label, factor]) => saidOrUsual(label, factor)),
        ...settled.map((label) => decisive(label, 'measured')),
      ],
    });

  it('is the one that leaves the narrowest interval', () => {
    const found = tellsMost(figure({ 'solids by mass': 1.8, 'dry density': 1.3 }))!;
    expect(found.label).toBe('solids by mass');
    expect(found.interval.high).toBeCloseTo(1.3, 9);
  });

  it('counts what the same measurement settles as well', () => {
    const found = tellsMost(figure({ 'solids by mass': 1.5, 'share reaching the part': 1.4, 'dry density': 1.45 }))!;
    expect(found.label).toBe('share reaching the part');
    expect(found.interval.high).toBeCloseTo(1.45, 9);
  });

  it('is none where nothing is only usual, or hardly anything would be gained', () => {
    expect(tellsMost(figure({}, ['share reaching the part']))).toBeNull();
    expect(tellsMost(makeFigure({ formula: 'arealDose', value: 1, unit: '', inputs: [] }))).toBeNull();
    expect(tellsMost({ ...figure({ 'dry density': 1.05 }), interval: { low: 0.2, high: 5, level: 0.9 } })).toBeNull();
  });
});
