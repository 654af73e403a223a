import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heatIndex, speedExponent, thinSheetFactor } from './index.js';

const STAINLESS = { conductivity: 0.0162, diffusivity: 4.05 };
const COPPER = { conductivity: 0.398, diffusivity: 117 };
const spot = { powerW: 1, radiusMm: 0.1 };

// Cline & Anthony 1977, "Heat treating and melting material with a scanning laser or electron beam", J. Appl. Phys. 48,
// written for the 1/e² radius. The moving values were reproduced by an independent quadrature; from memory otherwise.
describe('heat index of a moving Gaussian spot', () => {
  it('at rest is exactly P/(√(2π) k w)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 2, noNaN: true }),
        fc.double({ min: 0.0005, max: 0.5, noNaN: true }),
        (radiusMm, conductivity) => {
          const exact = 1 / (Math.sqrt(2 * Math.PI) * conductivity * radiusMm);
          expect(heatIndex({ powerW: 1, radiusMm, conductivity, diffusivity: 3, speedMmPerS: 0 }) / exact).toBeCloseTo(
            1,
            9,
          );
        },
      ),
    );
  });

  it.each([
    ['stainless at rest', STAINLESS, 0, 246.3],
    ['stainless at 150 mm/s', STAINLESS, 150, 157.5],
    ['stainless at 1000 mm/s', STAINLESS, 1000, 76.3],
    ['copper at rest', COPPER, 0, 10.02],
    ['copper at 150 mm/s', COPPER, 150, 9.78],
  ])('%s', (_name, metal, speedMmPerS, expected) => {
    const index = heatIndex({ ...spot, ...metal, speedMmPerS });
    expect(Math.abs(index / expected - 1)).toBeLessThan(1e-3);
  });

  it('falls as v^(−1/2) at high speed', () => {
    const at = (speedMmPerS: number) => heatIndex({ ...spot, ...STAINLESS, speedMmPerS });
    expect(at(40_000) / at(160_000)).toBeCloseTo(2, 2);
    expect(speedExponent({ ...spot, ...STAINLESS, speedMmPerS: 100_000 })).toBeCloseTo(0.5, 2);
  });

  it('hardly cares for speed on copper, and does on stainless and glass', () => {
    expect(speedExponent({ ...spot, ...COPPER, speedMmPerS: 150 })).toBeLessThan(0.05);
    expect(speedExponent({ ...spot, ...STAINLESS, speedMmPerS: 150 })).toBeGreaterThan(0.2);
    expect(speedExponent({ ...spot, conductivity: 0.001, diffusivity: 0.5, speedMmPerS: 150 })).toBeGreaterThan(0.35);
  });

  it('agrees with a plain fine quadrature over its own integral', () => {
    // Midpoint rule, 40 000 panels, x searched on a fine grid: slow and independent of the graded panels.
    const { radiusMm: w } = spot;
    const { conductivity: k, diffusivity: alpha } = STAINLESS;
    const v = 300;
    const integral = (x: number) => {
      const n = 40_000;
      let sum = 0;
      for (let i = 0; i < n; i += 1) {
        const u = Math.tan(((i + 0.5) / n) * (Math.PI / 2));
        const t = (u * u * w * w) / (8 * alpha);
        sum += Math.exp((-2 * (x + v * t) ** 2) / (w * w * (1 + u * u)));
      }
      return (sum * Math.PI) / 2 / n;
    };
    let best = 0;
    for (let x = -0.1; x <= 0; x += 0.0025) best = Math.max(best, integral(x));
    const slow = ((Math.SQRT2 * 1) / (Math.PI ** 1.5 * k * w)) * best;
    expect(Math.abs(heatIndex({ ...spot, ...STAINLESS, speedMmPerS: v }) / slow - 1)).toBeLessThan(2e-4);
  });

  it('is proportional to power and never rises with speed', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 5000, noNaN: true }),
        fc.double({ min: 0.1, max: 100, noNaN: true }),
        (speedMmPerS, powerW) => {
          const one = heatIndex({ ...spot, ...STAINLESS, speedMmPerS });
          expect(heatIndex({ ...spot, ...STAINLESS, speedMmPerS, powerW }) / one).toBeCloseTo(powerW, 6);
          expect(heatIndex({ ...spot, ...STAINLESS, speedMmPerS: speedMmPerS * 1.2 })).toBeLessThanOrEqual(one);
        },
      ),
    );
  });

  it('refuses a radius of 0', () => {
    expect(() => heatIndex({ ...STAINLESS, powerW: 1, radiusMm: 0, speedMmPerS: 1 })).toThrow(
      /radiusMm must be above 0/,
    );
  });
});

describe('thin sheet', () => {
  it('counts nothing for a thick sheet and grows as the sheet thins', () => {
    const factor = (thicknessMm: number) =>
      thinSheetFactor({ ...spot, ...STAINLESS, speedMmPerS: 20 }, { thicknessMm, historyS: 1 });
    expect(factor(10)).toBeCloseTo(1, 9);
    expect(factor(0.2)).toBeGreaterThan(factor(0.4));
    expect(factor(0.05)).toBeGreaterThan(1.1);
  });

  it('more than doubles the rise when the sheet is far thinner than the heat has spread', () => {
    // Images of the source in both faces (Carslaw & Jaeger 1959, §10.2): a sheet of 5 µm cannot carry heat away downwards.
    const factor = thinSheetFactor({ ...spot, ...STAINLESS, speedMmPerS: 0 }, { thicknessMm: 0.005, historyS: 0.0001 });
    expect(factor).toBeGreaterThan(2);
  });
});
