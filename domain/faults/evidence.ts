import {
  FAULT_TESTS,
  faultFacts,
  possibleCauses,
  REMEDIES,
  type Cause,
  type Fault,
  type FaultEvidence,
  type FaultRecord,
  type FaultTestKey,
  type FaultTestResult,
  type Remedy,
  type RemedyKind,
} from '@unto/core';

/** A test as it was kept. */
export interface KeptTest {
  readonly test: FaultTestKey;
  readonly result: FaultTestResult;
}

/** What is known of a fault: how it looks, what the record says, what tests showed (the newest of each; those nobody could tell say nothing). */
export function faultEvidence(record: FaultRecord, seen: readonly Fault[], tests: readonly KeptTest[]): FaultEvidence {
  return {
    seen,
    possible: possibleCauses(record),
    facts: faultFacts(record).map(({ weights }) => weights),
    tests: toldTests(tests).map(({ test, result }) => ({ ...FAULT_TESTS[test], found: result === 'found' })),
  };
}

/** Tests that told something, the newest of each. */
export function toldTests(tests: readonly KeptTest[]): KeptTest[] {
  const newest = new Map(tests.map((one) => [one.test, one]));
  return [...newest.values()].filter(({ result }) => result === 'found' || result === 'clear');
}

/** Whether two remedies change the same thing. */
export const sameRemedy = (a: Remedy, b: Remedy): boolean => a.kind === b.kind && a.question?.text === b.question?.text;

/** What of a shop a remedy could change now. */
export interface Changeable {
  readonly recipe: { readonly air: 'on' | 'off' | null; readonly suspended: boolean } | null;
  readonly compound: { readonly airAssist: 'on' | 'off' | null } | null;
  readonly container: { readonly retired: boolean } | null;
}

/** Whether there is anything for a remedy to change. */
export function remedyApplies(kind: RemedyKind, { recipe, compound, container }: Changeable): boolean {
  if (kind === 'recipe air off') return recipe !== null && recipe.air !== 'off';
  if (kind === 'compound air off') return compound !== null && compound.airAssist !== 'off';
  if (kind === 'suspend recipe') return recipe !== null && !recipe.suspended;
  return kind !== 'retire container' || (container !== null && !container.retired);
}

/** Remedies of some causes that have something to change, each once. */
export function remediesOf(causes: readonly Cause[], changeable: Changeable): Remedy[] {
  const all = causes.flatMap((cause) => REMEDIES[cause]).filter(({ kind }) => remedyApplies(kind, changeable));
  return all.filter((remedy, i) => all.findIndex((other) => sameRemedy(other, remedy)) === i);
}

/** Causes that some remedies put right: all they are a remedy of. */
export function putRight(taken: readonly Remedy[]): Cause[] {
  return (Object.keys(REMEDIES) as Cause[]).filter((cause) =>
    REMEDIES[cause].some((remedy) => taken.some((one) => sameRemedy(one, remedy))),
  );
}

/** Share of a mark that its faults take, where nobody drew a region. Common practice, no source. */
export function regionShareOf(faults: readonly Fault[]): number {
  if (faults.includes('faint in one corner')) return 0.12;
  return faults.includes('pale along one edge') ? 0.25 : 0.35;
}
