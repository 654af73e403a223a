import { fisherExact, type TwoByTwo } from '../statistics/fisher-exact.js';

/** What a run was made with, each by its name; null where nobody said. */
export type RunFactors = Readonly<Record<string, string | null>>;

/** Something that was so in runs that were out, and how likely that is by chance. */
export interface DriftFactor extends TwoByTwo {
  readonly factor: string;
  readonly level: string;
  /** By Fisher’s exact test, times the number of things that were looked at (Bonferroni), 0 to 1. */
  readonly chance: number;
}

/**
 * What goes with runs that were out: each level of each factor against all others of that factor, the most telling first. A factor that was
 * the same in all runs tells nothing.
 * @param out whether each run was out
 */
export function driftFactors(runs: readonly RunFactors[], out: readonly boolean[]): DriftFactor[] {
  const found = [...new Set(runs.flatMap((run) => Object.keys(run)))].flatMap((factor) => {
    const known = runs
      .map((run, i) => ({ level: run[factor] ?? null, out: out[i]! }))
      .filter(({ level }) => level !== null);
    const levels = [...new Set(known.map(({ level }) => level!))];
    if (levels.length < 2) return [];
    return levels.map((level) => {
      const own = known.filter((run) => run.level === level);
      const others = known.filter((run) => run.level !== level);
      const outOf = (some: typeof known) => some.filter((run) => run.out).length;
      const table = {
        outWith: outOf(own),
        runsWith: own.length,
        outWithout: outOf(others),
        runsWithout: others.length,
      };
      return { factor, level, ...table, chance: fisherExact(table) };
    });
  });
  return found
    .map((one) => ({ ...one, chance: Math.min(1, one.chance * found.length) }))
    .filter(({ outWith, chance }) => outWith > 0 && chance < 0.5)
    .sort((a, b) => a.chance - b.chance);
}
