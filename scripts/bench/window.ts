import 'fmin';
import {
  fitWindow,
  orderedLogit,
  ordinalLogLikelihood,
  seededRandom,
  settingFromWindow,
  standardNormal,
  type OrdinalRow,
  type RowMotion,
  type WindowCell,
} from '@unto/core';
import { median, type Line } from './line.js';

const BENCH = { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 };
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
    figure: `${ours.toFixed(2)} ms (with priors and 200 draws ${whole.toFixed(1)} ms)`,
    against: `fmin Nelder-Mead ${theirs.toFixed(1)} ms, its −log L ${(found.fx - best).toExponential(0)} above ours`,
    ratio: `${ratio.toFixed(0)} × faster`,
    goal: '≥ 10 ×',
    met: ratio >= 10,
  };
}

export function settingSearch(): Line {
  const fit = fitWindow({ cells: coupon80(3), equipment: BENCH, seed: 1 });
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
  const time = median(5, () => settingFromWindow(fit, job));
  return {
    what: 'setting from a window',
    figure: `${time.toFixed(0)} ms in the worker`,
    against: '–',
    ratio: '–',
    goal: '–',
    met: true,
  };
}

/** The promise over many hidden coats, in its long form: how often a setting is given, how often it truly holds, how quick it is. */
export function promise(count: number): Line {
  let [offered, good, quick] = [0, 0, 0];
  for (let seed = 1; seed <= count; seed += 1) {
    const random = seededRandom(seed * 7919);
    const noise = 0.06 + 0.14 * random();
    const slope = 0.5 + 0.3 * random();
    const low = Math.log(45) - slope * Math.log(190 + 120 * random());
    const width = 0.7 + 0.5 * random();
    const cells = coupon80(seed).map((cell): WindowCell => {
      const x = Math.log(cell.powerW) - slope * Math.log(cell.speedMmPerS) - low + noise * standardNormal(random);
      return { ...cell, outcome: x < 0 ? 'under' : x < width ? 'holds' : 'over' };
    });
    const job = {
      power: { ratedW: 55 },
      motion: { kind: 'galvo', jumpMmPerS: 5000, delayS: 0 } as const,
      topSpeedMmPerS: 600,
      widthMm: 38,
      heightMm: 22,
      directions: 'two-way' as const,
      tolerance: { powerShare: 0.05, focusShare: 0 },
      bound: 0.8,
    };
    const { quickest } = settingFromWindow(fitWindow({ cells, equipment: BENCH, seed }), job);
    if (!quickest) continue;
    offered += 1;
    const margin = Math.log(quickest.powerW) - slope * Math.log(quickest.speedMmPerS) - low;
    const holds =
      Array.from({ length: 2000 }, () => margin + noise * standardNormal(random)).filter((x) => x >= 0 && x < width)
        .length / 2000;
    if (holds >= 0.9) good += 1;
    // The best safe speed: 90 % hold at full power less its 5 %.
    const safe = Math.exp((Math.log(55 * 0.95) - low - 1.2816 * noise) / slope);
    quick += quickest.speedMmPerS / Math.min(500, safe);
  }
  const least = (share: number) => share - 2 * Math.sqrt((share * (1 - share)) / count);
  return {
    what: `settings over ${count} hidden coats, 80 cells`,
    figure: `offered ${Math.round((100 * offered) / count)} %, ≥ 90 % good in ${Math.round((100 * good) / offered)} %`,
    against: 'best safe speed of the hidden coat',
    ratio: `${(quick / offered).toFixed(2)} of it`,
    goal: '96 %, 94 %, 0.92, less two standard errors of so many coats',
    met: offered / count >= least(0.96) && good / offered >= least(0.94) && quick / offered >= 0.92 - 0.04,
  };
}
