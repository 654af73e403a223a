import { deliveredPower, type PowerSource } from '../beam/delivered-power.js';
import { decisive, makeFigure, supporting, type Figure, type Grade, type RecordRef } from '../evidence/figure.js';
import { requireWithin } from '../support/require.js';
import { fastestRowSpeed, rasterTime, type RowMotion } from '../time/raster.js';
import { samePart } from '../setting/same-setting.js';
import { between, drawStride, etaOfDraw, linear, placeIn, type WindowCell, type WindowFit } from './fit-window.js';
import { insideHull } from './hull.js';
import type { WindowPoint, WindowRest } from './window-terms.js';

/** What stops the setting from being quicker. */
export const BINDINGS = ['too-little', 'too-much', 'top-speed', 'turnaround', 'tested-range'] as const;
export type Binding = (typeof BINDINGS)[number];

export const BINDING_WORDS: Record<Binding, string> = {
  'too-little': 'any quicker and it may be too little when power sags or focus drifts',
  'too-much': 'any quicker needs power that may be too much when it swings up',
  'top-speed': 'the head runs no faster',
  turnaround: 'faster rows would lose more in turning round than they win',
  'tested-range': 'the coupon tested nothing quicker',
};

/** What may drift between the proof and the run. */
export interface ToleranceBox {
  /** 0.05 for ± 5 % of power */
  readonly powerShare: number;
  /** Share of power that the focus tolerance is worth at its far end, 0 or more (see focusAsPower). */
  readonly focusShare: number;
}

/** The machine and job a setting is looked for on. */
export interface SettingJob {
  readonly power: PowerSource;
  readonly motion: RowMotion;
  readonly topSpeedMmPerS: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly directions: 'one-way' | 'two-way';
  readonly tolerance: ToleranceBox;
  /** Share of cells that must hold in the worst corner of the box, at the 5th percentile of the fit; 0.8 by default in the shop. */
  readonly bound: number;
}

/** A setting with what it promises. */
export interface SettingChoice extends WindowPoint {
  readonly powerPercent: number;
  /** Seconds for one piece's rectangle. */
  readonly seconds: number;
  /** Mean chance of holding at the setting itself. */
  readonly holds: number;
  /** 5th percentile of the chance of holding in the worst corner of the tolerance box. */
  readonly worst: number;
  readonly binding: Binding | null;
}

export interface SettingAnswer {
  readonly quickest: SettingChoice | null;
  readonly widest: SettingChoice | null;
}

const SPEED_STEPS = 60;

/**
 * The setting to use: of all powers, speeds, tested intervals and passes inside the hull of the scrubbed cells, the one with the
 * shortest job (turnarounds included) whose worst case still meets the bound; and the one with the widest margin.
 * `quickest` is null when nothing meets the bound.
 * @throws value.out-of-range for a bound outside 0-1
 */
export function settingFromWindow(fit: WindowFit, job: SettingJob): SettingAnswer {
  const quickest = quickestSetting(fit, job);
  const tried = triedPlaces(fit);
  const widest = grid(fit, job)
    .map((point) => judged(fit, point, job))
    .filter(({ holds }) => holds > 0.3)
    .sort((a, b) => b.worst - a.worst || a.seconds - b.seconds)
    .find((choice) => tried(choice));
  return { quickest, widest: widest ?? null };
}

/**
 * The shortest job alone: settings are looked at from the quickest on, and the first that meets the bound inside the hull is it.
 * Much less work than both answers. Null when nothing meets the bound.
 * @throws value.out-of-range for a bound outside 0-1
 */
export function quickestSetting(fit: WindowFit, job: SettingJob): SettingChoice | null {
  requireWithin('bound', job.bound, 0, 1);
  const tried = triedPlaces(fit);
  const { powers, rasters } = tested(fit, job);
  const ordered = rasters.sort((a, b) => a.seconds - b.seconds);
  for (let i = 0; i < ordered.length;) {
    // All settings that take just as long: the safest of them.
    const same = [];
    for (const { seconds } = ordered[i]!; i < ordered.length && ordered[i]!.seconds === seconds; i += 1) {
      for (const power of powers) {
        const z = placeIn(fit, at(ordered[i]!, power));
        const { eta, low, high } = linear(fit, z, -1);
        if (between(low - eta, high - eta) >= 0.9 * job.bound && meetsBound(fit, z, job.tolerance, job.bound))
          same.push(judged(fit, at(ordered[i]!, power), job));
      }
    }
    const found = same.sort((a, b) => b.worst - a.worst).find((choice) => tried(choice));
    if (found) return { ...found, binding: bindingOf(found, fit, job) };
  }
  return null;
}

function judged(fit: WindowFit, point: GridPoint, job: SettingJob): SettingChoice {
  return { ...point, ...chances(fit, placeIn(fit, point), job.tolerance), binding: null };
}

/** The chosen setting's worst case as a Figure of the grade that its proof earns. */
export function settingFigure(
  choice: Pick<SettingChoice, 'worst'>,
  proof: { grade: Grade; cells: number; coupons: readonly RecordRef[] },
): Figure {
  return makeFigure({
    formula: 'settingFromWindow',
    value: choice.worst,
    unit: '',
    inputs: [
      ...proof.coupons.map((ref) => decisive('scrubbed coupon', proof.grade, { value: `${proof.cells} cells`, ref })),
      supporting('weak prior: slopes in the ratio of heat index and dose', 'guess'),
    ],
  });
}

type Power = Pick<SettingChoice, 'powerPercent' | 'powerW'>;
type GridPoint = Omit<SettingChoice, 'holds' | 'worst' | 'binding'>;
type Raster = Omit<GridPoint, keyof Power>;

/** Every percent × speed × tested rest within the tested powers, with the time of its job. */
function grid(fit: WindowFit, job: SettingJob): GridPoint[] {
  const { powers, rasters } = tested(fit, job);
  return rasters.flatMap((raster) => powers.map((power) => at(raster, power)));
}

/** Written out: thousands of these are made for a window. */
function at(raster: Raster, { powerPercent, powerW }: Power): GridPoint {
  const { speedMmPerS, intervalMm, passes, seconds, hatches, angleDeg, focusOffsetMm, frequencyKHz, pulseNs } = raster;
  return {
    ...{ powerPercent, powerW, speedMmPerS, intervalMm, passes, seconds },
    ...{ hatches, angleDeg, focusOffsetMm, frequencyKHz, pulseNs },
  };
}

/** The two sides of the grid: powers within the tested ones, and rasters (speed and all the rest), which alone make the time of the job. */
function tested(fit: WindowFit, job: SettingJob): { powers: Power[]; rasters: Raster[] } {
  const wattsTested = fit.cells.map((cell) => cell.powerW);
  const [least, most] = [Math.min(...wattsTested) * (1 - 1e-9), Math.max(...wattsTested) * (1 + 1e-9)];
  const powers = Array.from({ length: 100 }, (_, i) => ({
    powerPercent: i + 1,
    powerW: deliveredPower(i + 1, job.power),
  })).filter(({ powerW }) => powerW >= least && powerW <= most);
  const speeds = speedGrid(fit, job);
  const rasters = testedRests(fit.cells).flatMap((rest) =>
    speeds.map((speedMmPerS) => ({
      ...rest,
      speedMmPerS,
      seconds: rasterTime({ ...job, ...rest, speedMmPerS, passes: rest.passes * (rest.hatches ?? 1) }, job.motion),
    })),
  );
  return { powers, rasters };
}

/** All that was tested together besides power and speed, each once. */
function testedRests(cells: readonly WindowCell[]): WindowRest[] {
  const rests = cells.map(({ intervalMm, passes, hatches, angleDeg, focusOffsetMm, frequencyKHz, pulseNs }) => ({
    ...{ intervalMm, passes, hatches, angleDeg, focusOffsetMm, frequencyKHz, pulseNs },
  }));
  return [...new Map(rests.map((rest) => [JSON.stringify(rest), rest])).values()];
}

/**
 * Whether a point lies inside what the scrubbed cells tried: the hull of the cells of its own line interval. What holds at 0.05 mm and
 * at 0.08 mm says nothing sure of 0.06 mm.
 */
function triedPlaces(fit: WindowFit): (point: WindowPoint) => boolean {
  const hulls = new Map<number, number[][]>();
  return (point) => {
    let hull = hulls.get(point.intervalMm);
    if (!hull) {
      hull = fit.cells
        .filter(({ intervalMm }) => samePart('intervalMm', intervalMm, point.intervalMm))
        .map((cell) => placeIn(fit, { ...cell, intervalMm: point.intervalMm }));
      hulls.set(point.intervalMm, hull);
    }
    return insideHull(placeIn(fit, point), hull);
  };
}

function speedGrid(fit: WindowFit, job: SettingJob): number[] {
  const tested = fit.cells.map((cell) => cell.speedMmPerS);
  const low = Math.min(...tested);
  const high = Math.min(Math.max(...tested), job.topSpeedMmPerS);
  if (high <= low) return [low];
  return Array.from({ length: SPEED_STEPS }, (_, i) =>
    Number((low * (high / low) ** (i / (SPEED_STEPS - 1))).toPrecision(3)),
  ).filter((speed) => speed >= low && speed <= high);
}

/**
 * What a given setting promises under a fit: mean chance of holding, the worst case inside the tolerance box, and whether it lies
 * inside the hull of the scrubbed cells.
 * @throws value.not-positive
 */
export function judgeSetting(
  fit: WindowFit,
  point: WindowPoint,
  tolerance: ToleranceBox,
): { holds: number; worst: number; inside: boolean } {
  return { ...chances(fit, placeIn(fit, point), tolerance), inside: triedPlaces(fit)(point) };
}

/** ln of how far power may sag (focus drift counted as lost power) and swing up. */
function tolerated(tolerance: ToleranceBox): { down: number; up: number } {
  return {
    down: Math.log(1 - tolerance.powerShare) + Math.log(1 - tolerance.focusShare),
    up: Math.log(1 + tolerance.powerShare),
  };
}

/** Chance of holding at the worse end of the tolerance box under a draw; the ends are where it is least. */
function worstOfDraw(fit: WindowFit, eta: number, at: number, { down, up }: { down: number; up: number }): number {
  const [low, high, slope] = [fit.draws[at]!, fit.draws[at + 1]!, fit.draws[at + 2]!];
  const [weak, strong] = [eta + slope * down, eta + slope * up];
  return Math.min(between(low - weak, high - weak), between(low - strong, high - strong));
}

/** Place of the 5th percentile among the sorted draws. */
function fifthPercentile(count: number): number {
  return Math.floor(0.05 * (count - 1));
}

/** Whether the 5th percentile of the worst case reaches a bound; stops as soon as too many draws fall short. */
function meetsBound(fit: WindowFit, z: readonly number[], tolerance: ToleranceBox, bound: number): boolean {
  const box = tolerated(tolerance);
  const stride = drawStride(fit);
  let short = 0;
  for (let d = 0; d < fit.drawCount; d += 1) {
    if (worstOfDraw(fit, etaOfDraw(fit, z, d), d * stride, box) < bound) {
      short += 1;
      if (short > fifthPercentile(fit.drawCount)) return false;
    }
  }
  return true;
}

/** Mean chance at the point; 5th percentile of the worst of the two ends of the tolerance box. */
function chances(fit: WindowFit, z: readonly number[], tolerance: ToleranceBox): { holds: number; worst: number } {
  const atFit = linear(fit, z, -1);
  if (between(atFit.low - atFit.eta, atFit.high - atFit.eta) < 0.3) return { holds: 0, worst: 0 };
  const box = tolerated(tolerance);
  const stride = drawStride(fit);
  const worst = new Float64Array(fit.drawCount);
  let sum = 0;
  for (let d = 0; d < fit.drawCount; d += 1) {
    const at = d * stride;
    const eta = etaOfDraw(fit, z, d);
    sum += between(fit.draws[at]! - eta, fit.draws[at + 1]! - eta);
    worst[d] = worstOfDraw(fit, eta, at, box);
  }
  worst.sort();
  return { holds: sum / fit.drawCount, worst: worst[fifthPercentile(worst.length)]! };
}

/** Why not quicker: looks at what the next faster step would run into. */
function bindingOf(choice: SettingChoice, fit: WindowFit, job: SettingJob): Binding {
  if (choice.speedMmPerS >= job.topSpeedMmPerS * 0.999) return 'top-speed';
  if (job.motion.kind === 'gantry' && job.directions === 'two-way') {
    if (choice.speedMmPerS >= 0.97 * fastestRowSpeed(job.widthMm, job.motion.accelerationMmPerS2)) return 'turnaround';
  }
  const fastest = Math.max(...fit.cells.map((cell) => cell.speedMmPerS));
  if (choice.speedMmPerS >= fastest * 0.999) return 'tested-range';
  const faster = linear(fit, placeIn(fit, { ...choice, speedMmPerS: choice.speedMmPerS * 1.03 }), -1);
  return faster.eta - faster.low < faster.high - faster.eta ? 'too-little' : 'too-much';
}
