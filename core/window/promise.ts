import { boundariesAt, chanceAt, type BoundariesAt } from './fit-window.js';
import type { WindowFit } from './window-fit.js';
import type { WindowPoint } from './window-terms.js';

/** What may drift between the proof and the run. */
export interface ToleranceBox {
  /** 0.05 for ± 5 % of power */
  readonly powerShare: number;
  /** Share of power that the focus tolerance is worth at its far end, 0 or more (see focusAsPower). */
  readonly focusShare: number;
}

/** What a fit promises of a setting. */
export interface SettingPromise {
  /** Mean chance of holding at the setting itself. */
  readonly holds: number;
  /** 5th percentile of the chance of holding in the worst corner of the tolerance box. */
  readonly worst: number;
  /** Share of the draws in which it meets the bound: at the ends of the box, and by half of what is left at the setting itself. */
  readonly sure: number;
}

/** So many of the draws must meet the bound. */
export const SURE = 0.95;

/** What must hold at the setting itself where so much must hold at the ends of its box: 0.9 for 0.8. */
export const boundAtSetting = (bound: number): number => (1 + bound) / 2;

/** ln of how far power may sag (focus drift counted as lost power) and swing up. */
export function boxEnds({ powerShare, focusShare }: ToleranceBox): { down: number; up: number } {
  return { down: Math.log(1 - powerShare) + Math.log(1 - focusShare), up: Math.log(1 + powerShare) };
}

/** Chance of holding at the worse end of the box; between the ends it is never less. */
export function worseEnd(at: BoundariesAt, lnPower: number, { down, up }: { down: number; up: number }, draw: number) {
  return Math.min(chanceAt(at, lnPower + down, draw), chanceAt(at, lnPower + up, draw));
}

/** What the draws promise at ln power within boundaries. */
export function promiseAt(at: BoundariesAt, lnPower: number, tolerance: ToleranceBox, bound: number): SettingPromise {
  const ends = boxEnds(tolerance);
  const count = at.bondK.length;
  const worst = new Float64Array(count);
  let [sum, good] = [0, 0];
  for (let d = 0; d < count; d += 1) {
    const own = chanceAt(at, lnPower, d);
    worst[d] = worseEnd(at, lnPower, ends, d);
    sum += own;
    if (own >= boundAtSetting(bound) && worst[d]! >= bound) good += 1;
  }
  worst.sort();
  return { holds: sum / count, worst: worst[Math.floor((1 - SURE) * count)]!, sure: good / count };
}

/** Whether the bound is met in so many draws; stops as soon as too many fall short. */
export function meetsBound(at: BoundariesAt, lnPower: number, tolerance: ToleranceBox, bound: number): boolean {
  const ends = boxEnds(tolerance);
  const count = at.bondK.length;
  let short = 0;
  for (let d = 0; d < count; d += 1) {
    if (chanceAt(at, lnPower, d) >= boundAtSetting(bound) && worseEnd(at, lnPower, ends, d) >= bound) continue;
    short += 1;
    if (short > (1 - SURE) * count) return false;
  }
  return true;
}

/** What a fit promises of a point. @throws value.not-positive, value.not-finite where a varied term is not said */
export function promiseOf(fit: WindowFit, point: WindowPoint, tolerance: ToleranceBox, bound: number): SettingPromise {
  return promiseAt(boundariesAt(fit, point), Math.log(point.powerW), tolerance, bound);
}
