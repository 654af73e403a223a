import { boundariesAt, chanceAt, type WindowFit } from './fit-window.js';
import { judged, tested, type Power, type Raster, type SettingChoice, type SettingJob } from './setting-from-window.js';
import type { WindowRest } from './window-terms.js';

/** A block of cells that a next coupon should try: powers by speeds, each in equal ratios. */
export interface NextBlock {
  readonly powersW: { readonly low: number; readonly high: number; readonly count: number };
  readonly speedsMmPerS: { readonly low: number; readonly high: number; readonly count: number };
  readonly rest: WindowRest;
  /** The setting it is laid about: the most promising quick one. */
  readonly about: SettingChoice;
}

/** Four powers over ×÷ 1.2 and six speeds over ×÷ 1.6: what proved best of the shapes that were tried for a second coupon of 24. */
const POWERS = { factor: 1.2, count: 4 };
const SPEEDS = { factor: 1.6, count: 6 };

/**
 * Where a next coupon tells most: a block about the most promising quick setting. Moved, not cut, where it would leave what the head
 * can do. Null where nothing tested is likely to hold at all.
 * @param reach watts and mm/s that the head can do
 */
export function nextBlock(
  fit: WindowFit,
  job: SettingJob,
  reach: { readonly leastW: number; readonly mostW: number; readonly topSpeedMmPerS: number },
): NextBlock | null {
  const about = promising(fit, job);
  if (!about) return null;
  const { powerW, speedMmPerS } = about;
  const { intervalMm, passes, hatches, angleDeg, focusOffsetMm, frequencyKHz, pulseNs } = about;
  const rest = { intervalMm, passes, hatches, angleDeg, focusOffsetMm, frequencyKHz, pulseNs };
  return {
    powersW: { ...around(powerW, POWERS.factor, reach.leastW, reach.mostW), count: POWERS.count },
    speedsMmPerS: { ...around(speedMmPerS, SPEEDS.factor, 0, reach.topSpeedMmPerS), count: SPEEDS.count },
    rest,
    about,
  };
}

/** Every so many draws are enough to tell where to look. */
const LOOK_EACH = 5;

/** The setting with the greatest expected rate where a chance of holding counts by its sixth power: an even bet is next to nothing. */
function promising(fit: WindowFit, job: SettingJob): SettingChoice | null {
  const { powers, rasters } = tested(fit, job);
  let best: { raster: Raster; power: Power; rate: number } | null = null;
  for (const raster of rasters) {
    const at = boundariesAt(fit, { ...raster, powerW: 1 });
    for (const power of powers) {
      let holds = 0;
      for (let d = 0; d < fit.drawCount; d += LOOK_EACH) holds += chanceAt(at, Math.log(power.powerW), d);
      const rate = (holds / Math.ceil(fit.drawCount / LOOK_EACH)) ** 6 / raster.seconds;
      if (rate > (best?.rate ?? 0)) best = { raster, power, rate };
    }
  }
  return best && judged(best.raster, best.power, boundariesAt(fit, { ...best.raster, powerW: 1 }), job);
}

/** From a middle either way by a factor, moved to lie within two ends. */
function around(middle: number, factor: number, least: number, most: number): { low: number; high: number } {
  const high = Math.min(most, middle * factor);
  const low = Math.max(least, high / factor ** 2);
  return { low, high: Math.min(most, Math.max(high, low * factor ** 2)) };
}
