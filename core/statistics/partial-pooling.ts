import { requireFinite, requirePositive } from '../support/require.js';

/** A value that is known about so well, as a normal distribution. */
export interface Known {
  readonly mean: number;
  readonly sd: number;
}

/** What several groups tell of one another. */
export interface Pooled {
  /** What is to be expected of a group that was not seen. */
  readonly next: Known;
  /** Expected spread between groups. */
  readonly between: number;
  /** Each seen group, drawn towards the others. */
  readonly groups: readonly Known[];
}

/** Spreads between groups that are tried. */
const STEPS = 80;

/**
 * Partial pooling of groups that differ by some spread of their own (normal means within normal groups; Gelman et al., Bayesian Data
 * Analysis, 3rd edition, 5.4): the spread between groups is summed over a grid, not guessed at one value, so that few groups never
 * claim more than they can.
 * @param seen one or more groups, each with its standard error @param centre weak knowledge of the mean of all groups
 * @param spread half-normal scale of the spread between groups, or a flat range from 0 to `most`
 * @throws value.not-finite, value.not-positive
 */
export function partialPooling(
  seen: readonly Known[],
  centre: Known,
  spread: { readonly scale: number } | { readonly most: number },
): Pooled {
  for (const { mean, sd } of [...seen, centre]) {
    requireFinite('mean', mean);
    requirePositive('sd', sd);
  }
  const most = 'scale' in spread ? 4 * requirePositive('scale', spread.scale) : requirePositive('most', spread.most);
  const taus = Array.from({ length: STEPS }, (_, i) => ((i + 0.5) / STEPS) * most);
  const logs = taus.map(
    (tau) => logEvidence(seen, centre, tau) - ('scale' in spread ? 0.5 * (tau / spread.scale) ** 2 : 0),
  );
  const highest = Math.max(...logs);
  const weights = logs.map((log) => Math.exp(log - highest));
  const total = weights.reduce((sum, one) => sum + one, 0);
  const share = weights.map((one) => one / total);
  const means = taus.map((tau) => meanOfAll(seen, centre, tau));
  return {
    next: mixed(share, (i) => ({ mean: means[i]!.mean, sd: Math.hypot(means[i]!.sd, taus[i]!) })),
    between: share.reduce((sum, one, i) => sum + one * taus[i]!, 0),
    groups: seen.map((group) => mixed(share, (i) => drawnIn(group, means[i]!, taus[i]!))),
  };
}

/** The mean of all groups by a spread between them. */
function meanOfAll(seen: readonly Known[], centre: Known, tau: number): Known {
  let [precision, sum] = [1 / centre.sd ** 2, centre.mean / centre.sd ** 2];
  for (const { mean, sd } of seen) {
    const own = 1 / (sd * sd + tau * tau);
    precision += own;
    sum += own * mean;
  }
  return { mean: sum / precision, sd: Math.sqrt(1 / precision) };
}

function logEvidence(seen: readonly Known[], centre: Known, tau: number): number {
  const all = meanOfAll(seen, centre, tau);
  let sum = Math.log(all.sd) - 0.5 * ((all.mean - centre.mean) / centre.sd) ** 2;
  for (const { mean, sd } of seen) {
    const variance = sd * sd + tau * tau;
    sum -= 0.5 * (Math.log(variance) + (mean - all.mean) ** 2 / variance);
  }
  return sum;
}

function drawnIn(group: Known, all: Known, tau: number): Known {
  const [own, others] = [1 / group.sd ** 2, 1 / tau ** 2];
  const towards = others / (own + others);
  return {
    mean: (own * group.mean + others * all.mean) / (own + others),
    sd: Math.sqrt(1 / (own + others) + (towards * all.sd) ** 2),
  };
}

/** Mean and spread of weighed normals. */
function mixed(share: readonly number[], of: (i: number) => Known): Known {
  let [mean, square] = [0, 0];
  share.forEach((weight, i) => {
    const one = of(i);
    mean += weight * one.mean;
    square += weight * (one.mean ** 2 + one.sd ** 2);
  });
  return { mean, sd: Math.sqrt(Math.max(0, square - mean * mean)) };
}
