import {
  expectedGain,
  fitWindow,
  nextBlock,
  quickestSetting,
  seededRandom,
  windowMap,
  type WindowCell,
  type WindowFit,
} from '@unto/core';
import { TRUTH_FAMILIES, type TruthFamily, type WindowTruth } from '@unto/simulators/window-truths';
import {
  BENCH,
  bestRate,
  firstCoupon,
  FULL_W,
  JOB,
  ratios,
  REACH,
  secondCoupon,
  seedsOf,
  settingOf,
  SHARES,
  SPEEDS,
  trulyGood,
  VARIED,
} from './window-coats.js';
import { makeOracle } from './window-oracle.js';
import type { Line } from './line.js';

/**
 * The study of windows: what the model recommends over many hidden coats of families unlike one another, and what of it is true.
 */
export const COUPONS = ['24', '48', '80', '24 + 24 next', '24, kept'] as const;
export type CouponKind = (typeof COUPONS)[number];

/** Predicted and true chance of holding summed, and how many, by tenth of the predicted. */
type Tenth = { predicted: number; truly: number; count: number };

export interface Tally {
  coats: number;
  given: number;
  good: number;
  /** Share of the best safe rate of each that is truly good. */
  readonly shares: number[];
  possible: number;
  readonly tenths: readonly Tenth[];
}

const emptyTally = (): Tally => ({
  ...{ coats: 0, given: 0, good: 0, shares: [], possible: 0 },
  tenths: Array.from({ length: 10 }, () => ({ predicted: 0, truly: 0, count: 0 })),
});

function couponOf(family: TruthFamily, truth: WindowTruth, kind: CouponKind, n: number): WindowCell[] {
  const { first, second } = seedsOf(n);
  if (kind === '24, kept') return firstCoupon(family, truth, { size: 24, seed: first, numbers: true });
  if (kind !== '24 + 24 next') return firstCoupon(family, truth, { size: Number(kind) as 24 | 48 | 80, seed: first });
  const cells = firstCoupon(family, truth, { size: 24, seed: first });
  const fit = fitWindow({ cells, equipment: BENCH, seed: n });
  const block = nextBlock(fit, JOB, { reach: REACH, proven: quickestSetting(fit, JOB) });
  return block ? [...cells, ...secondCoupon(block, truth, second)] : cells;
}

/** Settings recommended on many hidden coats of a family from one kind of coupon. */
export function study(family: TruthFamily, kind: CouponKind, coats: number): Tally {
  const tally = emptyTally();
  for (let n = 1; n <= coats; n += 1) {
    const truth = family.make(seededRandom(seedsOf(n).coat));
    const fit = fitWindow({ cells: couponOf(family, truth, kind, n), equipment: BENCH, seed: n });
    calibrate(tally.tenths, family, truth, fit);
    const best = bestRate(family, truth);
    tally.coats += 1;
    if (best > 0) tally.possible += 1;
    const found = quickestSetting(fit, JOB);
    if (!found) continue;
    tally.given += 1;
    if (!trulyGood(truth, settingOf(found))) continue;
    tally.good += 1;
    tally.shares.push(Math.min(1, (found.speedMmPerS * found.intervalMm) / best));
  }
  return tally;
}

/** What next coupons were said to bring, and what they brought, over coats for which something was proven already. */
export interface GainTally {
  coupons: number;
  /** Chances that they prove something quicker, summed, and how many did. */
  said: number;
  proved: number;
  /** Seconds of a piece that those were said to save, summed over the ones that did, and what they saved. */
  saidSaved: number;
  saved: number;
}

/** Less is no gain, as a share of the time. */
const SEEN = 0.01;

/** Next coupons after 24 cells on hidden coats of a family. */
export function gainStudy(family: TruthFamily, coats: number): GainTally {
  const tally = { coupons: 0, said: 0, proved: 0, saidSaved: 0, saved: 0 };
  for (let n = 1; n <= coats; n += 1) {
    const { coat, first, second } = seedsOf(n);
    const truth = family.make(seededRandom(coat));
    const cells = firstCoupon(family, truth, { size: 24, seed: first });
    const fit = fitWindow({ cells, equipment: BENCH, seed: n });
    const proven = quickestSetting(fit, JOB);
    const block = proven && nextBlock(fit, JOB, { reach: REACH, proven });
    if (!block) continue;
    const after = quickestSetting(
      fitWindow({ cells: [...cells, ...secondCoupon(block, truth, second)], equipment: BENCH, seed: n }),
      JOB,
    );
    tally.coupons += 1;
    const gain = expectedGain(fit, JOB, { block, proven, equipment: BENCH });
    tally.said += gain.proves;
    if (!after || after.seconds >= proven.seconds * (1 - SEEN)) continue;
    tally.proved += 1;
    tally.saved += proven.seconds - after.seconds;
    tally.saidSaved += gain.saved?.middle ?? 0;
  }
  return tally;
}

function calibrate(tenths: readonly Tenth[], family: TruthFamily, truth: WindowTruth, fit: WindowFit): void {
  const powersW = ratios(SHARES.low * FULL_W, SHARES.high * FULL_W, 10);
  const speedsMmPerS = ratios(SPEEDS.low, SPEEDS.high, 14);
  for (const rest of VARIED[family.axes]) {
    const { holds } = windowMap(fit, { powersW, speedsMmPerS, rest: { ...rest, passes: 1 } });
    powersW.forEach((powerW, i) =>
      speedsMmPerS.forEach((speedMmPerS, j) => {
        const predicted = holds[i * speedsMmPerS.length + j]!;
        const tenth = tenths[Math.min(9, Math.floor(10 * predicted))]!;
        tenth.predicted += predicted;
        tenth.truly += truth.chances({ powerW, speedMmPerS, ...rest }).holds;
        tenth.count += 1;
      }),
    );
  }
}

/** Tenths with fewer places tell nothing. */
const ENOUGH = 30;

/** How far the predicted chance lies from the true one in the worst tenth that has enough places to tell. */
export const worstTenth = (tenths: readonly Tenth[]): number =>
  Math.max(...tenths.filter(({ count }) => count >= ENOUGH).map((t) => Math.abs(t.predicted - t.truly) / t.count));

/** Several families as one. */
export function together(tallies: readonly Tally[]): Tally {
  const sum = (pick: (tally: Tally) => number) => tallies.reduce((total, tally) => total + pick(tally), 0);
  return {
    ...{ coats: sum(({ coats }) => coats), given: sum(({ given }) => given), good: sum(({ good }) => good) },
    shares: tallies.flatMap(({ shares }) => shares),
    possible: sum(({ possible }) => possible),
    tenths: emptyTally().tenths.map((_, t) => ({
      predicted: sum(({ tenths }) => tenths[t]!.predicted),
      truly: sum(({ tenths }) => tenths[t]!.truly),
      count: sum(({ tenths }) => tenths[t]!.count),
    })),
  };
}

const mean = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;
const percent = (part: number, whole: number) => (whole ? `${Math.round((100 * part) / whole)} %` : '–');

const words = (kind: string, tally: Tally) =>
  `${kind.padEnd(13)} given ${percent(tally.given, tally.coats).padStart(5)}, truly good ${percent(tally.good, tally.given).padStart(5)}, rate ${tally.good ? mean(tally.shares).toFixed(2) : '  – '}, worst tenth off ${worstTenth(tally.tenths).toFixed(2)}`;

/** Coats that the oracle knows, and those it is asked about: it takes long. */
const ORACLE = { known: 6000, asked: 20 };

function oracleWords(family: TruthFamily): string {
  const oracle = makeOracle(family, ORACLE.known);
  const told = ([24, 80] as const).map((size) => {
    const shares: number[] = [];
    for (let n = 1; n <= ORACLE.asked; n += 1) {
      const { coat, first } = seedsOf(n);
      const truth = family.make(seededRandom(coat));
      const best = bestRate(family, truth);
      const rate = oracle(firstCoupon(family, truth, { size, seed: first }));
      if (rate && best) shares.push(Math.min(1, rate / best));
    }
    return `${size} cells given ${percent(shares.length, ORACLE.asked)}, rate ${shares.length ? mean(shares).toFixed(2) : '–'}`;
  });
  return `an oracle that knows the family, over ${ORACLE.asked}: ${told.join('; ')}`;
}

/** Truly good of those given, in each family and over all. */
const GOALS = { each: 0.92, all: 0.95, tenth: 0.06 };

/** One line a family, and one over all that hold somewhere. */
export function windowStudy(coats: number): Line[] {
  const totals = new Map<CouponKind, Tally[]>(COUPONS.map((kind) => [kind, []]));
  const lines = TRUTH_FAMILIES.map((family): Line => {
    const tallies = COUPONS.map((kind) => ({ kind, tally: study(family, kind, coats) }));
    for (const { kind, tally } of tallies) totals.get(kind)!.push(tally);
    const { given, good } = together(tallies.map(({ tally }) => tally));
    const nothing = tallies.every(({ tally }) => tally.possible === 0);
    return {
      what: `windows of “${family.name}” (${family.about}${family.setAside ? '; set aside' : ''}), ${coats} hidden coats`,
      figure: tallies.map(({ kind, tally }) => words(kind, tally)).join('\n       '),
      against:
        family.axes === 'power and speed' && !nothing && !family.setAside
          ? oracleWords(family)
          : `a truly good setting lies in what was tried in ${percent(tallies[0]!.tally.possible, coats)}`,
      ratio: nothing ? `${given} given` : `${percent(good, given)} truly good`,
      goal: nothing ? 'none given' : '≥ 92 % truly good',
      met: nothing ? given === 0 : given === 0 || good / given >= GOALS.each,
    };
  });
  return [...lines, ...COUPONS.map((kind) => totalLine(kind, together(totals.get(kind)!)))];
}

function totalLine(kind: CouponKind, tally: Tally): Line {
  const off = worstTenth(tally.tenths);
  return {
    what: `windows of all families together, ${kind} cells`,
    figure: words(kind, tally),
    against: tally.tenths
      .map(({ predicted, truly, count }) =>
        count ? `${(predicted / count).toFixed(2)}→${(truly / count).toFixed(2)}` : '–',
      )
      .join(' '),
    ratio: `${percent(tally.good, tally.given)} truly good`,
    goal: '≥ 95 % truly good, every tenth within 0.06',
    met: tally.good >= GOALS.all * tally.given && off <= GOALS.tenth,
  };
}
