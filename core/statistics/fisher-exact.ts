import { CoreError } from '../support/core-error.js';

/** A two by two table of counts: out and not out, with and without something. */
export interface TwoByTwo {
  readonly outWith: number;
  readonly runsWith: number;
  readonly outWithout: number;
  readonly runsWithout: number;
}

/**
 * Chance of as many out with it, or more, if it had no part: one-sided exact test.
 * @throws value.out-of-range for counts that cannot be
 * Source: Fisher, The Design of Experiments, 1935.
 */
export function fisherExact({ outWith, runsWith, outWithout, runsWithout }: TwoByTwo): number {
  const counts = [outWith, outWithout, runsWith - outWith, runsWithout - outWithout];
  if (counts.some((count) => !Number.isInteger(count) || count < 0))
    throw new CoreError('value.out-of-range', 'More are out than there are.', { path: 'counts' });
  const out = outWith + outWithout;
  const all = lnChoose(runsWith + runsWithout, out);
  let chance = 0;
  for (let k = outWith; k <= Math.min(out, runsWith); k += 1)
    if (out - k <= runsWithout) chance += Math.exp(lnChoose(runsWith, k) + lnChoose(runsWithout, out - k) - all);
  return Math.min(1, chance);
}

/** ln of n over k. */
function lnChoose(n: number, k: number): number {
  let sum = 0;
  for (let i = 1; i <= k; i += 1) sum += Math.log((n - k + i) / i);
  return sum;
}
