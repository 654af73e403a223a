import { requirePositive } from '../support/require.js';

/** What one pulse of a pulsed head does. */
export interface PulseFigures {
  /** J */
  readonly pulseEnergyJ: number;
  /** W; null without a pulse length */
  readonly peakPowerW: number | null;
  /** J/mm² at the centre of a Gaussian spot, 2Ep/(π w²) */
  readonly peakFluenceJPerMm2: number;
  /** mm between pulses along the line */
  readonly spacingMm: number;
  /** 1 − v/(f d); below 0 the pulses do not touch */
  readonly overlap: number;
}

/**
 * Energy, peak power, peak fluence, spacing and overlap of pulses.
 * @param pulse mean power W, frequency kHz, pulse length ns (optional), spot diameter mm (1/e²), speed mm/s; all above 0
 * @throws value.not-positive
 * @example pulseFigures({ meanPowerW: 20, frequencyKHz: 500, spotMm: 0.05, speedMmPerS: 1500 }).spacingMm // 0.003
 */
export function pulseFigures(pulse: {
  meanPowerW: number;
  frequencyKHz: number;
  pulseNs?: number | undefined;
  spotMm: number;
  speedMmPerS: number;
}): PulseFigures {
  requirePositive('power', pulse.meanPowerW);
  requirePositive('spot', pulse.spotMm);
  requirePositive('speed', pulse.speedMmPerS);
  const pulsesPerS = requirePositive('frequency', pulse.frequencyKHz) * 1000;
  const pulseEnergyJ = pulse.meanPowerW / pulsesPerS;
  return {
    pulseEnergyJ,
    peakPowerW:
      pulse.pulseNs === undefined ? null : pulseEnergyJ / (requirePositive('pulse length', pulse.pulseNs) * 1e-9),
    peakFluenceJPerMm2: (2 * pulseEnergyJ) / (Math.PI * (pulse.spotMm / 2) ** 2),
    spacingMm: pulse.speedMmPerS / pulsesPerS,
    overlap: 1 - pulse.speedMmPerS / (pulsesPerS * pulse.spotMm),
  };
}
