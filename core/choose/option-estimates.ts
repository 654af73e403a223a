import { pieceCostFigure, type Ranged } from '../cost/cost-per-piece.js';
import { yieldShare } from '../cost/yield-share.js';
import {
  decisive,
  makeFigure,
  supporting,
  type Figure,
  type FigureInput,
  type Grade,
  type RecordRef,
} from '../evidence/figure.js';
import { requireWithin } from '../support/require.js';
import { CRITERIA, handlingScore, SOFT_CRITERIA, type Criterion } from './criteria.js';
import {
  estimateFromFigure,
  estimateFromSamples,
  intervalRound,
  missingEstimate,
  type CriterionEstimate,
} from './estimate.js';
import type { CoatHandling } from './vocabulary.js';

/** Readings of runs with one compound (or none): contrast signed, dark on light positive; cleaning in minutes a piece. */
export interface MarkEvidence {
  readonly contrast: readonly number[];
  readonly evenness: readonly number[];
  readonly cleaning: readonly number[];
  /** Share of durability tests stood, a number a run. */
  readonly durability: readonly number[];
  readonly good: number;
  readonly made: number;
  /** Some of the runs stood the abrasive pad. */
  readonly scrubbed: boolean;
  readonly refs: readonly RecordRef[];
}

export const NO_EVIDENCE: MarkEvidence = {
  contrast: [],
  evenness: [],
  cleaning: [],
  durability: [],
  good: 0,
  made: 0,
  scrubbed: false,
  refs: [],
};

/** The criteria read off runs, and where a run's readings of them stand. */
const READ = ['contrast', 'evenness', 'cleaning', 'durability'] as const;
type ReadCriterion = (typeof READ)[number];

/** Usual spread of single readings, for as long as the shop has too few of its own (common practice, no source). */
const USUAL_SPREAD: Record<ReadCriterion, number> = { contrast: 0.8, evenness: 0.8, cleaning: 0.5, durability: 0.25 };

/** What a carried number may be off by besides its own spread, in the criterion's unit. */
const CARRIED_SPREAD: Record<ReadCriterion, number> = { contrast: 1, evenness: 0.8, cleaning: 0.5, durability: 0.2 };

/** The spread of single readings within pairings, pooled over all that were read at least twice; the usual one without such. */
export function pooledSpread(groups: readonly MarkEvidence[]): Record<ReadCriterion, number> {
  const pooled = {} as Record<ReadCriterion, number>;
  for (const criterion of READ) {
    let [squares, degrees] = [0, 0];
    for (const group of groups) {
      const samples = group[criterion];
      if (samples.length < 2) continue;
      const mean = samples.reduce((sum, x) => sum + x, 0) / samples.length;
      squares += samples.reduce((sum, x) => sum + (x - mean) ** 2, 0);
      degrees += samples.length - 1;
    }
    pooled[criterion] = degrees >= 4 ? Math.max(Math.sqrt(squares / degrees), 0.05) : USUAL_SPREAD[criterion];
  }
  return pooled;
}

/** What is known of an option on a ticket's part and head. */
export interface OptionFacts {
  /** On this very substrate, head, lens and compound, all in their present revisions. */
  readonly own: MarkEvidence;
  /** The same compound on other substrates of the family, heads of the class, or earlier revisions. */
  readonly near: MarkEvidence;
  /** Area rate in cm²/min at the quickest setting that holds, with its grade; null while nobody proved one. */
  readonly rate: Figure | null;
  readonly coat: {
    readonly handling: CoatHandling;
    readonly shelfLifeDays: number | null;
    readonly coats: number;
    /** Compound for a piece, minor units. */
    readonly compoundMinor: Ranged;
    readonly compoundGrade: Grade;
    readonly thinnerMinor: number;
    readonly soft: Readonly<Partial<Record<Criterion, number | null>>>;
    readonly ref: RecordRef;
  } | null;
}

/** What the ticket and the shop bring. Area in cm², rates in minor units a minute. */
export interface OptionJob {
  readonly wantsDark: boolean;
  readonly marksDark: boolean;
  readonly markAreaCm2: number;
  readonly blankMinor: number;
  readonly laserMinorPerMinute: number;
  readonly labourMinorPerMinute: number;
  readonly spread: Record<ReadCriterion, number>;
  /** Area rates known for the other options, cm²/min: the range of a missing one. */
  readonly ratesElsewhere: readonly number[];
}

/** Hands-on minutes a coat takes a piece before cleaning: shake, strokes, turning (common practice, no source). */
export const COAT_MINUTES: Ranged = { value: 0.5, low: 0.3, high: 1 };

/**
 * Every criterion of an option as a number with interval and grade, or as a range with what would fill it. Own runs go first; runs
 * of the same compound nearby are carried over with a wider interval.
 */
export function optionEstimates(facts: OptionFacts, job: OptionJob): Record<Criterion, CriterionEstimate> {
  const read = Object.fromEntries(READ.map((criterion) => [criterion, readEstimate(criterion, facts, job)])) as Record<
    ReadCriterion,
    CriterionEstimate
  >;
  const rate = facts.rate
    ? estimateFromFigure('rate', facts.rate)
    : missingEstimate('rate', 'coupon needed', rangeAround(job.ratesElsewhere));
  const soft = Object.fromEntries(SOFT_CRITERIA.map((criterion) => [criterion, softEstimate(criterion, facts)]));
  const all = {
    ...read,
    rate,
    handling: handlingEstimate(facts),
    cost: costEstimate(facts, job, rate, read.cleaning),
    ...soft,
  };
  return Object.fromEntries(CRITERIA.map((criterion) => [criterion, all[criterion as keyof typeof all]])) as Record<
    Criterion,
    CriterionEstimate
  >;
}

function readEstimate(criterion: ReadCriterion, { own, near, coat }: OptionFacts, job: OptionJob): CriterionEstimate {
  const signed = (samples: readonly number[]) =>
    criterion === 'contrast' && !job.wantsDark ? samples.map((value) => -value) : samples;
  const usual = job.spread[criterion];
  if (own[criterion].length) {
    const grade: Grade = criterion === 'cleaning' ? 'measured' : own.scrubbed ? 'proved by eye' : 'seen';
    return estimateFromSamples(criterion, signed(own[criterion]), usual, runInputs(own, own[criterion].length, grade));
  }
  if (near[criterion].length) {
    const carried = estimateFromSamples(
      criterion,
      signed(near[criterion]),
      usual,
      runInputs(near, near[criterion].length, 'carried'),
    );
    return widened(carried, CARRIED_SPREAD[criterion]);
  }
  if (criterion === 'contrast')
    return missingEstimate(criterion, 'coupon needed', job.marksDark === job.wantsDark ? [0, 5] : [-5, 0]);
  if (criterion === 'cleaning') return missingEstimate(criterion, 'run needed', coat ? [0.2, 6] : [0.05, 1]);
  return missingEstimate(criterion, criterion === 'durability' ? 'scrub needed' : 'coupon needed');
}

function runInputs(evidence: MarkEvidence, runs: number, grade: Grade): FigureInput[] {
  const named = evidence.refs.slice(0, 12).map((ref, i) => decisive(`run ${i + 1}`, grade, { ref }));
  return [decisive('judged runs', grade, { value: runs, unit: runs === 1 ? 'run' : 'runs' }), ...named];
}

function widened(estimate: CriterionEstimate, spread: number): CriterionEstimate {
  const sd = Math.hypot(estimate.sd, spread);
  const { low, high } = intervalRound(estimate.criterion, estimate.figure!.value, 1.645 * sd);
  return { ...estimate, sd, low, high, figure: { ...estimate.figure!, interval: { low, high, level: 0.9 } } };
}

/** From a third of the slowest known rate to half again the fastest; 1 to 30 cm²/min where none is known. */
function rangeAround(rates: readonly number[]): [number, number] {
  return rates.length ? [Math.min(...rates) / 3, Math.max(...rates) * 1.5] : [1, 30];
}

function handlingEstimate({ coat }: OptionFacts): CriterionEstimate {
  const inputs = coat
    ? [
        decisive('dry coat', 'stated', { value: coat.handling, ref: coat.ref }),
        decisive(
          'keeps',
          'stated',
          coat.shelfLifeDays === null ? { value: 'no limit' } : { value: coat.shelfLifeDays, unit: 'days' },
        ),
      ]
    : [decisive('no coat to touch', 'usual')];
  const value = coat ? handlingScore(coat.handling, coat.shelfLifeDays) : 10;
  return estimateFromFigure('handling', makeFigure({ formula: 'handlingScore', value, unit: 'of 10', inputs }));
}

function softEstimate(criterion: Criterion, { coat }: OptionFacts): CriterionEstimate {
  const score = coat ? coat.soft[criterion] : 10;
  if (score === null || score === undefined) return missingEstimate(criterion, 'not scored');
  const inputs = [decisive('scored by the shop', 'stated', { value: score, unit: 'of 10', ref: coat?.ref })];
  return estimateFromFigure(
    criterion,
    makeFigure({ formula: 'shopScore', value: shopScore(score), unit: 'of 10', inputs }),
  );
}

function costEstimate(
  facts: OptionFacts,
  job: OptionJob,
  rate: CriterionEstimate,
  cleaning: CriterionEstimate,
): CriterionEstimate {
  const { coat } = facts;
  const counted = facts.own.made ? facts.own : facts.near;
  const good = yieldShare(counted.good, counted.made);
  const middle = (estimate: CriterionEstimate) =>
    estimate.figure?.value ?? Math.sqrt(Math.max(estimate.low, 0.01) * Math.max(estimate.high, 0.01));
  const minutes = (cm2PerMinute: number) => job.markAreaCm2 / Math.max(cm2PerMinute, 1e-6);
  const laser: Ranged = {
    value: minutes(middle(rate)),
    low: minutes(Math.max(rate.high, middle(rate))),
    high: minutes(Math.min(rate.low || 1e-3, middle(rate))),
  };
  const coating = coat ? scaled(COAT_MINUTES, coat.coats) : { value: 0, low: 0, high: 0 };
  const hands: Ranged = {
    value: coating.value + middle(cleaning),
    low: coating.low + Math.min(cleaning.low, middle(cleaning)),
    high: coating.high + cleaning.high,
  };
  const compound = coat?.compoundMinor ?? { value: 0, low: 0, high: 0 };
  const figure = pieceCostFigure(
    {
      blankMinor: job.blankMinor,
      compoundMinor: compound.value,
      thinnerMinor: coat?.thinnerMinor ?? 0,
      laserMinutes: laser.value,
      laserMinorPerMinute: job.laserMinorPerMinute,
      labourMinutes: hands.value,
      labourMinorPerMinute: job.labourMinorPerMinute,
      yieldShare: good.value,
    },
    { compoundMinor: compound, laserMinutes: laser, labourMinutes: hands, yieldShare: good },
    [
      ...(coat
        ? [decisive('compound a piece', coat.compoundGrade, { value: compound.value / 100, ref: coat.ref })]
        : []),
      decisive('laser minutes a piece', rate.figure?.grade ?? 'guess', { value: laser.value, unit: 'min' }),
      decisive('cleaning a piece', cleaning.figure?.grade ?? 'guess', { value: middle(cleaning), unit: 'min' }),
      supporting('coating by hand a piece', 'usual', { value: coating.value, unit: 'min' }),
      supporting('share that comes out good', counted.made ? 'measured' : 'usual', { value: good.value }),
      ...(job.blankMinor ? [supporting('blank', 'stated', { value: job.blankMinor / 100 })] : []),
    ],
  );
  return estimateFromFigure('cost', figure);
}

function scaled(range: Ranged, by: number): Ranged {
  return { value: range.value * by, low: range.low * by, high: range.high * by };
}

/** A soft criterion as the shop scored it. @throws value.out-of-range outside 0-10 */
export function shopScore(score: number): number {
  return requireWithin('score', score, 0, 10);
}
