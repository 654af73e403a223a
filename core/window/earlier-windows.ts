import { heatIndex } from '../heat/heat-index.js';
import { partialPooling, type Known } from '../statistics/partial-pooling.js';
import type { BoundaryPrior, Taught } from './boundary.js';
import type { Draws } from './boundary-posterior.js';
import { formRow } from './window-form.js';
import {
  BOUNDARIES,
  LESSONS,
  type BoundaryName,
  type Lesson,
  type LessonName,
  type WindowEquipment,
  type WindowFit,
} from './window-fit.js';
import type { WindowPoint } from './window-terms.js';

/** A window of the same compound that the shop knows already: on another metal, thickness, head or lens, of one beam class. */
export interface EarlierWindow {
  readonly fit: WindowFit;
  readonly equipment: WindowEquipment;
}

/** How much windows of one compound differ between metals and heads, as the scale of a half-normal: ln W, slope, ln steepness. Common practice, no source. */
const SPREADS: Record<LessonName, number> = { level: 0.4, slope: 0.15, steepness: 0.3 };
/** So many standard errors apart a lesson contradicts the cells. */
const CONTRADICTS = 2;
/** Shops' windows differ by more than a normal spread: so much wider than the pooling says is what is expected. Measured on hidden shops. */
const WIDER = 1.75;
/** Speeds closer than this, as a ratio, tell no slope. */
const SLOPE_SPAN = 1.5;
/** Information that is less than this share of the prior’s is none. */
const SAYS_NOTHING = 0.1;

/** A linear quantity of a boundary's columns. */
type Row = readonly number[];

/** The lessons of earlier windows for the cells that `fit` (made without them) rests on. */
export function lessonsFor(
  fit: WindowFit,
  equipment: WindowEquipment,
  earlier: readonly EarlierWindow[],
): readonly (Lesson & { readonly row: Row | null })[] {
  const range = speedsOf(fit);
  const middle = Math.sqrt(range.low * range.high);
  return BOUNDARIES.flatMap((boundary) =>
    LESSONS.flatMap((of) => {
      const at = of === 'level' ? { low: middle, high: middle } : range;
      const said = earlier.flatMap((one) => taughtBy(one, boundary, of, { at, equipment, fit }));
      if (!said.length) return [];
      const row = of === 'steepness' ? null : rowOf(fit, of, at);
      const weak = of === 'steepness' ? fit.priors[boundary].lnSteepness : priorOf(fit.priors[boundary], row!);
      const { next: narrow, between } = partialPooling(said, weak, { scale: SPREADS[of] });
      const next = { mean: narrow.mean, sd: narrow.sd * WIDER };
      const own = likelihoodOf(fit, boundary, row);
      const apart = own && Math.abs(own.mean - next.mean) / Math.hypot(own.sd, next.sd);
      const used = (apart === null || apart < CONTRADICTS) && next.sd < weak.sd;
      return [{ boundary, of, expected: next, between, windows: said.length, apart, used, weight: 0, row }];
    }),
  );
}

/** The priors of a fit with what earlier windows taught of it. */
export function taughtPriors(
  priors: WindowFit['priors'],
  lessons: ReturnType<typeof lessonsFor>,
): Record<BoundaryName, BoundaryPrior> {
  const of = (boundary: BoundaryName): BoundaryPrior => {
    const weak = priors[boundary];
    const own = lessons.filter((one) => one.boundary === boundary && one.used);
    const steep = own.find(({ row }) => row === null);
    const taught = own.flatMap(({ row, expected }) =>
      row ? [{ row, ...beyondPrior(expected, priorOf(weak, row)) }] : [],
    );
    return { ...weak, ...(steep ? { lnSteepness: steep.expected } : {}), taught };
  };
  return { bond: of('bond'), over: of('over') };
}

/** How much of what a fit knows came from its lessons. */
export function weighedLessons(fit: WindowFit, lessons: ReturnType<typeof lessonsFor>): Lesson[] {
  return lessons.map(({ row, ...lesson }) => {
    const weak = row ? priorOf(fit.priors[lesson.boundary], row) : fit.priors[lesson.boundary].lnSteepness;
    const after = momentsOf(fit[lesson.boundary], row);
    const added = 1 / lesson.expected.sd ** 2 - 1 / weak.sd ** 2;
    return { ...lesson, weight: lesson.used ? Math.min(1, Math.max(0, added * after.sd ** 2)) : 0 };
  });
}

function speedsOf({ cells }: WindowFit): { low: number; high: number } {
  const speeds = cells.map(({ speedMmPerS }) => speedMmPerS);
  return speeds.reduce((range, one) => ({ low: Math.min(range.low, one), high: Math.max(range.high, one) }), {
    low: Infinity,
    high: 0,
  });
}

/** What an earlier window says of a boundary here: carried to this bench, between what the dose and what the heat would have. */
function taughtBy(
  { fit, equipment }: EarlierWindow,
  boundary: BoundaryName,
  of: LessonName,
  here: { readonly at: { low: number; high: number }; readonly equipment: WindowEquipment; readonly fit: WindowFit },
): Known[] {
  if (of === 'steepness') return listed(likelihoodOf(fit, boundary, null));
  const range = speedsOf(fit);
  const within = (speed: number) => Math.min(range.high, Math.max(range.low, speed));
  const at = { low: within(here.at.low), high: within(here.at.high) };
  if (of === 'slope')
    return at.high < SLOPE_SPAN * at.low ? [] : listed(likelihoodOf(fit, boundary, rowOf(fit, of, at)));
  const said = likelihoodOf(fit, boundary, rowOf(fit, of, at));
  if (!said) return [];
  const byDose = Math.log(standing(fit).intervalMm / standing(here.fit).intervalMm);
  const dose = -byDose + Math.log(passesOf(standing(fit)) / passesOf(standing(here.fit)));
  const rise = (of: WindowEquipment) => heatIndex({ ...of, powerW: 1, speedMmPerS: at.low });
  const heat = Math.log(rise(equipment) / rise(here.equipment));
  return [{ mean: said.mean + (dose + heat) / 2, sd: Math.hypot(said.sd, Math.abs(dose - heat) / 2) }];
}

const listed = <T>(one: T | null): T[] => (one ? [one] : []);
const passesOf = ({ passes, hatches }: WindowPoint) => passes * (hatches ?? 1);

/** Where a window stands in all but power and speed: where it held, else at its first cell. */
const standing = ({ cells }: WindowFit): WindowPoint => cells.find(({ outcome }) => outcome === 'holds') ?? cells[0]!;

function rowOf(fit: WindowFit, of: 'level' | 'slope', { low, high }: { low: number; high: number }): Row {
  const at = (speedMmPerS: number) => formRow(fit.form, { ...standing(fit), seen: undefined, speedMmPerS });
  if (of === 'level') return at(low);
  const [slow, fast] = [at(low), at(high)];
  return fast.map((value, j) => (value - slow[j]!) / Math.log(high / low));
}

function priorOf({ columns }: BoundaryPrior, row: Row): Known {
  let [mean, square] = [0, 0];
  row.forEach((value, j) => {
    mean += value * columns[j]!.mean;
    square += (value * columns[j]!.sd) ** 2;
  });
  return { mean, sd: Math.sqrt(square) };
}

/** Mean and spread of a linear quantity of a boundary (null: of ln steepness) over the draws. */
function momentsOf({ values, size, count }: Draws, row: Row | null): Known {
  let [sum, square] = [0, 0];
  for (let d = 0; d < count; d += 1) {
    let value = row ? 0 : values[d * size]!;
    row?.forEach((one, j) => (value += one * values[d * size + 1 + j]!));
    sum += value;
    square += value * value;
  }
  const mean = sum / count;
  return { mean, sd: Math.sqrt(Math.max(1e-12, square / count - mean * mean)) };
}

/** What the cells of a fit alone say, its weak prior taken off; null where they hardly say more than it. */
function likelihoodOf(fit: WindowFit, boundary: BoundaryName, row: Row | null): Known | null {
  const prior = row ? priorOf(fit.priors[boundary], row) : fit.priors[boundary].lnSteepness;
  return withoutPrior(momentsOf(fit[boundary], row), prior);
}

function withoutPrior(after: Known, prior: Known): Known | null {
  const precision = 1 / after.sd ** 2 - 1 / prior.sd ** 2;
  if (precision < SAYS_NOTHING / prior.sd ** 2) return null;
  return {
    mean: (after.mean / after.sd ** 2 - prior.mean / prior.sd ** 2) / precision,
    sd: Math.sqrt(1 / precision),
  };
}

/** What must be added to a prior so that it comes to what is expected. */
function beyondPrior(expected: Known, prior: Known): Omit<Taught, 'row'> {
  const precision = 1 / expected.sd ** 2 - 1 / prior.sd ** 2;
  return { mean: (expected.mean / expected.sd ** 2 - prior.mean / prior.sd ** 2) / precision, precision };
}
