import { requireNotNegative, requireWithin } from '../support/require.js';

/** What one good piece costs, in minor units of money, not rounded: rates stay decimal, only totals are rounded. */
export interface PieceCost {
  readonly compoundMinor: number;
  readonly laserMinor: number;
  readonly handsMinor: number;
  readonly blankMinor: number;
  readonly totalMinor: number;
}

/**
 * Cost per good piece: (blank + compound + laser minutes × rate + hands-on minutes × rate) ÷ yield.
 * @param yieldShare share of pieces that come out good, above 0 and at most 1
 * @throws value.negative, value.out-of-range
 */
export function pieceCost(piece: {
  blankMinor: number;
  compoundMinor: number;
  laserMinutes: number;
  handsMinutes: number;
  laserMinorPerMinute: number;
  handsMinorPerMinute: number;
  yieldShare: number;
}): PieceCost {
  const share = requireWithin('yield', piece.yieldShare, Number.MIN_VALUE, 1);
  const blankMinor = requireNotNegative('blank', piece.blankMinor) / share;
  const compoundMinor = requireNotNegative('compound', piece.compoundMinor) / share;
  const laserMinor =
    (requireNotNegative('laser minutes', piece.laserMinutes) *
      requireNotNegative('laser rate', piece.laserMinorPerMinute)) /
    share;
  const handsMinor =
    (requireNotNegative('hands-on minutes', piece.handsMinutes) *
      requireNotNegative('hands rate', piece.handsMinorPerMinute)) /
    share;
  return {
    blankMinor,
    compoundMinor,
    laserMinor,
    handsMinor,
    totalMinor: blankMinor + compoundMinor + laserMinor + handsMinor,
  };
}
