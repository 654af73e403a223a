import { describe, expect, it } from 'vitest';
import { depthOfFocus, spotOffFocus } from '@unto/core';
import {
  couponEquipment,
  couponLimits,
  rayleighOf,
  rowMotion,
  settingJob,
  windowEquipment,
  type FittedEquipment,
} from './fitted-equipment.js';

describe('a fitted bench', () => {
  const equipment = {
    machine: {
      motion: 'gantry',
      topSpeedMmPerS: 600,
      accelerationMmPerS2: 5000,
      bedWidthMm: 700,
      bedHeightMm: 500,
      jumpDelayS: 0,
    },
    head: { ratedW: 55, firingThresholdPercent: 7, usual: [] },
    lens: { spotXMm: 0.08, spotYMm: 0.1, depthOfFocusMm: 0.53, depthGrowth: 0.05, usual: [] },
    substrate: { conductivity: 0.0162, diffusivity: 4.05 },
    calibration: null,
  } as unknown as FittedEquipment;

  it('turns a stated depth of focus into the Rayleigh range that gives it back', () => {
    const rayleighMm = rayleighOf(equipment.lens);
    expect(depthOfFocus({ rayleighMm, growth: 0.05 })).toBeCloseTo(0.53, 9);
    expect(spotOffFocus({ spotMm: 0.1, rayleighMm }, 0.53)).toBeCloseTo(0.105, 9);
  });

  it('hands the core what it wants', () => {
    expect(couponLimits(equipment)).toEqual({
      bed: { widthMm: 700, heightMm: 500 },
      topSpeedMmPerS: 600,
      firingThresholdPercent: 7,
    });
    expect(windowEquipment(equipment).radiusMm).toBeCloseTo(Math.sqrt(0.04 * 0.05), 12);
    expect(couponEquipment(equipment).power).toMatchObject({ ratedW: 55 });
    expect(rowMotion({ ...equipment.machine, motion: 'galvo', jumpDelayS: 0.0004 })).toEqual({
      kind: 'galvo',
      jumpMmPerS: 600,
      delayS: 0.0004,
    });
    const job = settingJob(
      equipment,
      { widthMm: 38, heightMm: 22 },
      { bound: 0.8, tolerancePower: 0.05, toleranceFocusMm: 0.3 },
      150,
    );
    expect(job.tolerance.focusShare).toBeGreaterThan(0);
    expect(job.tolerance.focusShare).toBeLessThan(0.05);
  });
});
