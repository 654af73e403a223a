import { median } from '../statistics/median.js';
import { boundariesAt, chanceAt } from './fit-window.js';
import type { WindowFit } from './window-fit.js';
import type { WindowRest } from './window-terms.js';

/** P(holds) over power and speed, all else at one place; rows are powers, row by row. */
export interface WindowMap {
  readonly powersW: readonly number[];
  readonly speedsMmPerS: readonly number[];
  /** Mean chance of holding over the draws. */
  readonly holds: Float64Array;
  /** For each speed the power (W) at which too little, and too much, become the even bet. */
  readonly lowerW: readonly number[];
  readonly upperW: readonly number[];
}

/** Map of the window for drawing. @throws value.not-positive, value.not-finite where a varied term is not said */
export function windowMap(
  fit: WindowFit,
  over: {
    powersW: readonly number[];
    speedsMmPerS: readonly number[];
    rest: WindowRest;
  },
): WindowMap {
  const { powersW, speedsMmPerS, rest } = over;
  const holds = new Float64Array(powersW.length * speedsMmPerS.length);
  const lnPowers = powersW.map((powerW) => Math.log(powerW));
  const [lowerW, upperW]: [number[], number[]] = [[], []];
  speedsMmPerS.forEach((speedMmPerS, j) => {
    const at = boundariesAt(fit, { ...rest, powerW: 1, speedMmPerS });
    lnPowers.forEach((lnPower, i) => {
      let sum = 0;
      for (let d = 0; d < fit.drawCount; d += 1) sum += chanceAt(at, lnPower, d);
      holds[i * speedsMmPerS.length + j] = sum / fit.drawCount;
    });
    lowerW.push(Math.exp(median(at.bondAt)));
    upperW.push(Math.exp(median(at.overAt)));
  });
  return { powersW, speedsMmPerS, holds, lowerW, upperW };
}

/** A stretch of neighbouring speeds at which some power holds with a chance of so much or more, and between which powers. */
export type WindowBand = readonly { readonly speedMmPerS: number; readonly lowW: number; readonly highW: number }[];

/**
 * Where a map's chance reaches a level, as stretches of neighbouring speeds; between the powers of the map it is taken as straight in
 * ln power.
 * @param level above 0, below 1
 */
export function windowBands({ powersW, speedsMmPerS, holds }: WindowMap, level: number): WindowBand[] {
  const bands: { speedMmPerS: number; lowW: number; highW: number }[][] = [];
  let open = false;
  speedsMmPerS.forEach((speedMmPerS, j) => {
    const column = powersW.map((_, i) => holds[i * speedsMmPerS.length + j]!);
    const [first, last] = [column.findIndex((one) => one >= level), column.findLastIndex((one) => one >= level)];
    if (first < 0) {
      open = false;
      return;
    }
    const between = (inside: number, outside: number) => {
      // Beyond the map, or beyond where anything is known of it.
      if (!Number.isFinite(column[outside])) return powersW[inside]!;
      const share = (column[inside]! - level) / (column[inside]! - column[outside]!);
      return powersW[inside]! * (powersW[outside]! / powersW[inside]!) ** share;
    };
    const reach = { speedMmPerS, lowW: between(first, first - 1), highW: between(last, last + 1) };
    if (open) bands.at(-1)!.push(reach);
    else bands.push([reach]);
    open = true;
  });
  return bands;
}
