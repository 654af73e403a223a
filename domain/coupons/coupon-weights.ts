import type { CouponWindowCell } from './window-cells.js';

const DAY_MS = 86_400_000;
/** A coupon counts whole for half a year; then half of what is left is lost every two years, to a quarter. Common practice, no source. */
const WHOLE_DAYS = 183;
const HALVED_DAYS = 730;
const LEAST = 0.25;

/** How much a coupon counts in a window, and why less than whole. */
export interface CouponWeight {
  /** 0.25 to 1. */
  readonly weight: number;
  /** Empty where it counts whole. */
  readonly why: string;
}

/**
 * The weight of a coupon by its age and by whether something drifted since: what was fired before a recipe of its pairing drifted tells
 * less of how it marks now. Whoever knows better gives it back its whole weight.
 * @param burntAt when it was fired; null where nobody said, which counts as now
 * @param driftedAt when a recipe of the pairing was suspended last; null where none was
 */
export function couponWeight(burntAt: Date | null, now: Date, driftedAt: Date | null): CouponWeight {
  if (burntAt === null) return { weight: 1, why: '' };
  const days = Math.max(0, (now.getTime() - burntAt.getTime()) / DAY_MS);
  const byAge = Math.max(LEAST, Math.min(1, 0.5 ** ((days - WHOLE_DAYS) / HALVED_DAYS)));
  if (driftedAt !== null && burntAt < driftedAt) return { weight: LEAST, why: 'fired before its recipe drifted' };
  if (byAge === 1) return { weight: 1, why: '' };
  return { weight: Number(byAge.toFixed(2)), why: `${Math.round(days / 30.4)} months old` };
}

/** Cells with the weights of their coupons; those of coupons that were given back their weight count whole. */
export function weighedCells(
  cells: readonly CouponWindowCell[],
  weights: ReadonlyMap<string, number>,
  atFull: ReadonlySet<string>,
): CouponWindowCell[] {
  return cells.map((cell) => {
    const weight = cell.couponId && !atFull.has(cell.couponId) ? (weights.get(cell.couponId) ?? 1) : 1;
    return weight === 1 ? cell : { ...cell, weight };
  });
}
