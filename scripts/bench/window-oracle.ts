import { seededRandom, systematic, type WindowCell } from '@unto/core';
import type { TruthFamily, WindowTruth } from '@unto/simulators/window-truths';
import { FULL_W, OFF, PLAIN, ratios, settingOf, SHARES, SPEEDS, trulyGood } from './window-coats.js';

/**
 * An oracle that knows how a family's coats are made, and how often cells are misread, but not which coat it is: many coats of the
 * family weighed by how likely they make the cells (importance sampling from the generator itself). What it recommends, by the same
 * rule, is about what can be had from those cells at all.
 */
export function makeOracle(family: TruthFamily, known: number): (cells: readonly WindowCell[]) => number | null {
  const coats = Array.from({ length: known }, (_, n) => family.make(seededRandom(7 + n * 2_654_435)));
  return (cells) => quickestOf(coats, weightsOf(coats, cells));
}

function weightsOf(coats: readonly WindowTruth[], cells: readonly WindowCell[]): number[] {
  const settings = cells.map((cell) => ({ setting: settingOf(cell), outcome: cell.outcome }));
  const logs = coats.map(({ chances, misread }) => {
    let sum = 0;
    for (const { setting, outcome } of settings) {
      const { under, holds, over } = chances(setting);
      // One end is never read for the other; what holds is read as either.
      const read =
        outcome === 'holds'
          ? (1 - misread) * holds + misread * (under + over)
          : (1 - misread) * (outcome === 'under' ? under : over) + (misread / 2) * holds;
      sum += Math.log(Math.max(1e-9, read));
    }
    return sum;
  });
  const most = logs.reduce((a, b) => Math.max(a, b), -Infinity);
  const weights = logs.map((one) => Math.exp(one - most));
  const total = weights.reduce((sum, one) => sum + one, 0);
  return weights.map((one) => one / total);
}

const DRAWS = 200;

/** mm² a second of the quickest setting that is truly good in 95 of 100 coats drawn by weight; null where none is. */
function quickestOf(coats: readonly WindowTruth[], weights: readonly number[]): number | null {
  const likely = systematic(weights, DRAWS, seededRandom(1)).map((n) => coats[n]!);
  for (const speedMmPerS of ratios(SPEEDS.low, SPEEDS.high, 60).reverse())
    for (const share of ratios(SHARES.low / (1 - OFF), SHARES.high / (1 + OFF), 24)) {
      const setting = { ...PLAIN, powerW: share * FULL_W, speedMmPerS };
      let bad = 0;
      for (const coat of likely) {
        if (!trulyGood(coat, setting)) bad += 1;
        if (bad > 0.05 * DRAWS) break;
      }
      if (bad <= 0.05 * DRAWS) return speedMmPerS * PLAIN.intervalMm;
    }
  return null;
}
