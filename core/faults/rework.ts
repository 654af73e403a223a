import { requireNotNegative, requireWithin } from '../support/require.js';
import { COATING_CAUSES, type Cause } from './causes.js';
import type { RankedCause } from './rank-causes.js';
import type { Fault } from './symptoms.js';

/** What may be done with a piece that came out badly. */
export const REWORK_WAYS = [
  'redo the region',
  'coat and mark over',
  'strip and start again',
  'accept',
  'scrap',
] as const;
export type ReworkWay = (typeof REWORK_WAYS)[number];

/** How often a way comes out well where its cause is put right, as usual practice: counts of a Beta. Common practice, no source. */
const USUAL_WAYS: Record<
  'redo the region' | 'coat and mark over' | 'strip and start again',
  { good: number; bad: number }
> = {
  'redo the region': { good: 5, bad: 2 },
  'coat and mark over': { good: 3.5, bad: 2.5 },
  'strip and start again': { good: 6, bad: 1 },
};
/** A cause that stays as it is spoils the piece again so often. Common practice, no source. */
const COMES_BACK = 0.7;

/** Causes that another coat laid with care, or another placing, takes away by itself. */
const CURED_BY_CARE: readonly Cause[] = [
  ...COATING_CAUSES.filter((cause) => cause !== 'something else' && cause !== 'compound off'),
  'fired before it was dry',
  'moved or misplaced',
  'out of focus',
  'warped or tilted',
  'rinsed too little',
];

/** Faults that no further mark mends. */
const BEYOND: readonly Fault[] = ['chipped or crazed'];
/** Faults of a place, that a region of it can mend. */
const OF_A_PLACE: readonly Fault[] = [
  'faint in one corner',
  'pale along one edge',
  'patchy',
  'density drifts',
  'faint strokes',
];
/** Faults that are already deeper than another mark over them. */
const NOT_OVER: readonly Fault[] = ['halo or brown', 'out of place', 'residue left'];

/** What a piece takes at each station, and what it costs. Money in minor units. */
export interface PieceWork {
  readonly coatMinutes: number;
  readonly dryMinutes: number;
  readonly markMinutes: number;
  readonly cleanMinutes: number;
  readonly stripMinutes: number;
  readonly compoundMinor: number;
  readonly compoundG: number;
  readonly blankMinor: number;
  readonly labourMinorPerMinute: number;
  readonly laserMinorPerMinute: number;
  /** Share of the mark that a region is, 0 to 1. */
  readonly regionShare: number;
  /** Minutes to lay it in and align it to its old mark. */
  readonly placeMinutes: number;
}

export interface ReworkPlan {
  readonly way: ReworkWay;
  /** Of which the drying waits by itself. */
  readonly minutes: number;
  readonly handsMinutes: number;
  readonly costMinor: number;
  readonly compoundG: number;
  /** That it comes out, 0 to 1; null for what is not tried. */
  readonly chance: { readonly value: number; readonly low: number; readonly high: number } | null;
  /** Pieces of the shop that went this way before, and how many came out. */
  readonly before: { readonly good: number; readonly made: number };
  /** What is to be said with it. */
  readonly says: string;
  /** Why it cannot be; empty where it can. */
  readonly not: string;
}

/** Pieces of the shop that went a way before. */
export type WaysBefore = Partial<Record<ReworkWay, { readonly good: number; readonly made: number }>>;

/**
 * Every way out with its time, cost and chance. The chance is how often the way comes out where the cause is put right (usual practice, with
 * the shop's own pieces counted in: Beta), times how likely nothing that stays as it is spoils the piece again.
 * @param put causes that are put right: by a remedy that was taken, or by care
 * @throws value.out-of-range, value.negative
 */
export function planRework(
  work: PieceWork,
  of: {
    readonly seen: readonly Fault[];
    readonly ranking: readonly RankedCause[];
    readonly put: readonly Cause[];
    readonly before: WaysBefore;
  },
): ReworkPlan[] {
  requireWithin('share of the mark', work.regionShare, 0, 1);
  Object.entries(work).forEach(([name, value]) => requireNotNegative(name, value));
  return REWORK_WAYS.map((way) => {
    const before = of.before[way] ?? { good: 0, made: 0 };
    const not = whyNot(way, of.seen);
    const steps = stepsOf(way, work);
    return {
      ...{ way, before, not, says: SAYS[way] },
      ...steps,
      chance: not ? null : chanceOf(way, before, of.ranking, of.put),
    };
  });
}

const SAYS: Record<ReworkWay, string> = {
  'redo the region': 'The join may show; only the region is coated.',
  'coat and mark over': 'Lines lie double where it is off by a hair; strokes grow wider.',
  'strip and start again': 'What is bonded comes off only with the surface: its finish is lost there.',
  accept: 'Where it is not seen, and whoever ordered it says so.',
  scrap: 'A new blank, from the beginning.',
};

function whyNot(way: ReworkWay, seen: readonly Fault[]): string {
  if (way === 'accept' || way === 'scrap') return '';
  const beyond = seen.find((fault) => BEYOND.includes(fault));
  if (beyond) return 'A crack stays, and may grow: no further mark mends it.';
  if (way === 'redo the region' && !seen.some((fault) => OF_A_PLACE.includes(fault)))
    return 'The fault is not of one place.';
  if (way === 'coat and mark over' && seen.some((fault) => NOT_OVER.includes(fault)))
    return 'Another mark over it does not take this away.';
  return '';
}

function stepsOf(
  way: ReworkWay,
  work: PieceWork,
): Pick<ReworkPlan, 'minutes' | 'handsMinutes' | 'costMinor' | 'compoundG'> {
  if (way === 'accept') return { minutes: 0, handsMinutes: 0, costMinor: 0, compoundG: 0 };
  const share = way === 'redo the region' ? work.regionShare : 1;
  const beam = share * work.markMinutes;
  const hands =
    work.coatMinutes +
    work.cleanMinutes +
    work.placeMinutes +
    (way === 'strip and start again' ? work.stripMinutes : 0);
  const compoundG = share * work.compoundG;
  const blank = way === 'scrap' ? work.blankMinor : 0;
  const costMinor =
    blank + share * work.compoundMinor + (hands + beam) * work.labourMinorPerMinute + beam * work.laserMinorPerMinute;
  return { minutes: hands + beam + work.dryMinutes, handsMinutes: hands + beam, costMinor, compoundG };
}

/** Normal quantile of a two-sided nine of ten. */
const Z = 1.645;

function chanceOf(
  way: ReworkWay,
  before: { readonly good: number; readonly made: number },
  ranking: readonly RankedCause[],
  put: readonly Cause[],
): ReworkPlan['chance'] {
  if (way === 'accept' || way === 'scrap') return null;
  const usual = USUAL_WAYS[way];
  const [a, b] = [usual.good + before.good, usual.bad + before.made - before.good];
  const mean = a / (a + b);
  const sd = Math.sqrt((a * b) / ((a + b) ** 2 * (a + b + 1)));
  const spared = (of: (cause: RankedCause) => number) =>
    ranking.reduce(
      (product, cause) =>
        put.includes(cause.cause) || CURED_BY_CARE.includes(cause.cause)
          ? product
          : product * (1 - COMES_BACK * of(cause)),
      1,
    );
  return {
    value: mean * spared(({ chance }) => chance),
    low: Math.max(0, mean - Z * sd) * spared(({ high }) => high),
    high: Math.min(1, mean + Z * sd) * spared(({ low }) => low),
  };
}
