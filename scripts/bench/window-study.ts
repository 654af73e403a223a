import { fitWindow, quickestSetting, seededRandom, windowMap, type WindowCell } from '@unto/core';
import {
  fireTruth,
  TRUTH_FAMILIES,
  type TruthFamily,
  type TruthSetting,
  type WindowTruth,
} from '@unto/simulators/window-truths';
import type { Line } from './line.js';

/**
 * The study of windows: what the model recommends over many hidden coats of families unlike one another, and what of it is true. A
 * setting is truly good where the hidden coat holds in 9 of 10 at it, and in 8 of 10 with power 5 % off.
 */
const BENCH = { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 };
const FULL_W = 55;
const SHARES = { low: 0.5, high: 1 };
const SPEEDS = { low: 24, high: 480 };
const OFF = 0.05;
/** Columns of power and rows of speed by the cells that are meant, with one value of whatever else, and with several. */
const GRIDS = {
  24: { one: [4, 6], several: [2, 4] },
  48: { one: [6, 8], several: [4, 4] },
  80: { one: [8, 10], several: [4, 7] },
} as const;
type Size = keyof typeof GRIDS;
type Rest = Required<Pick<TruthSetting, 'intervalMm' | 'frequencyKHz' | 'focusOffsetMm'>>;

const PLAIN: Rest = { intervalMm: 0.06, frequencyKHz: 60, focusOffsetMm: 0 };
const VARIED: Readonly<Record<TruthFamily['axes'], readonly Rest[]>> = {
  'power and speed': [PLAIN],
  intervals: [0.05, 0.075, 0.11].map((intervalMm) => ({ ...PLAIN, intervalMm })),
  'frequency and focus': [
    { ...PLAIN, frequencyKHz: 30, focusOffsetMm: -0.5 },
    { ...PLAIN, frequencyKHz: 60, focusOffsetMm: 0 },
    { ...PLAIN, frequencyKHz: 120, focusOffsetMm: 0.5 },
  ],
};

const ratios = (low: number, high: number, count: number) =>
  Array.from({ length: count }, (_, i) => low * (high / low) ** (i / (count - 1)));

export function firedCells({ axes }: TruthFamily, truth: WindowTruth, size: Size, seed: number): WindowCell[] {
  const random = seededRandom(seed);
  const blocks = VARIED[axes];
  const [columns, rows] = GRIDS[size][blocks.length > 1 ? 'several' : 'one'];
  const pulsed = axes === 'frequency and focus';
  return blocks.flatMap((rest) =>
    ratios(SHARES.low, SHARES.high, columns).flatMap((share, i) =>
      ratios(SPEEDS.low, SPEEDS.high, rows).map((speedMmPerS, j): WindowCell => {
        const place = { across: (2 * i) / (columns - 1) - 1, down: (2 * j) / (rows - 1) - 1 };
        const setting = { powerW: share * FULL_W, speedMmPerS, ...rest };
        const outcome = fireTruth(truth, setting, place, random);
        const { intervalMm, frequencyKHz, focusOffsetMm } = rest;
        return {
          ...{ powerW: setting.powerW, speedMmPerS, intervalMm, passes: 1, outcome },
          ...(pulsed ? { frequencyKHz, focusOffsetMm } : {}),
        };
      }),
    ),
  );
}

function trulyGood({ chances }: WindowTruth, setting: TruthSetting): boolean {
  const at = (factor: number) => chances({ ...setting, powerW: setting.powerW * factor }).holds;
  return at(1) >= 0.9 && at(1 - OFF) >= 0.8 && at(1 + OFF) >= 0.8;
}

/** mm² a second of the quickest setting of what was tried that is truly good; 0 where none is. */
function bestRate(family: TruthFamily, truth: WindowTruth): number {
  let best = 0;
  for (const rest of VARIED[family.axes])
    for (const speedMmPerS of ratios(SPEEDS.low, SPEEDS.high, 60))
      for (const share of ratios(SHARES.low, SHARES.high, 24)) {
        const rate = speedMmPerS * rest.intervalMm;
        if (rate > best && trulyGood(truth, { powerW: share * FULL_W, speedMmPerS, ...rest })) best = rate;
      }
  return best;
}

interface Tally {
  given: number;
  good: number;
  shares: number[];
  possible: number;
  /** Predicted and true chance of holding summed, and how many, by tenth of the predicted. */
  readonly tenths: { predicted: number; truly: number; count: number }[];
}

const JOB = {
  power: { ratedW: FULL_W },
  motion: { kind: 'galvo', jumpMmPerS: 5000, delayS: 0 } as const,
  topSpeedMmPerS: 600,
  widthMm: 38,
  heightMm: 22,
  directions: 'two-way' as const,
  tolerance: { powerShare: OFF, focusShare: 0 },
  bound: 0.8,
};

export function study(family: TruthFamily, size: Size, truths: number): Tally {
  const tenths = Array.from({ length: 10 }, () => ({ predicted: 0, truly: 0, count: 0 }));
  const tally: Tally = { given: 0, good: 0, shares: [], possible: 0, tenths };
  for (let seed = 1; seed <= truths; seed += 1) {
    const truth = family.make(seededRandom(seed * 15_485_863));
    const fit = fitWindow({ cells: firedCells(family, truth, size, seed * 32_452_843), equipment: BENCH, seed });
    calibrate(tally, family, truth, fit);
    const best = bestRate(family, truth);
    if (best > 0) tally.possible += 1;
    const found = quickestSetting(fit, JOB);
    if (!found) continue;
    tally.given += 1;
    const { powerW, speedMmPerS, intervalMm } = found;
    const rest = { frequencyKHz: found.frequencyKHz ?? PLAIN.frequencyKHz, focusOffsetMm: found.focusOffsetMm ?? 0 };
    if (!trulyGood(truth, { powerW, speedMmPerS, intervalMm, ...rest })) continue;
    tally.good += 1;
    tally.shares.push(Math.min(1, (speedMmPerS * intervalMm) / best));
  }
  return tally;
}

function calibrate(
  { tenths }: Tally,
  family: TruthFamily,
  truth: WindowTruth,
  fit: ReturnType<typeof fitWindow>,
): void {
  const [powersW, speedsMmPerS] = [
    ratios(SHARES.low * FULL_W, SHARES.high * FULL_W, 10),
    ratios(SPEEDS.low, SPEEDS.high, 14),
  ];
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

/** How far the predicted chance lies from the true one in the worst tenth that has enough places to tell. */
const worstTenth = ({ tenths }: Tally) =>
  Math.max(...tenths.filter(({ count }) => count >= 30).map((t) => Math.abs(t.predicted - t.truly) / t.count));

const percent = (part: number, whole: number) => (whole ? `${Math.round((100 * part) / whole)} %` : '–');

/** One line a family: settings given, those truly good, their share of the best safe rate, and calibration, at three sizes of coupon. */
export function windowStudy(truths: number): Line[] {
  return TRUTH_FAMILIES.map((family) => {
    const told = ([24, 48, 80] as const).map((size) => {
      const tally = study(family, size, truths);
      const share = tally.shares.reduce((sum, one) => sum + one, 0) / tally.shares.length;
      return {
        ...tally,
        words: `${size} cells: given ${percent(tally.given, truths)}, truly good ${percent(tally.good, tally.given)}, ${tally.good ? share.toFixed(2) : '–'} of the best safe rate, worst tenth off by ${worstTenth(tally).toFixed(2)}`,
      };
    });
    const { given, good, possible } = told[2]!;
    return {
      what: `windows of “${family.name}” (${family.about}${family.setAside ? '; set aside' : ''}), ${truths} hidden coats`,
      figure: told.map(({ words }) => words).join('\n       '),
      against: `a truly good setting lies in what was tried in ${percent(possible, truths)}`,
      ratio: `${percent(good, given)} of those given at 80 cells are truly good`,
      goal: '≥ 93 %',
      met: given === 0 || good / given >= 0.93,
    };
  });
}
