import { boundariesAt, chanceAt, type BoundariesAt } from './fit-window.js';
import type { WindowFit } from './window-fit.js';
import { boundAtSetting, boxEnds, worseEnd } from './promise.js';
import { judged, tested, type Power, type Raster, type SettingChoice, type SettingJob } from './setting-search.js';
import { restOfPoint, type WindowRest } from './window-terms.js';

/** Watts and mm/s that a head can do. */
export interface NextReach {
  readonly leastW: number;
  readonly mostW: number;
  readonly topSpeedMmPerS: number;
}

/** A block of cells that a next coupon should try: powers by speeds, each in equal ratios. */
export interface NextBlock {
  readonly powersW: { readonly low: number; readonly high: number; readonly count: number };
  readonly speedsMmPerS: { readonly low: number; readonly high: number; readonly count: number };
  readonly rest: WindowRest;
  /** The setting it is laid about: the most promising quick one. */
  readonly about: SettingChoice;
}

/** Four powers over ×÷ 1.2 and six speeds over ×÷ 1.6: what proved best of the shapes that were tried for a second coupon of 24. */
export const BLOCK_POWERS = { factor: 1.2, count: 4 } as const;
export const BLOCK_SPEEDS = { factor: 1.6, count: 6 } as const;

/**
 * Where a next coupon tells most: a block about the most promising quick setting. Moved, not cut, where it would leave what the head
 * can do. Null where nothing tested is likely to hold at all.
 */
export function nextBlock(
  fit: WindowFit,
  job: SettingJob,
  { reach, proven }: { readonly reach: NextReach; readonly proven: SettingChoice | null },
): NextBlock | null {
  const about = promising(fit, job, proven);
  if (!about) return null;
  const { powerW, speedMmPerS } = about;
  return {
    powersW: { ...around(powerW, BLOCK_POWERS.factor, reach.leastW, reach.mostW), count: BLOCK_POWERS.count },
    speedsMmPerS: { ...around(speedMmPerS, BLOCK_SPEEDS.factor, 0, reach.topSpeedMmPerS), count: BLOCK_SPEEDS.count },
    rest: restOfPoint(about),
    about,
  };
}

/** Every so many draws are enough to tell where to look. */
const LOOK_EACH = 5;

/**
 * The most promising setting. Where none is proven: the greatest expected rate, a chance of holding counting by its sixth power, since
 * an even bet is next to nothing. Where one is: the greatest expected gain on it, its share of draws that meet the bound by what it
 * would save.
 */
function promising(fit: WindowFit, job: SettingJob, proven: SettingChoice | null): SettingChoice | null {
  const { powers, rasters } = tested(fit, job);
  let best: { raster: Raster; power: Power; worth: number } | null = null;
  for (const raster of rasters) {
    if (proven && raster.seconds >= proven.seconds) continue;
    const at = boundariesAt(fit, { ...raster, powerW: 1 });
    for (const power of powers) {
      const { holds, sure } = glance(at, Math.log(power.powerW), job);
      const worth = proven ? sure * (1 / raster.seconds - 1 / proven.seconds) : holds ** 6 / raster.seconds;
      if (worth > (best?.worth ?? 0)) best = { raster, power, worth };
    }
  }
  return best && judged(best.raster, best.power, boundariesAt(fit, { ...best.raster, powerW: 1 }), job);
}

/** Mean chance of holding, and the share of draws that meet the bound, by some of the draws. */
function glance(at: BoundariesAt, lnPower: number, { tolerance, bound }: SettingJob): { holds: number; sure: number } {
  const ends = boxEnds(tolerance);
  let [holds, good, count] = [0, 0, 0];
  for (let d = 0; d < at.bondK.length; d += LOOK_EACH, count += 1) {
    const own = chanceAt(at, lnPower, d);
    holds += own;
    if (own >= boundAtSetting(bound) && worseEnd(at, lnPower, ends, d) >= bound) good += 1;
  }
  return { holds: holds / count, sure: good / count };
}

/** From a middle either way by a factor, moved to lie within two ends. */
function around(middle: number, factor: number, least: number, most: number): { low: number; high: number } {
  const high = Math.min(most, middle * factor);
  const low = Math.max(least, high / factor ** 2);
  return { low, high: Math.min(most, Math.max(high, low * factor ** 2)) };
}
