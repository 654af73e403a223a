import { deliveredPower, layoutCoupon, type Outcome, type Stage, type WindowCell } from '@unto/core';
import type { Coupon, Reading } from '@unto/contract';
import { couponLimits, powerSource, type FittedEquipment } from '../equipment/fitted-equipment.js';

/** A scrubbed cell as the window takes it, with what was set on the panel. */
export interface CouponWindowCell extends WindowCell {
  readonly powerPercent: number;
  readonly couponId: string;
}

interface WithReadings {
  readonly readings: readonly Pick<Reading, 'stage' | 'entries'>[];
}

/** Newest outcome of every cell at a stage. */
export function newestOutcomes({ readings }: WithReadings, stage: Stage): Map<number, Outcome> {
  const newest = new Map<number, Outcome>();
  for (const reading of readings) {
    if (reading.stage === stage) for (const { cell, outcome } of reading.entries) newest.set(cell, outcome);
  }
  return newest;
}

/**
 * Scrubbed cells of a coupon that speak of its own compound in a single coat: those of the uncoated strip, of other compounds and of
 * heavier coats stay with the coupon.
 * @param outcomes newest scrubbed outcome by cell
 */
export function couponWindowCells(
  coupon: Pick<Coupon, 'id' | 'design' | 'compoundId'>,
  outcomes: ReadonlyMap<number, Outcome>,
  equipment: FittedEquipment,
): CouponWindowCell[] {
  const { cells } = layoutCoupon(coupon.design, couponLimits(equipment));
  return [...outcomes].flatMap(([index, outcome]) => {
    const cell = cells[index];
    if (!cell?.reachable || cell.role === 'bare' || cell.coats > 1) return [];
    if (cell.compound > 1 && coupon.design.compoundIds[cell.compound - 1] !== coupon.compoundId) return [];
    const { powerPercent, speedMmPerS, intervalMm } = cell;
    const powerW = deliveredPower(powerPercent, powerSource(equipment));
    const passes = cell.passes * cell.hatches;
    return [{ powerPercent, powerW, speedMmPerS, intervalMm, passes, outcome, couponId: coupon.id }];
  });
}
