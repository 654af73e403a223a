import { equivalentRadius } from '@unto/core';
import type { BurnSetup } from '@unto/contract';
import { rayleighOf, type FittedEquipment } from './fitted-equipment.js';

/** What lies under the head of a bench: a blank, sprayed as its blocks say. */
export function burnSetup(
  { machine, head, lens, substrate, calibration }: FittedEquipment,
  blank: Pick<BurnSetup, 'key' | 'blank' | 'blocks' | 'batch' | 'focusMm'>,
): BurnSetup {
  const { family, layer, ground, conductivity, diffusivity } = substrate;
  return {
    ...blank,
    family,
    layer,
    ground,
    conductivity,
    diffusivity,
    beam: head.wavelengthClass,
    ratedW: head.ratedW,
    firingThresholdPercent: head.firingThresholdPercent,
    calibration: calibration?.rows ?? null,
    radiusMm: equivalentRadius(lens.spotXMm, lens.spotYMm),
    rayleighMm: rayleighOf(lens),
    accelerationMmPerS2: machine.accelerationMmPerS2,
    rapidMmPerS: machine.topSpeedMmPerS,
    fullScaleS: machine.fullScaleS,
  };
}
