/** One line of the benchmarks: a figure and a ratio to a named library or bound in the same run, since machines are noisy. */
export interface Line {
  readonly what: string;
  readonly figure: string;
  readonly against: string;
  readonly ratio: string;
  readonly goal: string;
  readonly met: boolean;
}

/** Median of some timed runs, ms, after as many untimed ones (the compiler warms up on both sides of a ratio alike). */
export function median(runs: number, work: () => unknown): number {
  for (let i = 0; i < runs; i += 1) work();
  const times = Array.from({ length: runs }, () => {
    const begun = performance.now();
    work();
    return performance.now() - begun;
  });
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)]!;
}
