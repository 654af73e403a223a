import { OUTCOMES, type Outcome } from '../coupon/outcomes.js';
import { speedExponent } from '../heat/speed-exponent.js';
import { CoreError } from '../support/core-error.js';
import { seededRandom, type Random } from '../support/random.js';
import type { Known } from '../statistics/partial-pooling.js';
import type { BoundaryPrior, BoundaryTask } from './boundary.js';
import { drawsAt, normalDraws, posteriorDraws, systematic, type Draws } from './boundary-posterior.js';
import { orderedLogit, sigmoid, type OrdinalPriors } from './ordered-logit.js';
import { quickSigmoid } from './quick-sigmoid.js';
import { lessonsFor, taughtPriors, weighedLessons, type EarlierWindow } from './earlier-windows.js';
import { boundaryCells, formRow, restPriors, windowForm, type WindowForm } from './window-form.js';
import type { WindowEquipment, WindowFit } from './window-fit.js';
import type { WindowCell, WindowPoint } from './window-terms.js';

/** Version of the model; a recipe freezes it. Raise it whenever the same outcomes would give other numbers. */
export const WINDOW_MODEL_VERSION = 6;

export const WINDOW_DRAWS = 300;
/** Draws of each boundary for one that is kept: pairs are chosen among them. */
const SPARE = 3;
/** How much work a fit is worth. */
export type Effort = 'full' | 'quick';

/** Proposals a round and boundary: fewer where cells are many, none where they are so many that the posterior is all but normal. */
const TRIES = { few: 1000, many: 400, manyFrom: 250, noneFrom: 1500 };

/**
 * Fits the process window to scrubbed cells: two boundaries over power and speed, overdone or not and bonded or not, each a line over
 * ln speed that may bend at three places, with a share of cells misread; weak priors, and draws of the posterior by importance
 * sampling.
 * @param cells one or more; any mixture of outcomes, separated ones too @param seed makes the draws repeatable
 * @param effort quick for comparing many windows at a glance; nothing is proved by it
 * @param earlier windows of the same compound that the shop knows, fitted without any of their own
 * @throws fit.no-data without cells; value.not-positive, value.not-finite
 */
export function fitWindow(options: {
  cells: readonly WindowCell[];
  equipment: WindowEquipment;
  seed: number;
  effort?: Effort;
  earlier?: readonly EarlierWindow[];
}): WindowFit {
  const { cells, equipment, seed, effort = 'full', earlier = [] } = options;
  if (cells.length === 0)
    throw new CoreError('fit.no-data', 'No scrubbed outcome yet: scrub the coupon and enter its cells.');
  const form = windowForm(cells);
  const priors = windowPriors(form, cells, equipment);
  if (!earlier.length) return drawnFit({ cells, form, priors, seed, effort });
  const lessons = lessonsFor(drawnFit({ cells, form, priors, seed, effort: 'quick' }), equipment, earlier);
  const fit = { ...drawnFit({ cells, form, priors: taughtPriors(priors, lessons), seed, effort }), priors };
  return { ...fit, lessons: weighedLessons(fit, lessons) };
}

function drawnFit(of: Pick<WindowFit, 'cells' | 'form' | 'priors' | 'seed'> & { readonly effort: Effort }): WindowFit {
  const { cells, form, priors, seed, effort } = of;
  const seen = boundaryCells(form, cells);
  const random = seededRandom(seed);
  const straight = straightStarts(cells, form, priors);
  const bond = drawsOf({ cells: seen.bond, prior: priors.bond }, straight.bond, random, effort);
  const over = drawsOf({ cells: seen.over, prior: priors.over }, straight.over, random, effort);
  const pairs = pairedDraws(bond, over, random);
  return {
    ...{ modelVersion: WINDOW_MODEL_VERSION, seed, form, priors, lessons: [], cells, ...pairs },
    ...{ bondK: steepness(pairs.bond), overK: steepness(pairs.over), drawCount: WINDOW_DRAWS },
  };
}

const steepness = ({ values, size, count }: Draws) =>
  Float64Array.from({ length: count }, (_, d) => Math.exp(values[d * size]!));

type Line = readonly [lnSteepness: number, level: number, slope: number];

/**
 * Where the climb begins: an ordered logit in ln power and ln speed alone, which has one maximum only.
 */
function straightStarts(
  cells: readonly WindowCell[],
  form: WindowForm,
  { bond, over }: { readonly bond: BoundaryPrior; readonly over: BoundaryPrior },
): { bond: Line; over: Line } {
  const k = Math.exp(STEEPNESS.mean);
  const level = bond.columns[0]!.mean;
  const fit = orderedLogit({
    rows: cells.map(({ powerW, speedMmPerS, outcome, weight = 1 }) => ({
      z: [Math.log(powerW) - level, Math.log(speedMmPerS) - form.lnSpeed],
      category: OUTCOMES.indexOf(outcome),
      weight,
    })),
    categories: OUTCOMES.length,
    priors: straightPriors(k, (bond.columns[1]!.mean + over.columns[1]!.mean) / 2),
  });
  const [byPower, bySpeed] = [Math.max(1, fit.slopes[0]!), fit.slopes[1]!];
  const line = (cut: number): Line => [Math.log(byPower), level + cut / byPower, -bySpeed / byPower];
  return { bond: line(fit.cuts[0]!), over: line(fit.cuts[1]!) };
}

function straightPriors(k: number, slope: number): OrdinalPriors {
  const covariance = [
    [(k / 2) ** 2, 0],
    [0, (k / 2) ** 2],
  ];
  return {
    slopes: { mean: [k, -slope * k], covariance },
    ...{ signs: [1, -1], signScale: 0.5, cuts: { mean: 0, sd: 2 * k }, gapScale: k / 2 },
  };
}

/** Draws of a boundary from three starts: the straight line, the middle of the priors, and one with more of the cells misread. */
function drawsOf(
  task: BoundaryTask & { readonly prior: BoundaryPrior },
  straight: Line,
  random: Random,
  effort: Effort,
): Draws {
  const { lnSteepness, columns, misread, lnStep } = task.prior;
  const { below, above } = task.cells.steps;
  const steps = new Array<number>(below + above).fill(lnStep.mean);
  const middle = [lnSteepness.mean, ...columns.map(({ mean }) => mean), misread.mean, ...steps];
  const wary = middle.with(columns.length + 1, misread.mean + misread.sd);
  const line = [...straight, ...middle.slice(straight.length)];
  const count = SPARE * WINDOW_DRAWS;
  const cells = task.cells.lnPower.length;
  if (cells > TRIES.noneFrom) return normalDraws(task, [line], { count, random });
  const many = effort === 'quick' || cells > TRIES.manyFrom;
  const wanted = { count, tries: many ? TRIES.many : TRIES.few, random };
  return posteriorDraws(task, many ? [line] : [line, middle, wary], wanted);
}

/** ln k of a spray even to 6 to 20 % (1.81 / k): about 16, nine times in ten from 8 to 31. Common practice, no source. */
const STEEPNESS: Known = { mean: Math.log(16), sd: 0.4 };
/** One or two cells of a hundred are read as something else, now and then one of ten. */
const MISREAD: Known = { mean: Math.log(0.03 / 0.97), sd: 0.9 };
/** ln of the logits between neighbouring steps of what was kept. */
const STEP: Known = { mean: 0, sd: 0.8 };
const BEND: Known = { mean: 0, sd: 0.3 };
/** How much the power that is wanted may lie off what was guessed, ln. */
const LEVEL_SD = 0.9;

function windowPriors(
  form: WindowForm,
  cells: readonly WindowCell[],
  { radiusMm, conductivity, diffusivity }: WindowEquipment,
): { bond: BoundaryPrior; over: BoundaryPrior } {
  const powers = cells.map(({ powerW }) => Math.log(powerW));
  const [low, high] = powers.reduce(([a, b], one) => [Math.min(a, one), Math.max(b, one)], [Infinity, -Infinity]);
  const q = speedExponent({ powerW: 1, speedMmPerS: Math.exp(form.lnSpeed), radiusMm, conductivity, diffusivity });
  const prior = (level: number, slope: Known): BoundaryPrior => ({
    lnSteepness: STEEPNESS,
    columns: [{ mean: level, sd: LEVEL_SD }, slope, ...form.hinges.map(() => BEND), ...restPriors(form)],
    misread: MISREAD,
    lnStep: STEP,
  });
  return {
    // Bonding goes half by heat, half by dose before the cells have spoken; scorching more by heat than by dose.
    bond: prior((low + high) / 2 - 0.1, { mean: 0.5 + 0.5 * q, sd: 0.3 }),
    over: prior(high, { mean: 0.35, sd: 0.35 }),
  };
}

/** The coat that is uneven for one boundary is uneven for the other: how far their ln k may differ. */
const UNLIKE = 0.4;

/** Draws of both boundaries in pairs: of many chance pairs those whose steepness agrees are taken more often. */
function pairedDraws(bond: Draws, over: Draws, random: Random): { bond: Draws; over: Draws } {
  const pairs = [0, 1, 2, 3].flatMap((turn) =>
    Array.from({ length: bond.count }, (_, d) => [d, (d + turn * 211) % over.count] as const),
  );
  const weights = pairs.map(([b, o]) => {
    const apart = bond.values[b * bond.size]! - over.values[o * over.size]!;
    return Math.exp(-0.5 * (apart / UNLIKE) ** 2);
  });
  const total = weights.reduce((sum, one) => sum + one, 0);
  const picked = systematic(
    weights.map((one) => one / total),
    WINDOW_DRAWS,
    random,
  );
  return {
    bond: drawsAt(
      bond,
      picked.map((p) => pairs[p]![0]),
    ),
    over: drawsAt(
      over,
      picked.map((p) => pairs[p]![1]),
    ),
  };
}

/** ln of the power at which each draw of a boundary makes it the even bet at a point, whatever the point's own power. */
function needsAt(form: WindowForm, { values, size, count }: Draws, point: WindowPoint): Float64Array {
  const row = formRow(form, point);
  const needs = new Float64Array(count);
  for (let d = 0; d < count; d += 1) {
    let need = 0;
    for (let j = 0; j < row.length; j += 1) need += row[j]! * values[d * size + j + 1]!;
    needs[d] = need;
  }
  return needs;
}

/** The two boundaries at one speed and rest, draw by draw: steepness, and ln power of the even bet. */
export interface BoundariesAt {
  readonly bondK: Float64Array;
  readonly bondAt: Float64Array;
  readonly overK: Float64Array;
  readonly overAt: Float64Array;
}

/** @throws value.not-positive, value.not-finite where a varied term is not said */
export function boundariesAt({ form, bond, over, bondK, overK }: WindowFit, point: WindowPoint): BoundariesAt {
  return {
    bondK,
    bondAt: needsAt(form, bond, point),
    overK,
    overAt: needsAt(form, over, point),
  };
}

/** Chance that it holds at ln power under one draw: bonded, and not overdone. */
export function chanceAt({ bondK, bondAt, overK, overAt }: BoundariesAt, lnPower: number, draw: number): number {
  return (
    quickSigmoid(bondK[draw]! * (lnPower - bondAt[draw]!)) * quickSigmoid(overK[draw]! * (overAt[draw]! - lnPower))
  );
}

/** Chances of too little, holds and too much at a point, over the draws. @throws value.not-positive, value.not-finite */
export function outcomeChances(fit: WindowFit, point: WindowPoint): Record<Outcome, number> {
  const at = boundariesAt(fit, point);
  const lnPower = Math.log(point.powerW);
  let [holds, over] = [0, 0];
  for (let d = 0; d < fit.drawCount; d += 1) {
    holds += chanceAt(at, lnPower, d);
    over += sigmoid(at.overK[d]! * (lnPower - at.overAt[d]!));
  }
  [holds, over] = [holds / fit.drawCount, over / fit.drawCount];
  return { under: Math.max(0, 1 - holds - over), holds, over };
}
