import { requirePositive } from '../support/require.js';

/** A setting as the beam sees it. Power is what reaches the part. */
export interface BeamSetting {
  readonly powerW: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  readonly passes: number;
}

/**
 * Areal dose H = N·P/(v·h) in J/mm².
 * @throws value.not-positive
 * @example arealDose({ powerW: 9.9, speedMmPerS: 110, intervalMm: 0.025, passes: 1 }) // 3.60
 */
export function arealDose(setting: BeamSetting): number {
  requirePositive('power', setting.powerW);
  requirePositive('speed', setting.speedMmPerS);
  requirePositive('interval', setting.intervalMm);
  requirePositive('passes', setting.passes);
  return (setting.passes * setting.powerW) / (setting.speedMmPerS * setting.intervalMm);
}

/** Line energy P/v in J/mm. @throws value.not-positive */
export function lineEnergy(powerW: number, speedMmPerS: number): number {
  return requirePositive('power', powerW) / requirePositive('speed', speedMmPerS);
}

/** Time in s for the spot to cross its own diameter: d/v. @throws value.not-positive */
export function dwell(spotMm: number, speedMmPerS: number): number {
  return requirePositive('spot', spotMm) / requirePositive('speed', speedMmPerS);
}

/** Overlap of neighbouring lines, 1 − h/d; below 0 the lines do not touch. @throws value.not-positive */
export function lineOverlap(intervalMm: number, spotMm: number): number {
  return 1 - requirePositive('interval', intervalMm) / requirePositive('spot', spotMm);
}
