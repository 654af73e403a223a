import type { Grade } from '../evidence/figure.js';
import { heatIndex } from '../heat/heat-index.js';
import { CoreError } from '../support/core-error.js';
import { requirePositive } from '../support/require.js';

/** Somewhere near which a mark is said or known to hold, on whatever head. Power W at the part, speed mm/s, interval mm. */
export interface StartingPoint {
  readonly powerW: number;
  readonly speedMmPerS: { readonly low: number; readonly high: number };
  /** Null where nobody says it: then the one of this coupon is taken. */
  readonly intervalMm: number | null;
  readonly grade: Extract<Grade, 'usual' | 'stated' | 'carried'>;
  /** Who says so, in words. */
  readonly source: string;
  /** Spot and metal it held under, where they are others than those of this coupon: it reaches further then. */
  readonly under?: HeatedPart | undefined;
}

/** What heats alike: spot (1/e²) radius mm, conductivity W/(mm·K), diffusivity mm²/s. */
export type HeatedPart = Pick<StartingBench, 'radiusMm' | 'conductivity' | 'diffusivity'>;

/** The head and metal that a coupon is meant for. Radius of the spot (1/e²) mm, conductivity W/(mm·K), diffusivity mm²/s. */
export interface StartingBench {
  /** Power at the part at 100 %, W. */
  readonly fullW: number;
  readonly firingThresholdPercent: number;
  readonly topSpeedMmPerS: number;
  readonly radiusMm: number;
  readonly conductivity: number;
  readonly diffusivity: number;
}

/** A power and what speeds a point comes to at it, mm/s: where the dose is the same, and where the heat index is. */
export interface CarriedSpeeds {
  readonly byDose: { readonly low: number; readonly high: number };
  readonly byHeat: { readonly low: number; readonly high: number };
}

/** Axes of a first coupon, percent of full scale and mm/s, with the point that they come from and how it was carried. */
export interface StartingRange {
  readonly powerPercent: { readonly from: number; readonly to: number };
  readonly speedMmPerS: { readonly from: number; readonly to: number };
  readonly intervalMm: number;
  /** None where nothing is known: then the axes span what the head can do. */
  readonly from: readonly StartingPoint[];
  /** At `carriedW`: full power, or that of the points where the head has much more. */
  readonly carried: CarriedSpeeds | null;
  readonly carriedW: number | null;
  readonly grade: Grade;
}

/**
 * How far a coupon reaches beyond where it is expected, as factors: the less sure, the further. What people name is a speed that works,
 * often near the fastest: the slow side wants more room. Common practice, no source.
 */
const REACH: Record<Standing, { readonly slow: number; readonly fast: number }> = {
  carried: { slow: 1.8, fast: 1.3 },
  elsewhere: { slow: 2.2, fast: 1.8 },
  stated: { slow: 2.2, fast: 1.5 },
  usual: { slow: 3, fast: 1.7 },
};
/** More than this between the ends of the speed axis leaves too few cells near the edge. */
const WIDEST = 16;
/** What is followed, the first first: what held here, what held under another spot or on another metal, what is only said. */
const ORDER = ['carried', 'elsewhere', 'stated', 'usual'] as const;
type Standing = (typeof ORDER)[number];
const standingOf = ({ grade, under }: StartingPoint): Standing => (grade === 'carried' && under ? 'elsewhere' : grade);
const INTERVAL_MM = 0.06;

/**
 * Speed at which a moving spot of this power heats as much as a given heat index says, mm/s; 0 where even standing still it heats less.
 * By bisection in the logarithm, to 1e-6.
 * @throws value.not-positive
 */
export function speedOfHeat(
  heat: number,
  bench: Omit<StartingBench, 'fullW' | 'topSpeedMmPerS' | 'firingThresholdPercent'> & { readonly powerW: number },
): number {
  requirePositive('heat index', heat);
  const at = (speedMmPerS: number) => heatIndex({ ...bench, speedMmPerS });
  if (at(0) <= heat) return 0;
  let [low, high] = [Math.log(1e-4), Math.log(1e6)];
  if (at(Math.exp(low)) <= heat) return 0;
  while (high - low > 1e-6) {
    const middle = (low + high) / 2;
    if (at(Math.exp(middle)) > heat) low = middle;
    else high = middle;
  }
  return Math.exp((low + high) / 2);
}

/**
 * What the speeds of a point come to at another power and interval, and on this metal under this spot where it held elsewhere: with the same dose (J/mm²), and with the
 * same heat index. The two bound what such a change can mean; the coat decides where between.
 * @throws value.not-positive
 */
export function carriedSpeeds(
  point: Pick<StartingPoint, 'powerW' | 'speedMmPerS' | 'intervalMm' | 'under'>,
  bench: StartingBench,
  at: { readonly powerW: number; readonly intervalMm: number },
): CarriedSpeeds {
  const dose = (at.powerW / point.powerW) * ((point.intervalMm ?? at.intervalMm) / at.intervalMm);
  const heat = (speed: number) =>
    speedOfHeat(heatIndex({ ...(point.under ?? bench), powerW: point.powerW, speedMmPerS: speed }), {
      ...bench,
      powerW: at.powerW,
    });
  const { low, high } = point.speedMmPerS;
  return { byDose: { low: low * dose, high: high * dose }, byHeat: { low: heat(low), high: heat(high) } };
}

/**
 * Axes of a first coupon from what is known: the points of the strongest grade, each carried to this head by dose and by heat index, and
 * a margin beyond. A point of much less power than the head has (glass) sets the power axis round it; else power runs down from full.
 * What the head cannot do is cut off. With nothing known, all that the head can do is spanned, as a guess.
 * @throws value.not-positive; starting.out-of-reach where the head is too weak or too slow for all of it
 */
export function startingRange(points: readonly StartingPoint[], bench: StartingBench): StartingRange {
  const standing = ORDER.find((one) => points.some((point) => standingOf(point) === one));
  const from = points.filter((point) => standingOf(point) === standing);
  if (!standing) return blindRange(bench);
  const intervalMm = from.find((point) => point.intervalMm !== null)?.intervalMm ?? INTERVAL_MM;
  const usedW = Math.max(...from.map(({ powerW }) => powerW));
  const powerPercent = powerAxis(usedW, bench);
  const carriedW = powerPercent.to === 100 ? bench.fullW : usedW;
  const all = from.map((point) => carriedSpeeds(point, bench, { powerW: carriedW, intervalMm }));
  const carried = { byDose: spanOf(all.map(({ byDose }) => byDose)), byHeat: spanOf(all.map(({ byHeat }) => byHeat)) };
  const speedMmPerS = speedAxis(
    carried,
    REACH[standing],
    carriedW === bench.fullW ? powerPercent.from / 100 : 1,
    bench,
  );
  return { powerPercent, speedMmPerS, intervalMm, from, carried, carriedW, grade: from[0]!.grade };
}

interface Span {
  readonly low: number;
  readonly high: number;
}
const spanOf = (spans: readonly Span[]): Span => ({
  low: Math.min(...spans.map(({ low }) => low)),
  high: Math.max(...spans.map(({ high }) => high)),
});

function powerAxis(usedW: number, { fullW, firingThresholdPercent }: StartingBench) {
  const least = Math.max(5, Math.ceil(firingThresholdPercent * 1.1));
  const usedPercent = (100 * usedW) / fullW;
  if (usedPercent > 50) return { from: Math.max(least, 50), to: 100 };
  const from = Math.max(least, Math.round(usedPercent / 1.8));
  return { from, to: Math.min(99, Math.max(Math.round(usedPercent * 1.8), 2 * from)) };
}

/** From where the weakest cells, at `leastShare` of the power carried to, have the dose, to where the strongest may still hold. */
function speedAxis(
  carried: CarriedSpeeds,
  reach: (typeof REACH)[Standing],
  leastShare: number,
  { topSpeedMmPerS }: StartingBench,
) {
  const both = spanOf([carried.byDose, carried.byHeat]);
  const to = Math.min(both.high * reach.fast, 0.95 * topSpeedMmPerS);
  // A point far below its own power may be carried to hardly any speed by heat: the dose sets the slow end then.
  const slow = (Math.max(both.low, carried.byDose.low / 4) * Math.sqrt(leastShare)) / reach.slow;
  const from = Math.max(slow, to / WIDEST);
  if (slow > 0.8 * topSpeedMmPerS)
    throw new CoreError(
      'starting.out-of-reach',
      `It is expected to hold from about ${Math.round(slow)} mm/s, faster than this head runs: take less power, and a grid of your own.`,
    );
  return { from, to };
}

function blindRange({ firingThresholdPercent, topSpeedMmPerS }: StartingBench): StartingRange {
  return {
    powerPercent: { from: Math.max(40, Math.ceil(firingThresholdPercent * 1.1)), to: 100 },
    speedMmPerS: { from: 0.1 * topSpeedMmPerS, to: 0.75 * topSpeedMmPerS },
    intervalMm: INTERVAL_MM,
    from: [],
    carried: null,
    carriedW: null,
    grade: 'guess',
  };
}
