import { spotOffFocus } from '../beam/spot.js';
import { heatIndex } from '../heat/heat-index.js';
import type { WindowEquipment } from './window-fit.js';

/**
 * Share of power that a focus error is worth: how much the heat index falls when the spot grows off focus, half of it counted
 * because the areal dose does not change. Between 0 and 1.
 * @param errorMm height error at the far end of the tolerance, mm @param rayleighMm Rayleigh range, mm
 * @throws value.not-positive
 */
export function focusAsPower(
  equipment: WindowEquipment,
  at: { speedMmPerS: number; errorMm: number; rayleighMm: number },
): number {
  const rise = (radiusMm: number) => heatIndex({ ...equipment, powerW: 1, speedMmPerS: at.speedMmPerS, radiusMm });
  const grown = spotOffFocus({ spotMm: 2 * equipment.radiusMm, rayleighMm: at.rayleighMm }, at.errorMm) / 2;
  return 1 - Math.sqrt(rise(grown) / rise(equipment.radiusMm));
}
