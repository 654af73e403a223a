/** How steadily values rise or fall in the order in which they came. */
export interface MannKendall {
  /** Pairs that rise less pairs that fall. */
  readonly s: number;
  /** Kendall's τ-b against the order, −1 to 1; 0 where all values are the same. */
  readonly tau: number;
  /** Chance of at least so much either way where there is no trend, 0 to 1. */
  readonly chance: number;
}

/**
 * Trend test of Mann (1945) and Kendall: no form of the rise is assumed. Of up to eight values without ties the chance is counted over all
 * orders; beyond, it is the normal approximation with ties and a step's continuity.
 * @param values in the order in which they came; two or more
 */
export function mannKendall(values: readonly number[]): MannKendall {
  const n = values.length;
  let s = 0;
  for (let i = 0; i < n; i += 1) for (let j = i + 1; j < n; j += 1) s += Math.sign(values[j]! - values[i]!);
  const ties = [...countsOf(values).values()].filter((many) => many > 1);
  const pairs = (n * (n - 1)) / 2;
  const told = pairs - ties.reduce((sum, many) => sum + (many * (many - 1)) / 2, 0);
  return {
    s,
    tau: told > 0 ? s / Math.sqrt(pairs * told) : 0,
    chance: s === 0 ? 1 : n <= COUNTED && !ties.length ? countedChance(n, Math.abs(s)) : normalChance(n, ties, s),
  };
}

const COUNTED = 8;

/** How often each S comes over all orders of n values: each new value adds 0 to n − 1 pairs that fall. */
function countedChance(n: number, least: number): number {
  let ways = new Map([[0, 1]]);
  for (let many = 2; many <= n; many += 1) {
    const next = new Map<number, number>();
    for (const [s, count] of ways)
      for (let falls = 0; falls < many; falls += 1) {
        const to = s + (many - 1 - 2 * falls);
        next.set(to, (next.get(to) ?? 0) + count);
      }
    ways = next;
  }
  const all = [...ways.values()].reduce((sum, count) => sum + count, 0);
  const beyond = [...ways].filter(([s]) => Math.abs(s) >= least).reduce((sum, [, count]) => sum + count, 0);
  return beyond / all;
}

function normalChance(n: number, ties: readonly number[], s: number): number {
  const of = (many: number) => many * (many - 1) * (2 * many + 5);
  const variance = (of(n) - ties.reduce((sum, many) => sum + of(many), 0)) / 18;
  return variance > 0 ? upperTwice((Math.abs(s) - 1) / Math.sqrt(variance)) : 1;
}

function countsOf(values: readonly number[]): Map<number, number> {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return counts;
}

/** Chance of a normal beyond ±z: erfc(z ÷ √2) by Abramowitz & Stegun 7.1.26, within 1.5e-7. */
function upperTwice(z: number): number {
  if (z <= 0) return 1;
  const x = z / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const terms = [1.061405429, -1.453152027, 1.421413741, -0.284496736, 0.254829592];
  return terms.reduce((sum, term) => (sum + term) * t, 0) * Math.exp(-x * x);
}
