import type { Known } from '../statistics/partial-pooling.js';
import { NO_STEP, type BoundaryCells } from './boundary.js';
import {
  SEEN_FACTORS,
  restOfPoint,
  TERM_SHAPES,
  variedTerms,
  type SeenFactor,
  type WindowCell,
  type WindowPoint,
  type WindowTerm,
} from './window-terms.js';
import { mean } from '../statistics/moments.js';
import { requirePositive } from '../support/require.js';

/** What the columns of a window's boundaries stand for, and where each has its middle. */
export interface WindowForm {
  readonly lnSpeed: number;
  /** ln speed less its middle at which the line may bend. */
  readonly hinges: readonly number[];
  /** Middle of ln interval, and the intervals tried where there are several: each may lie off the line of all. */
  readonly lnInterval: number;
  readonly intervals: readonly number[];
  /** Middle of ln passes; null where all had the same. */
  readonly lnPasses: number | null;
  readonly terms: readonly { readonly term: WindowTerm; readonly middle: number }[];
  /** Lots and people of which several were seen, each with power of its own; a point stands at the middle of them. */
  readonly seen: readonly { readonly factor: SeenFactor; readonly level: string }[];
}

/** Quarters of the range of ln speed. */
const HINGES = [0.25, 0.5, 0.75];

const distinct = (values: readonly number[]) => [...new Set(values)].sort((a, b) => a - b);
const ln = (name: string, value: number) => Math.log(requirePositive(name, value));
const passesOf = ({ passes, hatches }: WindowPoint) => ln('passes', passes * (hatches ?? 1));
/** Intervals as one where they differ by a last digit. */
const intervalOf = ({ intervalMm }: WindowPoint) => Number(requirePositive('interval', intervalMm).toPrecision(4));

/**
 * The form of a window by the cells it is fitted to: what they vary besides power and speed has columns of its own.
 * @throws value.not-positive, value.not-finite
 */
export function windowForm(cells: readonly WindowCell[]): WindowForm {
  const speeds = cells.map(({ speedMmPerS }) => ln('speed', speedMmPerS));
  const [low, high] = speeds.reduce(([a, b], one) => [Math.min(a, one), Math.max(b, one)], [Infinity, -Infinity]);
  const lnSpeed = (low + high) / 2;
  const intervals = distinct(cells.map(intervalOf));
  const passes = cells.map(passesOf);
  return {
    lnSpeed,
    hinges: HINGES.map((share) => low + share * (high - low) - lnSpeed),
    lnInterval: mean(cells.map((cell) => Math.log(intervalOf(cell)))),
    intervals: intervals.length > 1 ? intervals : [],
    lnPasses: distinct(passes).length > 1 ? mean(passes) : null,
    terms: variedTerms(cells).map((term) => ({
      term,
      middle: mean(cells.map((cell) => TERM_SHAPES[term].read(cell[term] ?? Number.NaN))),
    })),
    seen: SEEN_FACTORS.flatMap((factor) => seenLevels(cells, factor).map((level) => ({ factor, level }))),
  };
}

/** So few cells of a lot tell nothing of it. */
const LEAST_SEEN = 8;

/** The levels of a factor that enough cells name, where there are several. */
function seenLevels(cells: readonly WindowCell[], factor: SeenFactor): string[] {
  const counts = new Map<string, number>();
  for (const { seen } of cells) if (seen?.[factor]) counts.set(seen[factor], (counts.get(seen[factor]) ?? 0) + 1);
  const levels = [...counts].filter(([, count]) => count >= LEAST_SEEN).map(([level]) => level);
  return levels.length > 1 ? levels.sort() : [];
}

/**
 * A point's columns: 1, ln speed, what lies beyond each hinge, then interval, passes, varied terms, and what it was made with
 * where it is a cell.
 * @throws value.not-positive, value.not-finite where a varied term is not said
 */
export function formRow(form: WindowForm, point: WindowPoint & Pick<WindowCell, 'seen'>): number[] {
  const u = ln('speed', point.speedMmPerS) - form.lnSpeed;
  const row = [1, u, ...form.hinges.map((hinge) => Math.max(0, u - hinge))];
  if (form.intervals.length) {
    const own = intervalOf(point);
    row.push(Math.log(own) - form.lnInterval, ...form.intervals.map((interval) => (interval === own ? 1 : 0)));
  }
  const passes = passesOf(point);
  if (form.lnPasses !== null) row.push(passes - form.lnPasses);
  for (const { term, middle } of form.terms) {
    const away = TERM_SHAPES[term].read(point[term] ?? Number.NaN) - middle;
    row.push(away);
    if (TERM_SHAPES[term].squared) row.push(away * away);
  }
  for (const { factor, level } of form.seen) row.push(point.seen?.[factor] === level ? 1 : 0);
  return row;
}

/** Weak knowledge of the columns after the line over speed. */
export function restPriors(form: WindowForm): Known[] {
  return [
    ...(form.intervals.length ? [INTERVAL, ...form.intervals.map(() => OWN_INTERVAL)] : []),
    ...(form.lnPasses === null ? [] : [PASSES]),
    ...form.terms.flatMap(({ term }) => {
      const { squared, spread } = TERM_SHAPES[term];
      return [{ mean: 0, sd: spread }, ...(squared ? [{ mean: spread / 2, sd: spread }] : [])];
    }),
    ...form.seen.map(() => SEEN),
  ];
}

/** How many columns a form has. */
export const columnsOf = (form: WindowForm): number => 2 + form.hinges.length + restPriors(form).length;

/** Between heat, which knows no interval, and dose, which goes with it. */
const INTERVAL: Known = { mean: 0.6, sd: 0.35 };
/** Lines that no longer meet, or heap up, lie off the line of the others. */
const OWN_INTERVAL: Known = { mean: 0, sd: 0.12 };
/** A second pass does less than twice the dose in one. */
const PASSES: Known = { mean: -0.5, sd: 0.35 };

/** Another lot, or another hand, asks for so much more or less power: mostly under a tenth. Common practice, no source. */
const SEEN: Known = { mean: 0, sd: 0.07 };

/** Share of cells judged by eye that are read as something else. Common practice, no source. */
export const MISREAD_BY_EYE = 0.08;

/** Of cells that are misread so many still are once somebody looked again. Common practice, no source. */
const MISREAD_AGAIN = 0.1;

/** Share of the usual misreading that a cell is liable to, above 0 to 1. */
export const doubtOf = ({ lookedAgain }: Pick<WindowCell, 'lookedAgain'>): number => (lookedAgain ? MISREAD_AGAIN : 1);

/** What was kept of a mark at each step, as a share of the limit at which it holds; the last is half way from there to all of it. */
const KEPT_BELOW = [0.2, 0.5, 0.8];

/** Cells as each boundary sees them: all of them as overdone or not, and those that are not, as bonded or not. */
export function boundaryCells(
  form: WindowForm,
  cells: readonly WindowCell[],
): { over: BoundaryCells; bond: BoundaryCells } {
  const counted = countedCells(cells);
  const rows = counted.map(({ cell }) => formRow(form, cell));
  const numbers = counted.some(({ cell }) => cell.kept && cell.outcome !== 'over');
  const of = (
    wanted: readonly number[],
    steps: BoundaryCells['steps'],
    between: (cell: WindowCell) => readonly [from: number, to: number],
  ): BoundaryCells => ({
    columns: rows[0]!.length,
    lnPower: Float64Array.from(wanted, (i) => ln('power', counted[i]!.cell.powerW)),
    x: Float64Array.from(wanted.flatMap((i) => rows[i]!)),
    from: Int8Array.from(wanted, (i) => between(counted[i]!.cell)[0]),
    to: Int8Array.from(wanted, (i) => between(counted[i]!.cell)[1]),
    weight: Float64Array.from(wanted, (i) => counted[i]!.weight),
    misread: Float64Array.from(
      wanted,
      (i) => (counted[i]!.cell.byEye ? MISREAD_BY_EYE : 0) * doubtOf(counted[i]!.cell),
    ),
    doubt: Float64Array.from(wanted, (i) => doubtOf(counted[i]!.cell)),
    steps,
  });
  const all = counted.map((_, i) => i);
  const none = { below: 0, above: 0 };
  const steps = numbers ? { below: KEPT_BELOW.length, above: 1 } : none;
  return {
    over: of(all, none, ({ outcome }) => (outcome === 'over' ? [0, NO_STEP] : [NO_STEP, 0])),
    bond: of(
      all.filter((i) => counted[i]!.cell.outcome !== 'over'),
      steps,
      (cell) => keptBetween(cell, steps),
    ),
  };
}

/** Between which steps a cell that is not overdone lies; only its side where no number was read, or it says another than the outcome. */
function keptBetween(
  { outcome, kept }: WindowCell,
  { below, above }: BoundaryCells['steps'],
): readonly [from: number, to: number] {
  const side = outcome === 'holds' ? ([below, NO_STEP] as const) : ([NO_STEP, below] as const);
  if (!kept || !below || kept.share >= kept.limit !== (outcome === 'holds')) return side;
  if (outcome === 'holds')
    return kept.share >= (1 + kept.limit) / 2 ? [below + above, NO_STEP] : [below, below + above];
  const passed = KEPT_BELOW.filter((share) => kept.share >= share * kept.limit).length;
  return [passed - 1, passed];
}

/** Cells that are alike in all that the fit sees are counted as one of their summed weight. */
function countedCells(cells: readonly WindowCell[]): { readonly cell: WindowCell; weight: number }[] {
  const found = new Map<string, { readonly cell: WindowCell; weight: number }>();
  for (const cell of cells) {
    const key = [
      ...[cell.powerW, cell.speedMmPerS, cell.outcome, cell.byEye ? 1 : 0, cell.lookedAgain ? 1 : 0, cell.kept?.share],
      ...Object.values(restOfPoint(cell)),
      ...SEEN_FACTORS.map((factor) => cell.seen?.[factor]),
    ].join(' ');
    const weight = cell.weight ?? 1;
    const same = found.get(key);
    if (same) same.weight += weight;
    else found.set(key, { cell, weight });
  }
  return [...found.values()];
}
