import { CoreError } from '../support/core-error.js';
import { seededRandom, standardNormal, type Random } from '../support/random.js';
import { requireNotNegative } from '../support/require.js';
import { CRITERIA, CRITERION_INFO, type Criterion, type Weights } from './criteria.js';
import type { CriterionEstimate } from './estimate.js';

/** Version of the scoring; a kept choice freezes it with weights and seed. */
export const CHOICE_MODEL_VERSION = 1;

/** Something that can be taken: a method with or without a compound. */
export interface ChoiceOption {
  readonly id: string;
  readonly name: string;
  readonly estimates: Readonly<Record<Criterion, CriterionEstimate>>;
}

/** One term of a score: what the weights make of one criterion. */
export interface ScoreTerm {
  readonly criterion: Criterion;
  /** Share of the weights, 0-1. */
  readonly weight: number;
  /** 0-1; a missing number counts at the middle of what it may score. */
  readonly valueScore: number;
  readonly valueScoreLow: number;
  readonly valueScoreHigh: number;
  /** Points of 100. */
  readonly points: number;
}

export interface RankedOption {
  readonly option: ChoiceOption;
  readonly rank: number;
  /** Points of 100, the sum of its terms. */
  readonly score: number;
  /** Where the score lies nine times in ten over the spread of the evidence. */
  readonly low: number;
  readonly high: number;
  /** Share of the draws in which it came first. */
  readonly wins: number;
  readonly terms: readonly ScoreTerm[];
  /** Not on the Pareto set: another option is at least as good in everything and better in something. */
  readonly dominatedBy: string | null;
}

interface CentralValueScore {
  readonly valueScore: number;
  readonly low: number;
  readonly high: number;
  readonly known: boolean;
}

/** Worths drawn from the evidence, made once; weights can then move without drawing again. */
export interface ChoiceDraws {
  readonly options: readonly ChoiceOption[];
  readonly draws: number;
  /** Worth by option, criterion and draw, one after another. */
  readonly valueScores: Float64Array;
  readonly central: readonly Readonly<Record<Criterion, CentralValueScore>>[];
}

const DRAWS = 400;

/**
 * Draws the value score of every option on every criterion from the spread of its evidence: normal round a measured number, even over
 * the whole range of a missing one. Seeded, so that a ranking can be made again from the record.
 * @throws choose.no-options
 */
export function drawValueScores(options: readonly ChoiceOption[], seed: number, draws = DRAWS): ChoiceDraws {
  if (options.length === 0) throw new CoreError('choose.no-options', 'Nothing is offered for this part and head.');
  const random = seededRandom(seed);
  const count = CRITERIA.length;
  const valueScores = new Float64Array(options.length * count * draws);
  const best = Object.fromEntries(CRITERIA.map((criterion) => [criterion, reference(criterion, options)])) as Record<
    Criterion,
    number
  >;
  const central = options.map(({ estimates }, o) => {
    const row = {} as Record<Criterion, CentralValueScore>;
    CRITERIA.forEach((criterion, c) => {
      const estimate = estimates[criterion];
      const valueScore = (value: number) => valueScoreOf(criterion, value, best[criterion]);
      for (let d = 0; d < draws; d += 1) valueScores[(o * count + c) * draws + d] = valueScore(drawn(estimate, random));
      const ends = [valueScore(estimate.low), valueScore(estimate.high)].sort((a, b) => a - b) as [number, number];
      row[criterion] = {
        valueScore: estimate.figure ? valueScore(estimate.figure.value) : (ends[0] + ends[1]) / 2,
        low: ends[0],
        high: ends[1],
        known: estimate.figure !== null,
      };
    });
    return row;
  });
  return { options, draws, valueScores, central };
}

/**
 * Ranks options by the weighted sum of their value scores, with the interval of each score, how often each comes first, every term, and
 * what dominates what. A strictly better option never ranks below.
 * @throws choose.no-weight when every weight is 0; value.negative
 */
export function rankOptions(drawn: ChoiceDraws, weights: Weights): RankedOption[] {
  const shares = weightShares(weights);
  const { options, draws, valueScores, central } = drawn;
  const count = CRITERIA.length;
  const scores = options.map((_, o) => {
    const row = new Float64Array(draws);
    for (let c = 0; c < count; c += 1) {
      const share = 100 * shares[c]!;
      if (share === 0) continue;
      const at = (o * count + c) * draws;
      for (let d = 0; d < draws; d += 1) row[d]! += share * valueScores[at + d]!;
    }
    return row;
  });
  const wins = winShares(scores, draws);
  const dominated = dominators(central, shares);
  const rows = options.map((option, o) => {
    const terms = CRITERIA.map((criterion, c): ScoreTerm => {
      const { valueScore, low, high } = central[o]![criterion];
      return {
        criterion,
        weight: shares[c]!,
        valueScore,
        valueScoreLow: low,
        valueScoreHigh: high,
        points: 100 * shares[c]! * valueScore,
      };
    });
    const sorted = Float64Array.from(scores[o]!).sort();
    const score = terms.reduce((sum, { points }) => sum + points, 0);
    return {
      option,
      score,
      // A value may lie beyond the best that is known; a score of 100 says no more than 100.
      low: Math.max(0, Math.min(score, sorted[Math.floor(0.05 * (draws - 1))]!)),
      high: Math.min(100, Math.max(score, sorted[Math.ceil(0.95 * (draws - 1))]!)),
      wins: wins[o]!,
      terms,
      dominatedBy: dominated[o] === null ? null : options[dominated[o]!]!.id,
    };
  });
  return rows
    .sort(
      (a, b) => b.score - a.score || Number(a.dominatedBy !== null) - Number(b.dominatedBy !== null) || b.wins - a.wins,
    )
    .map((row, i) => ({ ...row, rank: i + 1 }));
}

/** Weights as shares of their sum, in the order of CRITERIA. @throws choose.no-weight, value.negative */
export function weightShares(weights: Weights): number[] {
  const all = CRITERIA.map((criterion) => requireNotNegative(CRITERION_INFO[criterion].label, weights[criterion]));
  const total = all.reduce((sum, w) => sum + w, 0);
  if (total <= 0) throw new CoreError('choose.no-weight', 'At least one thing must count.');
  return all.map((w) => w / total);
}

/**
 * Worth of a value of a criterion: 0 to 1 on a fixed scale. On a ratio scale 1 at `best`, 0 a factor `span` worse, and less than 0
 * beyond: so another option that moves the best moves all value scores alike, and never turns two others round.
 */
export function valueScoreOf(criterion: Criterion, value: number, best: number): number {
  const { scale } = CRITERION_INFO[criterion];
  if (scale.kind === 'linear') return Math.min(1, Math.max(0, (value - scale.worst) / (scale.best - scale.worst)));
  const positive = Math.max(value, Number.MIN_VALUE);
  const behind = scale.better === 'more' ? best / positive : positive / best;
  return 1 - Math.log(behind) / Math.log(scale.span);
}

/** The best central value of a ratio scale among the options that know it (the best possible when none does). */
function reference(criterion: Criterion, options: readonly ChoiceOption[]): number {
  const { scale } = CRITERION_INFO[criterion];
  if (scale.kind !== 'ratio') return 1;
  const known = options.flatMap(({ estimates }) => estimates[criterion].figure?.value ?? []);
  const values = known.length
    ? known
    : options.map(({ estimates: all }) => (scale.better === 'more' ? all[criterion].high : all[criterion].low));
  const positive = values.filter((value) => value > 0);
  if (positive.length === 0) return 1;
  return scale.better === 'more' ? Math.max(...positive) : Math.min(...positive);
}

function drawn(estimate: CriterionEstimate, random: Random): number {
  if (!estimate.figure) return estimate.low + (estimate.high - estimate.low) * random();
  const { value } = estimate.figure;
  if (estimate.sd === 0) return value;
  // What is compared by ratio stays above 0: log-normal with the same spread.
  return CRITERION_INFO[estimate.criterion].scale.kind === 'ratio'
    ? value * Math.exp((estimate.sd / value) * standardNormal(random))
    : value + estimate.sd * standardNormal(random);
}

/** Share of draws in which each option is first; a tie is shared. */
function winShares(scores: readonly Float64Array[], draws: number): number[] {
  const wins = new Array<number>(scores.length).fill(0);
  for (let d = 0; d < draws; d += 1) {
    let top = -Infinity;
    let first: number[] = [];
    scores.forEach((row, o) => {
      if (row[d]! > top + 1e-12) [top, first] = [row[d]!, [o]];
      else if (row[d]! > top - 1e-12) first.push(o);
    });
    for (const o of first) wins[o]! += 1 / first.length;
  }
  return wins.map((n) => n / draws);
}

/**
 * For each option the first other that is at least as good in everything that counts and better in something, whatever the missing
 * numbers turn out to be; null on the Pareto set.
 */
function dominators(central: ChoiceDraws['central'], shares: readonly number[]): (number | null)[] {
  const counts = CRITERIA.filter((_, c) => shares[c]! > 0);
  return central.map((own, o) => {
    const at = central.findIndex((other, k) => {
      if (k === o) return false;
      const sure = (row: typeof own, criterion: Criterion, end: 'low' | 'high') =>
        row[criterion].known ? row[criterion].valueScore : row[criterion][end];
      const noWorse = counts.every((criterion) => sure(other, criterion, 'low') >= sure(own, criterion, 'high'));
      return noWorse && counts.some((criterion) => sure(other, criterion, 'low') > sure(own, criterion, 'high'));
    });
    return at < 0 ? null : at;
  });
}
