import { makeFigure, type Figure, type FigureInput } from '../evidence/figure.js';
import { requireNotNegative, requirePositive, requireWithin } from '../support/require.js';

/** What one good piece costs, in minor units of money and minutes; not rounded. */
export interface PieceCost {
  readonly blankMinor: number;
  readonly compoundMinor: number;
  readonly thinnerMinor: number;
  readonly laserMinutes: number;
  readonly laserMinorPerMinute: number;
  readonly labourMinutes: number;
  readonly labourMinorPerMinute: number;
  /** Share of pieces that come out good, above 0 to 1. */
  readonly yieldShare: number;
}

/**
 * Price of one good piece in minor units: (blank + compound + thinner + laser minutes × rate + hands-on minutes × rate) ÷ yield.
 * @throws value.negative; value.not-positive or value.out-of-range for the yield
 * @example 2 minutes of a laser at 0.25 a minute, every second piece good: 1.00 a piece
 */
export function costPerPiece(cost: PieceCost): number {
  const parts = [
    cost.blankMinor,
    cost.compoundMinor,
    cost.thinnerMinor,
    requireNotNegative('laser minutes', cost.laserMinutes) * requireNotNegative('laser rate', cost.laserMinorPerMinute),
    requireNotNegative('hands-on minutes', cost.labourMinutes) *
      requireNotNegative('hands-on rate', cost.labourMinorPerMinute),
  ].map((part) => requireNotNegative('price', part));
  requireWithin('yield', requirePositive('yield', cost.yieldShare), 0, 1);
  return parts.reduce((sum, part) => sum + part, 0) / cost.yieldShare;
}

/** What a number of the price may be: its value and the ends of its range. */
export interface Ranged {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

/**
 * costPerPiece as a Figure in major units, its interval from the ranges of compound, laser minutes, hands-on minutes and yield taken
 * as independent (their single effects added in quadrature).
 */
export function pieceCostFigure(
  cost: PieceCost,
  ranges: Partial<Record<'compoundMinor' | 'laserMinutes' | 'labourMinutes' | 'yieldShare', Ranged>>,
  inputs: readonly FigureInput[],
): Figure {
  const value = costPerPiece(cost);
  let [down, up] = [0, 0];
  for (const [key, range] of Object.entries(ranges) as [keyof PieceCost, Ranged][]) {
    const ends = [range.low, range.high].map((end) => costPerPiece({ ...cost, [key]: end }) - value);
    down += Math.min(0, ...ends) ** 2;
    up += Math.max(0, ...ends) ** 2;
  }
  return makeFigure({
    formula: 'costPerPiece',
    value: value / 100,
    unit: '',
    interval: { low: Math.max(0, value - Math.sqrt(down)) / 100, high: (value + Math.sqrt(up)) / 100, level: 0.9 },
    inputs,
  });
}
