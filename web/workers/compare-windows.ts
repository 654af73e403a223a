import {
  compareTimes,
  crossovers,
  measureField,
  quickestSetting,
  spreadOf,
  windowBands,
  windowMap,
  windowTimes,
  type WindowFit,
  type WindowRest,
} from '@unto/core';
import { judgedWindow } from './judged-window';
import type { ComparedAnswer, ComparedWindow } from './computations';

const SPEEDS = 40;
/** Chance of holding from which a place counts as good on the chart, and from which a speed holds. */
const GOOD = 0.8;
const HOLDS = 0.9;

/** Windows against the first of them, each at the interval and terms of its quickest proven setting, else of its first cell. */
export function compareWindows(
  windows: readonly ComparedWindow[],
  powersW: readonly number[],
  seed: number,
): ComparedAnswer[] {
  const told = windows.map((window) => answerOf(window, powersW, seed));
  const first = told[0]!;
  return told.map((one) => ({
    ...one,
    withFirst: compareTimes(one.times.best, first.times.best),
    crossovers: one === first ? [] : crossovers(one.times, first.times),
  }));
}

function answerOf(
  window: ComparedWindow,
  powersW: readonly number[],
  seed: number,
): Omit<ComparedAnswer, 'withFirst' | 'crossovers'> {
  const { family } = window;
  const { fit, job, offered } = judgedWindow(window, seed);
  const quickest = quickestSetting(fit, job);
  const rest: WindowRest = quickest ?? family.cells[0]!;
  const times = windowTimes(fit, job, { powersW, rest, level: HOLDS });
  return {
    bands: windowBands(windowMap(fit, { powersW: within(fit, powersW), speedsMmPerS: speedsOf(fit), rest }), GOOD),
    times,
    best: spreadOf(times.best),
    quickest: quickest && offered(quickest, measureField(family.cells, 'contrast')?.at(quickest) ?? null),
  };
}

function speedsOf(fit: WindowFit): number[] {
  const speeds = fit.cells.map(({ speedMmPerS }) => speedMmPerS);
  const [slow, fast] = [Math.min(...speeds), Math.max(...speeds)];
  return Array.from({ length: SPEEDS }, (_, i) => slow * (fast / slow) ** (i / (SPEEDS - 1)));
}

/** Powers that the cells tried: beyond them nothing is drawn. */
function within(fit: WindowFit, powersW: readonly number[]): number[] {
  const own = fit.cells.map(({ powerW }) => powerW);
  const [weak, strong] = [Math.min(...own), Math.max(...own)];
  return [weak, ...powersW.filter((power) => power > weak && power < strong), ...(strong > weak ? [strong] : [])];
}
