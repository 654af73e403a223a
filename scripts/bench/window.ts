import 'fmin';
import {
  fitWindow,
  orderedLogit,
  ordinalLogLikelihood,
  seededRandom,
  settingFromWindow,
  standardNormal,
  windowMap,
  type OrdinalRow,
  type RowMotion,
  type WindowCell,
} from '@unto/core';
import { median, type Line } from './line.js';
import { BENCH, ratios } from './window-coats.js';

const MOTION: RowMotion = { kind: 'gantry', accelerationMmPerS2: 5000, rapidMmPerS: 600 };

function coupon80(seed: number): WindowCell[] {
  const random = seededRandom(seed);
  return [20, 25, 30, 35, 40, 45, 50, 55].flatMap((powerW) =>
    [50, 70, 100, 140, 200, 280, 350, 400, 450, 500].map((speedMmPerS): WindowCell => {
      const effect = Math.log(powerW) - 0.6 * Math.log(speedMmPerS) + 0.12 * standardNormal(random);
      return {
        powerW,
        speedMmPerS,
        intervalMm: 0.06,
        passes: 1,
        outcome: effect < 0.55 ? 'under' : effect < 1.35 ? 'holds' : 'over',
      };
    }),
  );
}

export function fitAgainstMinimiser(): Line {
  const cells = coupon80(3);
  const rows: OrdinalRow[] = cells.map((cell) => ({
    z: [Math.log(cell.powerW / 35), Math.log(cell.speedMmPerS / 200)],
    category: ['under', 'holds', 'over'].indexOf(cell.outcome),
  }));
  const ours = median(101, () => orderedLogit({ rows, categories: 3 }));
  const loss = ([c1, gap, ...slopes]: number[]) =>
    -ordinalLogLikelihood([c1!, c1! + Math.exp(gap!), ...slopes], rows, 3);
  const theirs = median(41, () => fmin.nelderMead(loss, [-1, 0, 0, 0], { maxIterations: 4000 }));
  const found = fmin.nelderMead(loss, [-1, 0, 0, 0], { maxIterations: 4000 });
  const best = orderedLogit({ rows, categories: 3 }).deviance / 2;
  const whole = median(5, () => fitWindow({ cells, equipment: BENCH, seed: 1 }));
  const ratio = theirs / ours;
  return {
    what: 'ordered logit, 80 cells',
    figure: `${ours.toFixed(2)} ms (a window whole ${whole.toFixed(1)} ms)`,
    against: `fmin Nelder-Mead ${theirs.toFixed(1)} ms, its −log L ${(found.fx - best).toExponential(0)} above ours`,
    ratio: `${ratio.toFixed(0)} × faster`,
    goal: '≥ 10 ×',
    met: ratio >= 10,
  };
}

/** Fit, map and settings of one window: what the worker does when a window opens. */
export function wholeWindow(): Line {
  const job = {
    power: { ratedW: 55 },
    motion: MOTION,
    topSpeedMmPerS: 600,
    widthMm: 38,
    heightMm: 22,
    directions: 'two-way' as const,
    tolerance: { powerShare: 0.05, focusShare: 0.01 },
    bound: 0.8,
  };
  const over = {
    powersW: ratios(18, 55, 44),
    speedsMmPerS: ratios(40, 600, 60),
    rest: { intervalMm: 0.06, passes: 1 },
  };
  // Every copy at powers of its own, so that no two cells are counted as one.
  const many = (copies: number) =>
    Array.from({ length: copies }, (_, i) =>
      coupon80(i + 1).map((cell) => ({ ...cell, powerW: cell.powerW * (1 + 1e-4 * i) })),
    ).flat();
  const time = (cells: readonly WindowCell[], runs: number) =>
    median(runs, () => {
      const fit = fitWindow({ cells, equipment: BENCH, seed: 1 });
      windowMap(fit, over);
      settingFromWindow(fit, job);
    });
  const [few, most] = [time(many(5), 5), time(many(250), 2)];
  return {
    what: 'fit, map and settings of a window',
    figure: `400 cells ${few.toFixed(0)} ms, 20 000 cells ${most.toFixed(0)} ms`,
    against: '–',
    ratio: '–',
    goal: '≤ 150 ms, ≤ 2 s',
    met: few <= 150 && most <= 2000,
  };
}
