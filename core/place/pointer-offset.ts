import { CoreError } from '../support/core-error.js';
import { requireFinite } from '../support/require.js';
import { mean, sampleVariance, studentT90 } from '../statistics/index.js';
import type { PlanePoint } from './fit-circle.js';

/** Where a pointer stood and where the beam marked. */
export interface PointerPair {
  readonly pointer: PlanePoint;
  readonly mark: PlanePoint;
}

/** Mark minus pointer, mm, with the half width of its 90 % interval (null after a single pair). */
export interface PointerOffset {
  readonly xMm: number;
  readonly yMm: number;
  readonly reachMm: { readonly xMm: number; readonly yMm: number } | null;
  /** The pair farthest from the mean, and by how much. */
  readonly worst: { readonly index: number; readonly offMm: number };
}

/**
 * Offset from a pointer to the beam as the mean of some pairs, intervals by Student's t.
 * @throws place.too-few-points without a pair; value.not-finite
 */
export function pointerOffset(pairs: readonly PointerPair[]): PointerOffset {
  const n = pairs.length;
  if (n === 0) throw new CoreError('place.too-few-points', 'Mark one dot at least, and read where the pointer stood.');
  const dx = pairs.map(({ pointer, mark }) => requireFinite('x', mark.xMm - pointer.xMm));
  const dy = pairs.map(({ pointer, mark }) => requireFinite('y', mark.yMm - pointer.yMm));
  const [xMm, yMm] = [mean(dx), mean(dy)];
  const off = dx.map((x, i) => Math.hypot(x - xMm, dy[i]! - yMm));
  const index = off.indexOf(Math.max(...off));
  const reach = (values: readonly number[]) => studentT90(n - 1) * Math.sqrt(sampleVariance(values) / n);
  return {
    xMm,
    yMm,
    reachMm: n > 1 ? { xMm: reach(dx), yMm: reach(dy) } : null,
    worst: { index, offMm: off[index]! },
  };
}
