import { deliveredPower, type PowerSource } from '../beam/delivered-power.js';
import { arealDose } from '../beam/dose.js';
import { equivalentRadius, spotWidth } from '../beam/spot.js';
import { heatIndex } from '../heat/heat-index.js';
import { overscan, type RowMotion } from '../time/raster.js';
import type { CouponLayout } from './layout.js';

/** The head, lens and metal a coupon is predicted for. */
export interface CouponEquipment {
  readonly power: PowerSource;
  readonly motion: RowMotion;
  readonly spotXMm: number;
  readonly spotYMm: number;
  /** W/(mm·K) */
  readonly conductivity: number;
  /** mm²/s */
  readonly diffusivity: number;
}

/** Predicted figures of one cell; null where the head does not fire. Dose is null for line cells, which cover no area evenly. */
export interface CellPrediction {
  readonly powerW: number;
  readonly doseJPerMm2: number | null;
  readonly heatIndexK: number | null;
}

/** Dose and heat index of every cell, in the order of the cells. */
export function predictCells(layout: CouponLayout, equipment: CouponEquipment): CellPrediction[] {
  const radiusMm = equivalentRadius(equipment.spotXMm, equipment.spotYMm);
  const perWatt = new Map<number, number>();
  return layout.cells.map((cell) => {
    const powerW = deliveredPower(cell.powerPercent, equipment.power);
    if (powerW <= 0 || !cell.reachable) return { powerW, doseJPerMm2: null, heatIndexK: null };
    let unit = perWatt.get(cell.speedMmPerS);
    if (unit === undefined) {
      const { conductivity, diffusivity } = equipment;
      unit = heatIndex({ powerW: 1, speedMmPerS: cell.speedMmPerS, radiusMm, conductivity, diffusivity });
      perWatt.set(cell.speedMmPerS, unit);
    }
    return {
      powerW,
      doseJPerMm2:
        layout.design.fill === 'filled' ? arealDose({ ...cell, powerW, passes: cell.passes * cell.hatches }) : null,
      heatIndexK: unit * powerW,
    };
  });
}

/** Widest reach of the beam outside the cells while it runs up, mm: must stay on the bed. */
export function widestRunUp(layout: CouponLayout, motion: RowMotion): number {
  return Math.max(0, ...layout.cells.map((cell) => overscan(cell.speedMmPerS, motion)));
}

/**
 * Dose of the burnt labels, J/mm²: a single line over the width of the spot. Labels weaker than most cells are lost with them in the
 * scrub.
 */
export function labelDose({ design }: CouponLayout, equipment: CouponEquipment): number {
  const { powerPercent, speedMmPerS } = design.labels;
  const widthMm = spotWidth(equipment);
  return deliveredPower(powerPercent, equipment.power) / (speedMmPerS * widthMm);
}
