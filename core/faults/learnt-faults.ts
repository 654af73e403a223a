import { CoreError } from '../support/core-error.js';
import { CAUSES, type Cause } from './causes.js';
import { FAULTS, hiddenBy, type Fault } from './symptoms.js';
import { USUAL_SHARES, usualLink } from './usual-faults.js';

/** A case that was settled: what was seen, and what it was. More causes than one share it. */
export interface SettledCase {
  readonly faults: readonly Fault[];
  readonly causes: readonly Cause[];
}

/** How many cases usual practice counts as beside the shop’s own: of the causes’ shares, and of each cause’s looks. */
export const USUAL_COUNTS_AS = { shares: 20, links: 8 } as const;

/** Counts of a Beta distribution: how often seen and how often not, usual practice among them. */
export interface BetaCounts {
  readonly seen: number;
  readonly not: number;
}

/** Shares of the causes as counts of a Dirichlet distribution, and of each cause how often it shows as each fault. */
export interface FaultKnowledge {
  /** By cause: its count. */
  readonly counts: ReadonlyMap<Cause, number>;
  /** Cause by fault. */
  readonly links: ReadonlyMap<Cause, ReadonlyMap<Fault, BetaCounts>>;
  /** Cases of the shop in it. */
  readonly cases: number;
}

/**
 * What usual practice and the shop's settled cases say together. Shares of causes: Dirichlet, usual practice as twenty cases, a case with two
 * causes half a count to each. How a cause looks: a Beta for each fault, usual practice as eight cases; learnt only from cases it was alone in,
 * and only of faults that could be seen. Conjugate, so that counts are all there is to it (Gelman et al., Bayesian Data Analysis, 2.4, 3.4).
 * @throws value.out-of-range for a case without a cause
 */
export function learnFaults(cases: readonly SettledCase[]): FaultKnowledge {
  const total = CAUSES.reduce((sum, cause) => sum + USUAL_SHARES[cause], 0);
  const counts = new Map(CAUSES.map((cause) => [cause, (USUAL_COUNTS_AS.shares * USUAL_SHARES[cause]) / total]));
  const links = new Map(CAUSES.map((cause) => [cause, usualCounts(cause)]));
  for (const { faults, causes } of cases) {
    if (!causes.length)
      throw new CoreError('value.out-of-range', 'A settled case names its cause.', { path: 'causes' });
    for (const cause of causes) counts.set(cause, counts.get(cause)! + 1 / causes.length);
    const [alone] = causes;
    if (causes.length === 1) count(links.get(alone!)!, faults);
  }
  return { counts, links, cases: cases.length };
}

function usualCounts(cause: Cause): Map<Fault, BetaCounts> {
  return new Map(
    FAULTS.map((fault) => {
      const chance = usualLink(cause, fault);
      return [fault, { seen: USUAL_COUNTS_AS.links * chance, not: USUAL_COUNTS_AS.links * (1 - chance) }];
    }),
  );
}

function count(of: Map<Fault, BetaCounts>, seen: readonly Fault[]): void {
  const hidden = hiddenBy(seen);
  for (const fault of FAULTS) {
    const { seen: yes, not } = of.get(fault)!;
    if (seen.includes(fault)) of.set(fault, { seen: yes + 1, not });
    else if (!hidden.includes(fault)) of.set(fault, { seen: yes, not: not + 1 });
  }
}

/** How many of the shop’s cases that looked like this each cause was in: what it learnt, in counts. */
export function shopCounts(cases: readonly SettledCase[], seen: readonly Fault[]): ReadonlyMap<Cause, number> {
  const alike = cases.filter(({ faults }) => faults.some((fault) => seen.includes(fault)));
  return new Map(
    CAUSES.map((cause) => [cause, alike.filter(({ causes }) => causes.includes(cause)).length] as const).filter(
      ([, n]) => n > 0,
    ),
  );
}
