import { costPerPiece, type PieceCost } from './cost-per-piece.js';

export const COST_FACTORS = [
  'blankMinor',
  'compoundMinor',
  'thinnerMinor',
  'laserMinutes',
  'laserMinorPerMinute',
  'labourMinutes',
  'labourMinorPerMinute',
  'yieldShare',
] as const satisfies readonly (keyof PieceCost)[];
export type CostFactor = (typeof COST_FACTORS)[number];

/** What a factor was planned at and came to, and what of the difference in price it makes, minor units a good piece. */
export interface CostStep {
  readonly factor: CostFactor;
  readonly planned: number;
  readonly real: number;
  readonly differsMinor: number;
}

/**
 * Why a good piece came to another price than planned, factor by factor: each factor's share of the difference, over all orders in which they may
 * be exchanged one after another (Shapley 1953). The shares add up to the difference exactly, whichever factors work on one another.
 * @throws as costPerPiece, for either
 */
export function costBridge(planned: PieceCost, real: PieceCost): CostStep[] {
  const n = COST_FACTORS.length;
  const prices = Array.from({ length: 1 << n }, (_, set) => {
    const some = COST_FACTORS.map((factor, i) => [factor, (set & (1 << i) ? real : planned)[factor]] as const);
    return costPerPiece(Object.fromEntries(some) as unknown as PieceCost);
  });
  const weights = orderWeights(n);
  return COST_FACTORS.map((factor, i) => {
    let differsMinor = 0;
    for (let set = 0; set < prices.length; set += 1)
      if (!(set & (1 << i))) differsMinor += weights[bits(set)]! * (prices[set | (1 << i)]! - prices[set]!);
    return { factor, planned: planned[factor], real: real[factor], differsMinor };
  });
}

/** Share of all orders of n in which just so many come before a given one: k!(n − 1 − k)!/n! */
function orderWeights(n: number): number[] {
  const factorial = (k: number): number => (k < 2 ? 1 : k * factorial(k - 1));
  return Array.from({ length: n }, (_, k) => (factorial(k) * factorial(n - 1 - k)) / factorial(n));
}

function bits(set: number): number {
  let count = 0;
  for (let rest = set; rest; rest >>= 1) count += rest & 1;
  return count;
}
