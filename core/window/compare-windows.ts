import { rasterTime } from '../time/raster.js';
import { boundariesAt, chanceAt } from './fit-window.js';
import type { WindowFit } from './window-fit.js';
import type { SettingJob } from './setting-search.js';
import type { WindowRest } from './window-terms.js';

/** How quick a mark may be in a window, draw by draw of its fit. */
export interface WindowTimes {
  readonly powersW: readonly number[];
  /** For each power the seconds of a piece at the quickest speed that holds, middle and nine of ten; null where it held in under half of the draws, or was not tried. */
  readonly byPower: readonly (Spread | null)[];
  /** Seconds of a piece at the best of all powers, draw by draw; Infinity where nothing held. */
  readonly best: Float64Array;
  /** Share of draws in which the quickest speed that was tried still held: it may hold quicker than anybody tried. */
  readonly atEnd: number;
}

/** Middle, and where it lies nine times in ten. */
export interface Spread {
  readonly low: number;
  readonly middle: number;
  readonly high: number;
}

const SPEEDS = 48;

/**
 * Seconds of a piece at the quickest of the tried speeds that holds, power by power and at the best of them.
 * @param powersW powers to look at; those beyond what the cells tried have no answer
 * @param level chance from which a mark is said to hold, above 0 to 1
 * @throws value.not-positive, value.not-finite where a varied term is not said
 */
export function windowTimes(
  fit: WindowFit,
  job: Pick<SettingJob, 'widthMm' | 'heightMm' | 'motion' | 'directions'>,
  of: { readonly powersW: readonly number[]; readonly rest: WindowRest; readonly level: number },
): WindowTimes {
  const { powersW, rest, level } = of;
  const [slow, fast] = range(fit.cells.map(({ speedMmPerS }) => speedMmPerS));
  const [weak, strong] = range(fit.cells.map(({ powerW }) => powerW));
  const passes = rest.passes * (rest.hatches ?? 1);
  const speeds = Array.from({ length: SPEEDS }, (_, i) => slow * (fast / slow) ** (i / (SPEEDS - 1)));
  const steps = speeds.map((speedMmPerS) => ({
    at: boundariesAt(fit, { ...rest, powerW: 1, speedMmPerS }),
    seconds: rasterTime({ ...job, speedMmPerS, intervalMm: rest.intervalMm, passes }, job.motion),
  }));
  const best = new Float64Array(fit.drawCount).fill(Infinity);
  const quickest = steps.at(-1)!.seconds;
  const byPower = powersW.map((powerW) => {
    if (powerW < weak * LITTLE_LESS || powerW > strong / LITTLE_LESS) return null;
    const lnPower = Math.log(powerW);
    const seconds = new Float64Array(fit.drawCount).fill(Infinity);
    for (let d = 0; d < fit.drawCount; d += 1) {
      for (const { at, seconds: own } of steps)
        if (own < seconds[d]! && chanceAt(at, lnPower, d) >= level) seconds[d] = own;
      best[d] = Math.min(best[d]!, seconds[d]!);
    }
    const found = spreadOf(seconds);
    return Number.isFinite(found.middle) ? found : null;
  });
  return { powersW, byPower, best, atEnd: best.filter((seconds) => seconds <= quickest).length / fit.drawCount };
}

/** Powers that differ by a last digit are the same. */
const LITTLE_LESS = 0.999;

function range(values: readonly number[]): [number, number] {
  return values.reduce(([low, high], one) => [Math.min(low, one), Math.max(high, one)], [Infinity, -Infinity]);
}

/** Middle of some draws, and where nine of ten lie. */
export function spreadOf(draws: Float64Array): Spread {
  const sorted = Float64Array.from(draws).sort();
  const at = (share: number) => sorted[Math.round(share * (sorted.length - 1))]!;
  return { low: at(0.05), middle: at(0.5), high: at(0.95) };
}

/** How two windows compare. */
export interface Comparison {
  /** Seconds of the second for one of the first; null where one of them holds in too few draws to say. */
  readonly ratio: Spread | null;
  /** Chance that the first is quicker, 0 to 1; draws in which neither holds count half. */
  readonly quicker: number;
}

/** Whether one is quicker than another, by how much, and how sure that is. The fits know nothing of one another: every draw meets every other. */
export function compareTimes(a: Float64Array, b: Float64Array): Comparison {
  const ratios = new Float64Array(a.length * b.length);
  let quicker = 0;
  let k = 0;
  for (const one of a)
    for (const other of b) {
      quicker += one < other ? 1 : one === other ? 0.5 : 0;
      // Neither holds: no more the one than the other.
      ratios[k] = one === Infinity && other === Infinity ? 1 : other / one;
      k += 1;
    }
  const ratio = spreadOf(ratios);
  const told = Number.isFinite(ratio.middle) && ratio.middle > 0;
  return { ratio: told ? ratio : null, quicker: quicker / ratios.length };
}

/** Two windows this near one another in time, ln, are not told apart at a power: a change of sign there is none of the windows. */
const ALIKE = 0.03;

/** Powers at which the quicker of two windows changes, W: between two powers at which they are told apart, straight in ln. */
export function crossovers(a: WindowTimes, b: WindowTimes): number[] {
  const apart = a.powersW.flatMap((powerW, i) => {
    const [one, other] = [a.byPower[i], b.byPower[i]];
    const by = one && other ? Math.log(one.middle / other.middle) : 0;
    return Math.abs(by) > ALIKE ? [{ powerW, by }] : [];
  });
  return apart.slice(1).flatMap(({ powerW, by }, i) => {
    const before = apart[i]!;
    if (Math.sign(by) === Math.sign(before.by)) return [];
    return [before.powerW * (powerW / before.powerW) ** (before.by / (before.by - by))];
  });
}
