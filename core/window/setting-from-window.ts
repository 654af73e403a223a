import { costPerPiece, type PieceCost } from '../cost/cost-per-piece.js';
import { decisive, makeFigure, supporting, type Figure, type Grade, type RecordRef } from '../evidence/figure.js';
import { boundariesAt, chanceAt, type BoundariesAt } from './fit-window.js';
import type { WindowFit } from './window-fit.js';
import { least, mixed, type Mix } from './own-mix.js';
import { boxEnds, SURE, worseEnd } from './promise.js';
import {
  judged,
  quickestSetting,
  tested,
  type Power,
  type Raster,
  type SettingChoice,
  type SettingJob,
} from './setting-search.js';
import { triedPlaces } from './tried.js';
import type { WindowPoint } from './window-terms.js';

/** What a setting may be chosen for. */
export const CHOICES = ['quickest', 'widest', 'strongest', 'cheapest', 'mix'] as const;
export type ChoiceKind = (typeof CHOICES)[number];

export const CHOICE_NAMES: Record<ChoiceKind, string> = {
  quickest: 'Quickest that holds',
  widest: 'Widest margin',
  strongest: 'Strongest contrast',
  cheapest: 'Cheapest a piece',
  mix: 'Your own mix',
};

/** What a piece costs besides the minutes under the head, and what these cost. */
export type SettingCost = Omit<PieceCost, 'laserMinutes' | 'yieldShare'>;

export type SettingAnswer = Readonly<Record<ChoiceKind, SettingChoice | null>>;

/** Price of a good piece in minor units: pieces that do not hold are paid for by the others. */
export const settingPrice = ({ seconds, holds }: Pick<SettingChoice, 'seconds' | 'holds'>, cost: SettingCost): number =>
  costPerPiece({ ...cost, laserMinutes: seconds / 60, yieldShare: holds });

/** Every so many draws tell whether a place is worth a closer look. */
const LOOK_EACH = 5;
/** Chance below which a setting is not worth looking at. */
const HARDLY = 0.3;
/** How many of the likeliest places are looked at closely for each aim. */
const CLOSELY = 24;

/**
 * The settings to use: of all powers, speeds, tested intervals and passes that lie, box and all, inside the hull of the scrubbed
 * cells and meet the bound, the one with the shortest job, the one with the widest margin, the one with the strongest contrast, and the
 * cheapest. Where nothing meets the bound only the widest margin is told.
 * @param contrast what a mark made there is expected to show, the more the stronger; null where no picture tells
 * @param mix what is to be weighed against what; null where nobody asks for it
 * @throws value.out-of-range for a bound outside 0-1
 */
export function settingFromWindow(
  fit: WindowFit,
  job: SettingJob,
  cost: SettingCost | null = null,
  contrast: ((point: WindowPoint) => number) | null = null,
  mix: Mix | null = null,
): SettingAnswer {
  const quickest = quickestSetting(fit, job);
  const places = glances(fit, job);
  const tried = triedPlaces(fit, job.tolerance);
  const widest = closest(places, ({ worst }) => -worst, job, tried);
  const proven = widest.filter(({ sure }) => sure >= SURE);
  const price = (choice: Pick<SettingChoice, 'seconds' | 'holds'>) => (cost ? settingPrice(choice, cost) : 0);
  const sureish = quickest ? places.filter(({ sure }) => sure > SURE - 0.05) : [];
  const cheap = cost ? closest(sureish, price, job, tried) : [];
  const pale = (point: WindowPoint) => -contrast!(point);
  // Where the mark is strongest is often where it nearly is too much: the surer places are looked at.
  const strong = contrast
    ? closest(
        sureish.filter(({ sure }) => sure >= SURE),
        ({ raster, power }) => pale({ ...raster, ...power }),
        job,
        tried,
      )
    : [];
  const sure = [strong, cheap, mix ? closest(spread(sureish), () => 0, job, tried) : []].flat();
  const among = quickest ? [quickest, ...proven, ...sure.filter((choice) => choice.sure >= SURE)] : [];
  return {
    quickest,
    widest: least(proven.length ? proven : widest, ({ worst }) => -worst),
    strongest: quickest && contrast && least([quickest, ...proven, ...strong.filter(({ sure }) => sure >= SURE)], pale),
    cheapest: quickest && cost && least([quickest, ...cheap.filter(({ sure }) => sure >= SURE)], price),
    mix: mix && mixed(among, mix, { price: cost && price, contrast }),
  };
}

/** Some of many places, evenly from the quickest to the slowest. */
function spread(places: readonly Glance[]): Glance[] {
  const sorted = [...places].sort((a, b) => a.seconds - b.seconds || b.worst - a.worst);
  const each = Math.ceil(sorted.length / CLOSELY);
  return sorted.filter((_, i) => i % each === 0);
}

/** A place at a glance. */
interface Glance extends Pick<SettingChoice, 'holds' | 'worst' | 'sure' | 'seconds'> {
  readonly raster: Raster;
  readonly power: Power;
  readonly at: BoundariesAt;
}

/** Places that are likelier to hold than hardly, at a glance each. */
function glances(fit: WindowFit, job: SettingJob): Glance[] {
  const { powers, rasters } = tested(fit, job);
  const some = powers.filter((_, i) => i % 2 === 0);
  return rasters.flatMap((raster) => {
    const at = boundariesAt(fit, { ...raster, powerW: 1 });
    return some
      .map((power) => ({ raster, power, at, seconds: raster.seconds, ...glance(at, Math.log(power.powerW), job) }))
      .filter(({ holds }) => holds > HARDLY);
  });
}

/** The best places by an aim that lie inside what was tried, judged by all draws. */
function closest(
  places: readonly Glance[],
  by: (place: Glance) => number,
  job: SettingJob,
  tried: (point: WindowPoint) => boolean,
): SettingChoice[] {
  const found: SettingChoice[] = [];
  for (const { raster, power, at } of [...places].sort((a, b) => by(a) - by(b))) {
    if (found.length === CLOSELY) break;
    if (tried({ ...raster, ...power })) found.push(judged(raster, power, at, job));
  }
  return found;
}

/** What a few draws say of a place: mean chance, mean of the worse end, share that meets the bound there. */
function glance(at: BoundariesAt, lnPower: number, { tolerance, bound }: SettingJob) {
  const ends = boxEnds(tolerance);
  let [holds, worst, sure, count] = [0, 0, 0, 0];
  for (let d = 0; d < at.bondK.length; d += LOOK_EACH) {
    const end = worseEnd(at, lnPower, ends, d);
    holds += chanceAt(at, lnPower, d);
    worst += end;
    if (end >= bound) sure += 1;
    count += 1;
  }
  return { holds: holds / count, worst: worst / count, sure: sure / count };
}

/** The chosen setting's worst case as a Figure of the grade that its proof earns. */
export function settingFigure(
  choice: Pick<SettingChoice, 'worst'>,
  proof: { grade: Grade; cells: number; coupons: readonly RecordRef[]; taught?: string },
): Figure {
  return makeFigure({
    formula: 'settingFromWindow',
    value: choice.worst,
    unit: '',
    inputs: [
      ...proof.coupons.map((ref) => decisive('scrubbed coupon', proof.grade, { value: `${proof.cells} cells`, ref })),
      supporting('weak prior: slopes between those of heat index and dose', 'guess'),
      ...(proof.taught ? [supporting(proof.taught, 'carried')] : []),
    ],
  });
}
