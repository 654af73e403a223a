import { CoreError } from '../support/core-error.js';
import { seededRandom, standardNormal, type Random } from '../support/random.js';
import { requirePositive } from '../support/require.js';
import { CAUSES, type Cause } from './causes.js';
import { learnFaults, type BetaCounts, type FaultKnowledge } from './learnt-faults.js';
import { FAULTS, hiddenBy, type Fault } from './symptoms.js';

/** How much a fact, or what a test showed, changes the odds that a cause is at work: above 1 for it, below 1 against it. */
export type CauseWeights = Partial<Record<Cause, number>>;

/** A test as it came out: the chance of that result with each cause at work alone, and without any. */
export interface TestEvidence {
  /** Chance that the test finds it, by cause. */
  readonly finds: Partial<Record<Cause, number>>;
  /** Chance that it finds something where nothing is. */
  readonly falseAlarm: number;
  readonly found: boolean;
}

export interface FaultEvidence {
  readonly seen: readonly Fault[];
  /** Causes that can be at work at all; all where nobody says. */
  readonly possible?: readonly Cause[];
  readonly facts?: readonly CauseWeights[];
  readonly tests?: readonly TestEvidence[];
}

/** A cause and how likely it took part, 0 to 1. */
export interface RankedCause {
  readonly cause: Cause;
  readonly chance: number;
  /** Nine of ten tables as good as the usual ones put it between these. */
  readonly low: number;
  readonly high: number;
}

export interface CauseRanking {
  /** The likeliest first. */
  readonly causes: readonly RankedCause[];
  /** Two that may be at work together, and how likely; null where hardly any are. */
  readonly pair: { readonly causes: readonly [Cause, Cause]; readonly chance: number } | null;
}

/** Odds that a cause joins another that is at work: one case in eight has two. Common practice, no source. */
const JOINS = 0.3;
/** More causes than so many are never taken together. */
const MOST_TOGETHER = 3;
/** A fault that is there is pressed so often: nobody looks for all of them. Common practice, no source. */
const NOTICED = 0.7;
/** A fault that shows without any cause of the list. */
const BY_ITSELF = 0.005;
/** No heap of facts makes a cause more likely, or less, than this. */
const MOST_WEIGHT = 60;
/** Tables drawn for the interval, and how far a weight that is common practice may be off (ln). */
const DRAWS = 60;
/** Draws left out at either end. */
const EDGE = 3;
const WEIGHT_SPREAD = 0.35;
const SEED = 11;

/**
 * How likely each cause took part, by what was seen, what the record says and what tests showed. Causes are at work alone or together: each joins
 * by odds of its share times the weights of the facts; a fault shows unless every one of them fails to show as it (noisy-or: Pearl,
 * Probabilistic Reasoning in Intelligent Systems, 1988, 4.3.2). Summed over all sets of up to three causes; none at all is ruled out, since
 * something went wrong. The interval is of the tables: shares and looks drawn from their counts, weights from × or ÷ 1.4.
 * @throws value.out-of-range where nothing was seen, or no cause is possible; value.not-positive for a weight of 0 or less
 */
export function rankCauses(evidence: FaultEvidence, knowledge: FaultKnowledge = learnFaults([])): CauseRanking {
  const problem = problemOf(evidence);
  const { possible } = problem;
  const mean = posterior(problem, meanTables(possible, knowledge));
  const random = seededRandom(SEED);
  const draws = Array.from({ length: DRAWS }, () =>
    posterior(drawnWeights(problem, random), drawnTables(possible, knowledge, random)),
  );
  const causes = possible.map((cause, i) => {
    const sorted = draws.map(({ chances }) => chances[i]!).sort((a, b) => a - b);
    const chance = mean.chances[i]!;
    return { cause, chance, low: Math.min(chance, sorted[EDGE]!), high: Math.max(chance, sorted[DRAWS - 1 - EDGE]!) };
  });
  return { causes: causes.sort((a, b) => b.chance - a.chance), pair: pairOf(possible, mean.pairs) };
}

function problemOf(evidence: FaultEvidence): Problem {
  if (!evidence.seen.length)
    throw new CoreError('value.out-of-range', 'Say first what it looks like.', { path: 'seen' });
  const possible = CAUSES.filter((cause) => (evidence.possible ?? CAUSES).includes(cause));
  if (!possible.length)
    throw new CoreError('value.out-of-range', 'No cause is left that could be.', { path: 'possible' });
  return { ...evidence, possible, weights: possible.map((cause) => weightOf(cause, evidence.facts ?? [])) };
}

function weightOf(cause: Cause, facts: readonly CauseWeights[]): number {
  const product = facts.reduce((odds, weights) => odds * requirePositive('weight', weights[cause] ?? 1), 1);
  return Math.min(MOST_WEIGHT, Math.max(1 / MOST_WEIGHT, product));
}

interface Problem extends FaultEvidence {
  readonly possible: readonly Cause[];
  readonly weights: readonly number[];
}

/** Shares of causes, and cause by fault how often it shows. */
interface Tables {
  readonly shares: readonly number[];
  readonly shows: readonly (readonly number[])[];
}

function meanTables(possible: readonly Cause[], { counts, links }: FaultKnowledge): Tables {
  const all = [...counts.values()].reduce((sum, n) => sum + n, 0);
  return {
    shares: possible.map((cause) => counts.get(cause)! / all),
    shows: possible.map((cause) => FAULTS.map((fault) => meanOf(links.get(cause)!.get(fault)!))),
  };
}

const meanOf = ({ seen, not }: BetaCounts) => seen / (seen + not);

function drawnTables(possible: readonly Cause[], { counts, links }: FaultKnowledge, random: Random): Tables {
  const drawn = new Map([...counts].map(([cause, n]) => [cause, gammaDraw(n, random)]));
  const all = [...drawn.values()].reduce((sum, n) => sum + n, 0);
  return {
    shares: possible.map((cause) => drawn.get(cause)! / all),
    shows: possible.map((cause) => FAULTS.map((fault) => betaDraw(links.get(cause)!.get(fault)!, random))),
  };
}

function betaDraw({ seen, not }: BetaCounts, random: Random): number {
  if (seen <= 0) return 0;
  const yes = gammaDraw(seen, random);
  return yes / (yes + gammaDraw(not, random));
}

/** A draw from Gamma(shape, 1): Marsaglia & Tsang 2000, with their step up for shapes below 1. */
function gammaDraw(shape: number, random: Random): number {
  if (shape < 1) return gammaDraw(shape + 1, random) * (1 - random()) ** (1 / shape);
  const d = shape - 1 / 3;
  for (;;) {
    const x = standardNormal(random);
    const v = (1 + x / Math.sqrt(9 * d)) ** 3;
    if (v > 0 && Math.log(1 - random()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v;
  }
}

function drawnWeights(problem: Problem, random: Random): Problem {
  const weights = problem.weights.map((weight) =>
    weight === 1 ? 1 : weight * Math.exp(WEIGHT_SPREAD * standardNormal(random)),
  );
  return { ...problem, weights };
}

/** Sums over sets of causes. */
interface Posterior {
  readonly chances: Float64Array;
  /** By the first and the second of the two: first × causes + second. */
  readonly pairs: Float64Array;
  readonly seen: number;
}

/**
 * Sums the chance of the evidence over all sets of up to three causes. What stays silent multiplies up as causes join: a row a depth, first the
 * faults that could be seen, then the tests.
 */
function posterior(problem: Problem, { shares, shows }: Tables): Posterior {
  const { seen, possible, weights, tests = [] } = problem;
  const hidden = hiddenBy(seen);
  const told = FAULTS.flatMap((fault, f) => (hidden.includes(fault) ? [] : [{ f, pressed: seen.includes(fault) }]));
  const width = told.length + tests.length;
  const positive = [...told.map(({ pressed }) => pressed), ...tests.map(({ found }) => found)];
  const miss = possible.map((cause, i) =>
    Float64Array.from([
      ...told.map(({ f }) => 1 - shows[i]![f]!),
      ...tests.map(({ finds }) => 1 - (finds[cause] ?? 0)),
    ]),
  );
  const silent = Array.from({ length: MOST_TOGETHER + 1 }, () => new Float64Array(width));
  silent[0]!.set([...told.map(() => 1 - BY_ITSELF), ...tests.map(({ falseAlarm }) => 1 - falseAlarm)]);
  const n = possible.length;
  const chances = new Float64Array(n);
  const pairs = new Float64Array(n * n);
  const set = [0, 0, 0];
  let total = 0;
  const grow = (depth: number, from: number, prior: number) => {
    const [before, now] = [silent[depth]!, silent[depth + 1]!];
    for (let i = from; i < n; i += 1) {
      set[depth] = i;
      const odds = prior * JOINS * shares[i]! * weights[i]!;
      let likely = odds;
      for (let k = 0; k < width; k += 1) {
        const quiet = (now[k] = before[k]! * miss[i]![k]!);
        likely *= positive[k] ? 1 - quiet : k < told.length ? 1 - NOTICED * (1 - quiet) : quiet;
      }
      total += likely;
      for (let d = 0; d <= depth; d += 1) chances[set[d]!]! += likely;
      if (depth === 1) pairs[set[0]! * n + i] = likely;
      if (depth + 1 < MOST_TOGETHER) grow(depth + 1, i + 1, odds);
    }
  };
  grow(0, 0, 1);
  return { chances: chances.map((sum) => sum / total), pairs: pairs.map((sum) => sum / total), seen: total };
}

/** A pair at work together is worth its line from here on. */
const PAIR_FROM = 0.08;

function pairOf(possible: readonly Cause[], pairs: Float64Array): CauseRanking['pair'] {
  const best = pairs.reduce((at, chance, i) => (chance > pairs[at]! ? i : at), 0);
  if (pairs[best]! < PAIR_FROM) return null;
  const n = possible.length;
  return { causes: [possible[Math.floor(best / n)]!, possible[best % n]!], chance: pairs[best]! };
}

/** Chance that a test finds something, by all that is known before it. @throws as rankCauses */
export function chanceFound(
  evidence: FaultEvidence,
  test: Pick<TestEvidence, 'finds' | 'falseAlarm'>,
  knowledge: FaultKnowledge,
): number {
  const problem = problemOf(evidence);
  const tables = meanTables(problem.possible, knowledge);
  const before = evidence.tests ?? [];
  const seenWith = (tests: readonly TestEvidence[]) => posterior({ ...problem, tests }, tables).seen;
  return seenWith([...before, { ...test, found: true }]) / seenWith(before);
}

/** The chances alone, without their intervals: for asking what a result would do. @throws as rankCauses */
export function causeChances(evidence: FaultEvidence, knowledge: FaultKnowledge): ReadonlyMap<Cause, number> {
  const problem = problemOf(evidence);
  const { chances } = posterior(problem, meanTables(problem.possible, knowledge));
  return new Map(problem.possible.map((cause, i) => [cause, chances[i]!]));
}
