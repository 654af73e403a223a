import { deliveredPower, type PowerSource } from '../beam/delivered-power.js';
import { decisive, makeFigure, supporting, type Figure, type RecordRef } from '../evidence/figure.js';
import { requireWithin } from '../support/require.js';
import { fastestRowSpeed, rasterTime, type RowMotion } from '../time/raster.js';
import { between, linear, logPoint, type WindowFit, type WindowPoint } from './fit-window.js';
import { insideHull } from './hull.js';

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
export interface SettingChoice {
  readonly powerPercent: number;
  readonly powerW: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  readonly passes: number;
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
  requireWithin('bound', job.bound, 0, 1);
  const candidates = allCandidates(fit, job);
  const hull = fit.cells.map((cell) => logPoint(cell));
  const proved = (choice: SettingChoice) => insideHull(logPoint(choice), hull);
  const byTime = candidates
    .filter((choice) => choice.worst >= job.bound)
    .sort((a, b) => a.seconds - b.seconds || b.worst - a.worst);
  const byMargin = [...candidates].sort((a, b) => b.worst - a.worst || a.seconds - b.seconds);
  const quickest = byTime.find(proved) ?? null;
  const widest = byMargin.find(proved) ?? null;
  return {
    quickest: quickest && { ...quickest, binding: bindingOf(quickest, fit, job) },
    widest,
  };
}

/** The chosen setting's worst case as a Figure; proved when the cells it rests on are scrubbed on these very revisions. */
export function settingFigure(
  choice: SettingChoice,
  evidence: { sameRevisions: boolean; cells: number; coupons: readonly RecordRef[] },
): Figure {
  return makeFigure({
    formula: 'settingFromWindow',
    value: choice.worst,
    unit: '',
    inputs: [
      ...evidence.coupons.map((ref) =>
        decisive('scrubbed coupon', evidence.sameRevisions ? 'proved' : 'carried', {
          value: `${evidence.cells} cells`,
          ref,
        }),
      ),
      supporting('weak prior: slopes in the ratio of heat index and dose', 'guess'),
    ],
  });
}

function allCandidates(fit: WindowFit, job: SettingJob): SettingChoice[] {
  const speeds = speedGrid(fit, job);
  const intervals = unique(fit.cells.map((cell) => cell.intervalMm));
  const passes = unique(fit.cells.map((cell) => cell.passes));
  const wattsTested = fit.cells.map((cell) => cell.powerW);
  const [least, most] = [Math.min(...wattsTested) * (1 - 1e-9), Math.max(...wattsTested) * (1 + 1e-9)];
  const powers = Array.from({ length: 100 }, (_, i) => ({
    powerPercent: i + 1,
    powerW: deliveredPower(i + 1, job.power),
  }));
  const candidates: SettingChoice[] = [];
  for (const intervalMm of intervals) {
    for (const pass of passes) {
      for (const speedMmPerS of speeds) {
        const seconds = rasterTime({ ...job, intervalMm, speedMmPerS, passes: pass }, job.motion);
        for (const power of powers) {
          if (power.powerW < least || power.powerW > most) continue;
          const point = { ...power, speedMmPerS, intervalMm, passes: pass };
          const chance = chances(fit, logPoint(point), job.tolerance);
          if (chance.holds > 0.3) candidates.push({ ...point, seconds, ...chance, binding: null });
        }
      }
    }
  }
  return candidates;
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
  const z = logPoint(point);
  return {
    ...chances(fit, z, tolerance),
    inside: insideHull(
      z,
      fit.cells.map((cell) => logPoint(cell)),
    ),
  };
}

/** Mean chance at the point; 5th percentile of the worst of the two ends of the tolerance box, where the chance is least. */
function chances(fit: WindowFit, z: readonly number[], tolerance: ToleranceBox): { holds: number; worst: number } {
  const atFit = linear(fit, z, -1);
  if (between(atFit.low - atFit.eta, atFit.high - atFit.eta) < 0.3) return { holds: 0, worst: 0 };
  const down = Math.log(1 - tolerance.powerShare) + Math.log(1 - tolerance.focusShare);
  const up = Math.log(1 + tolerance.powerShare);
  const worst: number[] = [];
  let sum = 0;
  for (let d = 0; d < fit.drawCount; d += 1) {
    const { eta, low, high } = linear(fit, z, d);
    const slope = fit.draws[d * 6 + 2]!;
    sum += between(low - eta, high - eta);
    const weak = eta + slope * down;
    const strong = eta + slope * up;
    worst.push(Math.min(between(low - weak, high - weak), between(low - strong, high - strong)));
  }
  worst.sort((a, b) => a - b);
  return { holds: sum / fit.drawCount, worst: worst[Math.floor(0.05 * (worst.length - 1))]! };
}

/** Why not quicker: looks at what the next faster step would run into. */
function bindingOf(choice: SettingChoice, fit: WindowFit, job: SettingJob): Binding {
  if (choice.speedMmPerS >= job.topSpeedMmPerS * 0.999) return 'top-speed';
  if (job.motion.kind === 'gantry' && job.directions === 'two-way') {
    if (choice.speedMmPerS >= 0.97 * fastestRowSpeed(job.widthMm, job.motion.accelerationMmPerS2)) return 'turnaround';
  }
  const fastest = Math.max(...fit.cells.map((cell) => cell.speedMmPerS));
  if (choice.speedMmPerS >= fastest * 0.999) return 'tested-range';
  const faster = linear(fit, logPoint({ ...choice, speedMmPerS: choice.speedMmPerS * 1.03 }), -1);
  return faster.eta - faster.low < faster.high - faster.eta ? 'too-little' : 'too-much';
}

function unique(values: readonly number[]): number[] {
  return [...new Set(values)];
}
