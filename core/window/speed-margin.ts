import { boundariesAt } from './fit-window.js';
import type { WindowFit } from './window-fit.js';
import type { WindowPoint } from './window-terms.js';

/** Speeds tried either way of a setting's own, as a factor, and how finely. */
const WIDEST = 4;
const STEPS = 48;

/**
 * How far the speed at which a setting begins to be too little may lie off the middle of the draws, as factors that hold nine times in
 * ten; the setting's own speed carries the same spread.
 * @throws value.not-positive
 * @example { low: 0.93, high: 1.08 }: the speed at which it begins to be too little may lie 7 % below to 8 % above the middle
 */
export function speedMargin(fit: WindowFit, point: WindowPoint): { low: number; high: number } {
  const lnPower = Math.log(point.powerW);
  const ends = new Float64Array(fit.drawCount).fill(WIDEST);
  // Faster asks for more power but for a soft little: the first speed that asks for more than there is ends what bonds.
  for (let i = STEPS; i >= -STEPS; i -= 1) {
    const factor = WIDEST ** (i / STEPS);
    const { bondAt } = boundariesAt(fit, { ...point, speedMmPerS: point.speedMmPerS * factor });
    bondAt.forEach((need, d) => {
      if (need > lnPower) ends[d] = factor;
    });
  }
  const sorted = ends.sort();
  const at = (share: number) => sorted[Math.round(share * (sorted.length - 1))]!;
  return { low: Math.min(1, at(0.05) / at(0.5)), high: Math.max(1, at(0.95) / at(0.5)) };
}
