/** One line of the benchmarks: a figure and a ratio to a named library or bound in the same run, since machines are noisy. */
export interface Line {
  readonly what: string;
  readonly figure: string;
  readonly against: string;
  readonly ratio: string;
  readonly goal: string;
  readonly met: boolean;
}
