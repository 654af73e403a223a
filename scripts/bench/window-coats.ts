import { seededRandom, type NextBlock, type WindowCell } from '@unto/core';
import {
  fireKept,
  fireTruth,
  type TruthFamily,
  type TruthSetting,
  type WindowTruth,
} from '@unto/simulators/window-truths';

/** The bench that the hidden coats of the study are fired on, and what is asked of a setting there. */
export const BENCH = { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 };
export const FULL_W = 55;
export const SHARES = { low: 0.5, high: 1 };
export const SPEEDS = { low: 24, high: 480 };
export const OFF = 0.05;
export const JOB = {
  power: { ratedW: FULL_W },
  motion: { kind: 'galvo', jumpMmPerS: 5000, delayS: 0 } as const,
  topSpeedMmPerS: 600,
  widthMm: 38,
  heightMm: 22,
  directions: 'two-way' as const,
  tolerance: { powerShare: OFF, focusShare: 0 },
  bound: 0.8,
};
export const REACH = { leastW: 5, mostW: FULL_W, topSpeedMmPerS: JOB.topSpeedMmPerS };

/** Columns of power and rows of speed by the cells that are meant, with one value of whatever else, and with several. */
const GRIDS = {
  12: { one: [3, 4], several: [2, 2] },
  16: { one: [4, 4], several: [2, 3] },
  24: { one: [4, 6], several: [2, 4] },
  48: { one: [6, 8], several: [4, 4] },
  80: { one: [8, 10], several: [4, 7] },
} as const;
export type Size = keyof typeof GRIDS;
type Rest = Required<Pick<TruthSetting, 'intervalMm' | 'frequencyKHz' | 'focusOffsetMm'>>;

export const PLAIN: Rest = { intervalMm: 0.06, frequencyKHz: 60, focusOffsetMm: 0 };
export const VARIED: Readonly<Record<TruthFamily['axes'], readonly Rest[]>> = {
  'power and speed': [PLAIN],
  intervals: [0.05, 0.075, 0.11].map((intervalMm) => ({ ...PLAIN, intervalMm })),
  'frequency and focus': [
    { ...PLAIN, frequencyKHz: 30, focusOffsetMm: -0.5 },
    { ...PLAIN, frequencyKHz: 60, focusOffsetMm: 0 },
    { ...PLAIN, frequencyKHz: 120, focusOffsetMm: 0.5 },
  ],
};

export const ratios = (low: number, high: number, count: number): number[] =>
  Array.from({ length: count }, (_, i) => low * (high / low) ** (i / (count - 1)));

/** From −1 at the first to 1 at the last. */
const placed = (i: number, count: number) => (2 * i) / (count - 1) - 1;

/** The first coupon of a hidden coat: powers by speeds, once for every other value that its family varies. */
export function firstCoupon(
  { axes }: TruthFamily,
  truth: WindowTruth,
  { size, seed, numbers = false }: { size: Size; seed: number; numbers?: boolean },
): WindowCell[] {
  const random = seededRandom(seed);
  const blocks = VARIED[axes];
  const [columns, rows] = GRIDS[size][blocks.length > 1 ? 'several' : 'one'];
  const pulsed = axes === 'frequency and focus';
  return blocks.flatMap((rest) =>
    ratios(SHARES.low, SHARES.high, columns).flatMap((share, i) =>
      ratios(SPEEDS.low, SPEEDS.high, rows).map((speedMmPerS, j): WindowCell => {
        const place = { across: placed(i, columns), down: placed(j, rows) };
        const setting = { powerW: share * FULL_W, speedMmPerS, ...rest };
        const { intervalMm, frequencyKHz, focusOffsetMm } = rest;
        return {
          ...{ powerW: setting.powerW, speedMmPerS, intervalMm, passes: 1 },
          ...(numbers
            ? fireKept(truth, setting, random, place)
            : { outcome: fireTruth(truth, setting, place, random) }),
          ...(pulsed ? { frequencyKHz, focusOffsetMm } : {}),
        };
      }),
    ),
  );
}

/** A second coupon of a hidden coat: the block that was proposed. */
export function secondCoupon(
  { powersW, speedsMmPerS, rest }: NextBlock,
  truth: WindowTruth,
  seed: number,
): WindowCell[] {
  const random = seededRandom(seed);
  return ratios(powersW.low, powersW.high, powersW.count).flatMap((powerW, i) =>
    ratios(speedsMmPerS.low, speedsMmPerS.high, speedsMmPerS.count).map((speedMmPerS, j): WindowCell => {
      const place = { across: placed(i, powersW.count), down: placed(j, speedsMmPerS.count) };
      const outcome = fireTruth(truth, settingOf({ ...rest, powerW, speedMmPerS }), place, random);
      return { ...rest, powerW, speedMmPerS, outcome };
    }),
  );
}

/** A point of a window as a hidden coat takes it. */
export const settingOf = ({
  powerW,
  speedMmPerS,
  intervalMm,
  frequencyKHz,
  focusOffsetMm,
}: Omit<WindowCell, 'outcome'>): TruthSetting => ({
  ...{ powerW, speedMmPerS, intervalMm },
  ...{ frequencyKHz: frequencyKHz ?? PLAIN.frequencyKHz, focusOffsetMm: focusOffsetMm ?? PLAIN.focusOffsetMm },
});

/** Holds in 9 of 10 at the setting, and in 8 of 10 with power 5 % off either way. */
export function trulyGood({ chances }: WindowTruth, setting: TruthSetting): boolean {
  const at = (factor: number) => chances({ ...setting, powerW: setting.powerW * factor }).holds;
  return at(1) >= 0.9 && at(1 - OFF) >= 0.8 && at(1 + OFF) >= 0.8;
}

/** mm² a second of the quickest setting of what was tried that is truly good; 0 where none is. */
export function bestRate({ axes }: TruthFamily, truth: WindowTruth): number {
  const rasters = VARIED[axes].flatMap((rest) => ratios(SPEEDS.low, SPEEDS.high, 60).map((speed) => ({ rest, speed })));
  const rate = ({ rest, speed }: (typeof rasters)[number]) => speed * rest.intervalMm;
  const shares = ratios(SHARES.low, SHARES.high, 24);
  const best = rasters
    .sort((a, b) => rate(b) - rate(a))
    .find(({ rest, speed }) =>
      shares.some((share) => trulyGood(truth, { powerW: share * FULL_W, speedMmPerS: speed, ...rest })),
    );
  return best ? rate(best) : 0;
}

/** The seeds of the n-th hidden coat and of what is fired on it. */
export const seedsOf = (n: number) => ({ coat: n * 15_485_863, first: n * 32_452_843, second: n * 49_979_687 });
