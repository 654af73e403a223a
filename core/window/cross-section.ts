import { boundariesAt, chanceAt } from './fit-window.js';
import type { WindowFit } from './window-fit.js';
import type { WindowPoint } from './window-terms.js';

/** The chance of holding at one place of a cut through the window, with where it lies nine times in ten over the draws. */
export interface SectionPoint {
  readonly powerW: number;
  readonly speedMmPerS: number;
  readonly mean: number;
  readonly low: number;
  readonly high: number;
}

/**
 * A cut through the window along some points: the chance of holding at each, 0 to 1, with its band.
 * @throws value.not-positive, value.not-finite where a varied term is not said
 */
export function crossSection(fit: WindowFit, points: readonly WindowPoint[]): SectionPoint[] {
  return points.map((point) => {
    const at = boundariesAt(fit, point);
    const lnPower = Math.log(point.powerW);
    const chances = Float64Array.from({ length: fit.drawCount }, (_, d) => chanceAt(at, lnPower, d)).sort();
    const share = (of: number) => chances[Math.round(of * (chances.length - 1))]!;
    const mean = chances.reduce((sum, one) => sum + one, 0) / chances.length;
    return { powerW: point.powerW, speedMmPerS: point.speedMmPerS, mean, low: share(0.05), high: share(0.95) };
  });
}
