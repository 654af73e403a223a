import { CoreError } from '../support/core-error.js';
import { requirePositive, requireWithin } from '../support/require.js';
import { PART_GUESSES, type PartGuess } from './parts.js';
import { DENSITY_TEST, WORD_TESTS, type Observations, type TestKey, type WordTest } from './tests.js';

/** Version of the tables; an identification keeps it. */
export const IDENTIFY_MODEL_VERSION = 1;

/** A guess with its probability. */
export interface RankedGuess {
  readonly guess: PartGuess;
  readonly probability: number;
}

/** A test not made yet, and how much it would tell. */
export interface NextTest {
  readonly test: TestKey;
  readonly name: string;
  readonly how: string;
  readonly harm: string;
  readonly minutes: number;
  /** Expected fall of the uncertainty, bits. */
  readonly bits: number;
}

export interface Identification {
  readonly ranked: readonly RankedGuess[];
  /** Uncertainty left, bits. */
  readonly bits: number;
  /** Tests still open, the most telling first; those that spare the part before those that mark it where they tell nearly as much. */
  readonly next: readonly NextTest[];
  /** Dangerous guesses that cannot be ruled out, most likely first. */
  readonly dangers: readonly RankedGuess[];
  /** Said when an answer fits no guess: it is kept but not counted. */
  readonly unfit: readonly string[];
}

/** Chance of an answer that a guess does not name: slips of the eye and odd parts. */
const FLOOR = 0.02;
/** How far parts of one kind differ in density, as a share: alloy, plating, bubbles. */
const DENSITY_SPREAD = 0.015;
/** A dangerous guess is shown from this probability on. */
const DANGER_FROM = 0.01;
/** Nothing within so many standard deviations: the density fits nothing. */
const DENSITY_LIMIT = 4;

/**
 * What a part is, by Bayes' rule over material and surface layer from quick tests taken as independent given the part; also which
 * test would tell most next. Rules and likelihoods: common practice, no source.
 * @throws value.not-positive, value.out-of-range for a density or its error; identify.ruled-out for an answer that is none of its test's
 * @example identifyPart({ words: { colour: 'yellow or gold', solvent: 'a clear skin goes tacky' } }).ranked[0].guess.layer // 'lacquered'
 */
export function identifyPart(observations: Observations): Identification {
  const unfit: string[] = [];
  const asked = Object.entries(observations.words) as [WordTest, string][];
  for (const [test, answer] of asked) requireAnswer(test, answer);
  let weights = PART_GUESSES.map(({ prior }) => prior);
  for (const [test, answer] of asked) weights = weights.map((w, i) => w * likelihood(PART_GUESSES[i]!, test, answer));
  const { density } = observations;
  if (density) {
    requirePositive('density', density.value);
    requireWithin('density error', requirePositive('density error', density.error), 0, 1);
    if (PART_GUESSES.every((guess) => Math.abs(densityZ(guess, density)) > DENSITY_LIMIT)) {
      unfit.push(
        `${density.value} g/cm³ fits nothing known here; it is kept but not counted. Weigh again: is it hollow, is air caught in it, are the units right?`,
      );
    } else {
      weights = weights.map((w, i) => w * densityLikelihood(PART_GUESSES[i]!, density));
    }
  }
  const chances = normalised(weights);
  const ranked = PART_GUESSES.map((guess, i) => ({ guess, probability: chances[i]! })).sort(
    (a, b) => b.probability - a.probability,
  );
  return {
    ranked,
    bits: entropy(chances),
    next: nextTests(chances, observations),
    dangers: ranked.filter(({ guess, probability }) => guess.danger && probability >= DANGER_FROM),
    unfit,
  };
}

function requireAnswer(test: WordTest, answer: string): void {
  const known = WORD_TESTS[test] as { name: string; answers: readonly string[] } | undefined;
  if (!known?.answers.includes(answer))
    throw new CoreError('identify.ruled-out', `“${answer}” is no answer to ${known?.name ?? test}.`, { path: test });
}

function likelihood(guess: PartGuess, test: WordTest, answer: string): number {
  const shown = guess.shows[test] as Record<string, number> | undefined;
  if (!shown) return 1 / WORD_TESTS[test].answers.length;
  const total = WORD_TESTS[test].answers.reduce((sum, word) => sum + Math.max(FLOOR, shown[word] ?? 0), 0);
  return Math.max(FLOOR, shown[answer] ?? 0) / total;
}

function spread(guess: PartGuess, error: number): number {
  return guess.density * Math.hypot(error, DENSITY_SPREAD);
}

function densityZ(guess: PartGuess, density: { value: number; error: number }): number {
  return (density.value - guess.density) / spread(guess, density.error);
}

function densityLikelihood(guess: PartGuess, density: { value: number; error: number }): number {
  const z = densityZ(guess, density);
  return Math.exp(-0.5 * z * z) / spread(guess, density.error) + 1e-9;
}

/** Expected fall of entropy of each open test, most telling first; a test that marks the part must tell a third more to lead. */
function nextTests(chances: readonly number[], observations: Observations): NextTest[] {
  const now = entropy(chances);
  const tests: NextTest[] = (Object.keys(WORD_TESTS) as WordTest[])
    .filter((test) => observations.words[test] === undefined)
    .map((test) => ({ test, ...WORD_TESTS[test], bits: now - expectedWordEntropy(chances, test) }));
  if (!observations.density)
    tests.push({ test: 'density', ...DENSITY_TEST, bits: now - expectedDensityEntropy(chances) });
  const counted = ({ bits, harm }: NextTest) => (harm === 'spares the part' ? bits : bits / 1.34);
  return tests
    .map(({ test, name, how, harm, minutes, bits }) => ({ test, name, how, harm, minutes, bits: Math.max(0, bits) }))
    .sort((a, b) => counted(b) - counted(a));
}

function expectedWordEntropy(chances: readonly number[], test: WordTest): number {
  return WORD_TESTS[test].answers.reduce((sum, answer) => {
    const joint = chances.map((p, i) => p * likelihood(PART_GUESSES[i]!, test, answer));
    return sum + joint.reduce((a, b) => a + b, 0) * entropy(normalised(joint));
  }, 0);
}

/** Each guess's own density stands for what would be read if it were true, at ± 3 %. */
function expectedDensityEntropy(chances: readonly number[]): number {
  const remembered = new Map<number, number>();
  return chances.reduce((sum, p, i) => {
    const value = PART_GUESSES[i]!.density;
    let after = remembered.get(value);
    if (after === undefined) {
      after = entropy(
        normalised(chances.map((q, k) => q * densityLikelihood(PART_GUESSES[k]!, { value, error: 0.03 }))),
      );
      remembered.set(value, after);
    }
    return sum + p * after;
  }, 0);
}

function normalised(weights: readonly number[]): number[] {
  const total = weights.reduce((sum, w) => sum + w, 0);
  return weights.map((w) => (total > 0 ? w / total : 0));
}

function entropy(chances: readonly number[]): number {
  return chances.reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0);
}
