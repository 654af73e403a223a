import { fitWindow, samePart, type EarlierWindow, type HeatedPart } from '@unto/core';
import type { Teaching } from '@unto/contract';
import type { CouponWindowCell } from './window-cells.js';
import { windowFamilies, type WindowFamily } from './window-families.js';

/** Fewer cells of a window teach nothing. */
const LEAST = 16;
/** More than so many tell hardly more, and cost their time. */
const MOST = 160;
const SEED = 5;

/** What the cells of one place teach others, a family each. */
export function teachingsOf(name: string, under: HeatedPart, cells: readonly CouponWindowCell[]): Teaching[] {
  return windowFamilies(cells)
    .filter((family) => family.cells.length >= LEAST)
    .map(({ fixed, coats, cells: own }) => ({
      ...{ name, under, shared: { fill: fixed.fill, air: fixed.air, coats } },
      cells: own.slice(0, MOST).map(fitCellOf),
    }));
}

const fitCellOf = (cell: CouponWindowCell): Teaching['cells'][number] => {
  const { powerW, speedMmPerS, intervalMm, passes, hatches, angleDeg, focusOffsetMm, frequencyKHz, pulseNs } = cell;
  const { outcome, byEye, lookedAgain, kept } = cell;
  return {
    ...{ powerW, speedMmPerS, intervalMm, passes, hatches, angleDeg, focusOffsetMm, frequencyKHz, pulseNs },
    ...{ outcome, byEye, lookedAgain, kept },
  };
};

/** Those that a family can learn from: filled and coated as it is, with the air as it had it where both are noted. */
export function teachingsFor({ fixed, coats }: WindowFamily, teachings: readonly Teaching[]): Teaching[] {
  return teachings.filter(
    ({ shared }) =>
      shared.coats === coats &&
      samePart('fill', shared.fill, fixed.fill) &&
      (!shared.air || !fixed.air || shared.air === fixed.air),
  );
}

/** The windows that teachings come to, each by its own cells alone. @throws value.not-positive, value.not-finite */
export function earlierWindows(teachings: readonly Teaching[]): EarlierWindow[] {
  return teachings.map(({ under, cells }) => ({
    equipment: under,
    fit: fitWindow({ cells, equipment: under, seed: SEED, effort: 'quick' }),
  }));
}
