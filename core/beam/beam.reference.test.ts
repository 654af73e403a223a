import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  arealDose,
  deliveredPower,
  deliveredPowerFigure,
  depthOfFocus,
  dwell,
  equivalentRadius,
  lineEnergy,
  lineOverlap,
  pulseFigures,
  rayleighRange,
  spotDiameter,
  spotOffFocus,
} from './index.js';

// Gaussian beam relations: ISO 11146 terms. Numbers worked out by hand beside each.
describe('spot of a Gaussian beam', () => {
  const wavelengthMm = 0.0106;

  it('10.6 µm, M² 1.2, 50.8 mm lens, 5 mm beam: d = 4·1.2·0.0106·50.8/(π·5) = 0.1645 mm', () => {
    expect(spotDiameter({ wavelengthMm, m2: 1.2, focalLengthMm: 50.8, beamMm: 5 })).toBeCloseTo(0.16455, 4);
  });

  it('has a Rayleigh range of π·0.0823²/(1.2·0.0106) = 1.672 mm', () => {
    const spotMm = spotDiameter({ wavelengthMm, m2: 1.2, focalLengthMm: 50.8, beamMm: 5 });
    expect(rayleighRange({ spotMm, wavelengthMm, m2: 1.2 })).toBeCloseTo(1.672, 3);
  });

  it('grows 5 % at ± 0.320 Rayleigh ranges', () => {
    expect(depthOfFocus({ rayleighMm: 1, growth: 0.05 })).toBeCloseTo(0.32, 3);
    expect(spotOffFocus({ spotMm: 0.1, rayleighMm: 1 }, 0.3202)).toBeCloseTo(0.105, 5);
    expect(spotOffFocus({ spotMm: 0.1, rayleighMm: 1 }, -1)).toBeCloseTo(0.1 * Math.SQRT2, 9);
  });

  it('stands for an elliptical spot by the mean of its axes’ areas', () => {
    expect(equivalentRadius(0.08, 0.1)).toBeCloseTo(Math.sqrt(0.04 * 0.05), 12);
  });
});

describe('dose', () => {
  it('33 % of 30 W at 110 mm/s and 0.025 mm: 9.9/(110·0.025) = 3.60 J/mm²', () => {
    expect(arealDose({ powerW: 9.9, speedMmPerS: 110, intervalMm: 0.025, passes: 1 })).toBeCloseTo(3.6, 9);
  });

  it('7 W at half of 20 in/s and 0.001 in: 7/(254·0.0254) = 1.085 J/mm²', () => {
    expect(arealDose({ powerW: 7, speedMmPerS: 254, intervalMm: 0.0254, passes: 1 })).toBeCloseTo(1.085, 3);
  });

  it('line energy, dwell and overlap', () => {
    expect(lineEnergy(10, 50)).toBe(0.2);
    expect(dwell(0.1, 50)).toBe(0.002);
    expect(lineOverlap(0.025, 0.1)).toBe(0.75);
    expect(lineOverlap(0.2, 0.1)).toBe(-1);
  });

  it('is proportional to power and passes, inverse to speed and interval', () => {
    const number = fc.double({ min: 0.01, max: 1000, noNaN: true });
    fc.assert(
      fc.property(
        number,
        number,
        number,
        fc.integer({ min: 1, max: 20 }),
        (powerW, speedMmPerS, intervalMm, passes) => {
          const one = arealDose({ powerW, speedMmPerS, intervalMm, passes });
          expect(arealDose({ powerW: powerW * 2, speedMmPerS, intervalMm, passes: passes * 3 }) / one).toBeCloseTo(
            6,
            6,
          );
          expect(
            one / arealDose({ powerW, speedMmPerS: speedMmPerS * 2, intervalMm: intervalMm * 2, passes }),
          ).toBeCloseTo(4, 6);
        },
      ),
    );
  });

  it.each(['powerW', 'speedMmPerS', 'intervalMm', 'passes'])('refuses %s of 0', (key) => {
    expect(() => arealDose({ powerW: 1, speedMmPerS: 1, intervalMm: 1, passes: 1, [key]: 0 })).toThrow(/above 0/);
  });
});

describe('pulses', () => {
  it('1500 mm/s at 500 kHz are 3 µm apart', () => {
    expect(pulseFigures({ meanPowerW: 56, frequencyKHz: 500, spotMm: 0.05, speedMmPerS: 1500 }).spacingMm).toBeCloseTo(
      0.003,
      12,
    );
  });

  it('20 W at 100 kHz and 200 ns: 0.2 mJ, 1 kW, 2·2e-4/(π·0.025²) = 0.2037 J/mm²', () => {
    const pulse = pulseFigures({ meanPowerW: 20, frequencyKHz: 100, pulseNs: 200, spotMm: 0.05, speedMmPerS: 1000 });
    expect(pulse.pulseEnergyJ).toBeCloseTo(2e-4, 12);
    expect(pulse.peakPowerW).toBeCloseTo(1000, 6);
    expect(pulse.peakFluenceJPerMm2).toBeCloseTo(0.2037, 4);
    expect(pulse.overlap).toBeCloseTo(1 - 0.01 / 0.05, 9);
  });

  it('has no peak power without a pulse length', () => {
    expect(pulseFigures({ meanPowerW: 1, frequencyKHz: 20, spotMm: 0.03, speedMmPerS: 100 }).peakPowerW).toBeNull();
  });
});

describe('delivered power', () => {
  const calibration = [
    { percent: 7, watts: 1.2 },
    { percent: 50, watts: 27.6 },
    { percent: 100, watts: 50.6 },
  ];

  it('is rated × percent without a table, graded stated', () => {
    expect(deliveredPower(50, { ratedW: 55 })).toBe(27.5);
    expect(deliveredPowerFigure(50, { ratedW: 55 }).grade).toBe('stated');
  });

  it('follows the metered table, graded measured', () => {
    expect(deliveredPower(50, { ratedW: 55, calibration })).toBeCloseTo(27.6, 9);
    expect(deliveredPowerFigure(50, { ratedW: 55, calibration }).grade).toBe('measured');
  });

  it('is zero below the firing threshold and at 0 %', () => {
    expect(deliveredPower(6.9, { ratedW: 55, calibration, firingThresholdPercent: 7 })).toBe(0);
    expect(deliveredPower(0, { ratedW: 55 })).toBe(0);
  });

  it('never falls with percent', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 99, noNaN: true }), (percent) => {
        const source = { ratedW: 55, calibration, firingThresholdPercent: 7 };
        expect(deliveredPower(percent + 1, source)).toBeGreaterThanOrEqual(deliveredPower(percent, source));
      }),
    );
  });

  it('refuses a calibration that falls, and percent beyond 100', () => {
    expect(() =>
      deliveredPower(50, {
        ratedW: 55,
        calibration: [
          { percent: 10, watts: 5 },
          { percent: 20, watts: 4 },
        ],
      }),
    ).toThrow(/falls/);
    expect(() => deliveredPower(101, { ratedW: 55 })).toThrow(/between 0 and 100/);
  });
});
