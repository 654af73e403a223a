import { measureField, type Measure, type MeasuredCell } from '@unto/core';
import type { WindowGrid } from './computations';

/**
 * What pictures tell of one measure over a map’s grid; rows are powers, row by row. NaN beyond the powers and speeds that cells tried: there
 * a surface only goes back to the middle of all. Null where too few cells tell it.
 */
export function measureMap(
  cells: readonly MeasuredCell[],
  measure: Measure,
  { powersW, speedsMmPerS, rest }: WindowGrid,
): Float64Array | null {
  const field = measureField(cells, measure);
  if (!field) return null;
  const [power, speed] = [
    within(cells.map(({ powerW }) => powerW)),
    within(cells.map(({ speedMmPerS }) => speedMmPerS)),
  ];
  return Float64Array.from(
    powersW.flatMap((powerW) =>
      speedsMmPerS.map((speedMmPerS) =>
        power(powerW) && speed(speedMmPerS) ? field.mean({ ...rest, powerW, speedMmPerS }) : Number.NaN,
      ),
    ),
  );
}

/** A step of a map beyond the last cell still shows it. */
const A_STEP = 1.03;

function within(values: readonly number[]): (value: number) => boolean {
  const [low, high] = [Math.min(...values) / A_STEP, Math.max(...values) * A_STEP];
  return (value) => value >= low && value <= high;
}
