import { deliveredPower, type PowerSource } from '../beam/delivered-power.js';
import { requireWithin } from '../support/require.js';
import { fastestRowSpeed, rasterTime, type RowMotion } from '../time/raster.js';
import { boundariesAt, type BoundariesAt } from './fit-window.js';
import type { WindowFit } from './window-fit.js';
import { boxEnds, meetsBound, promiseAt, promiseOf, type SettingPromise, type ToleranceBox } from './promise.js';
import { triedPlaces } from './tried.js';
import { restOfPoint, type WindowCell, type WindowPoint, type WindowRest } from './window-terms.js';

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

/** The machine and job a setting is looked for on. */
export interface SettingJob {
  readonly power: PowerSource;
  readonly motion: RowMotion;
  readonly topSpeedMmPerS: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly directions: 'one-way' | 'two-way';
  readonly tolerance: ToleranceBox;
  /** Share of cells that must hold in the worst corner of the box, in 95 of 100 draws of the fit; 0.8 by default in the shop. */
  readonly bound: number;
}

/** A setting with what it promises. */
export interface SettingChoice extends WindowPoint, SettingPromise {
  readonly powerPercent: number;
  /** Seconds for one piece's rectangle. */
  readonly seconds: number;
  readonly binding: Binding | null;
}

const SPEED_STEPS = 60;

/**
 * The shortest job alone: settings are looked at from the quickest on, and the first that meets the bound inside the hull is it.
 * Much less work than both answers. Null when nothing meets the bound.
 * @throws value.out-of-range for a bound outside 0-1
 */
export function quickestSetting(fit: WindowFit, job: SettingJob): SettingChoice | null {
  requireWithin('bound', job.bound, 0, 1);
  const tried = triedPlaces(fit, job.tolerance);
  const { powers, rasters } = tested(fit, job);
  const ordered = rasters.sort((a, b) => a.seconds - b.seconds);
  for (let i = 0; i < ordered.length;) {
    // All settings that take just as long: the safest of them.
    const same = [];
    for (const { seconds } = ordered[i]!; i < ordered.length && ordered[i]!.seconds === seconds; i += 1) {
      const at = boundariesAt(fit, { ...ordered[i]!, powerW: 1 });
      for (const power of powers) {
        if (meetsBound(at, Math.log(power.powerW), job.tolerance, job.bound))
          same.push(judged(ordered[i]!, power, at, job));
      }
    }
    const found = same.sort((a, b) => b.worst - a.worst).find((choice) => tried(choice));
    if (found) return { ...found, binding: bindingOf(found, fit, job) };
  }
  return null;
}

export type Power = Pick<SettingChoice, 'powerPercent' | 'powerW'>;
export type Raster = Omit<SettingChoice, keyof Power | keyof SettingPromise | 'binding'>;

/** A power and a raster with what they promise within the raster's boundaries. */
export function judged(raster: Raster, power: Power, at: BoundariesAt, job: SettingJob): SettingChoice {
  return { ...raster, ...power, ...promiseAt(at, Math.log(power.powerW), job.tolerance, job.bound), binding: null };
}

/** The two sides of the grid: powers within the tested ones, and rasters (speed and all the rest), which alone make the time of the job. */
export function tested(fit: WindowFit, job: SettingJob): { powers: Power[]; rasters: Raster[] } {
  const wattsTested = fit.cells.map((cell) => cell.powerW);
  const { down, up } = boxEnds(job.tolerance);
  const [least, most] = [Math.min(...wattsTested) / Math.exp(down), Math.max(...wattsTested) / Math.exp(up)];
  const powers = Array.from({ length: 100 }, (_, i) => ({
    powerPercent: i + 1,
    powerW: deliveredPower(i + 1, job.power),
  })).filter(({ powerW }) => powerW >= least * (1 - 1e-9) && powerW <= most * (1 + 1e-9));
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
  const rests = cells.map(restOfPoint);
  return [...new Map(rests.map((rest) => [JSON.stringify(rest), rest])).values()];
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
 * What a given setting promises under a fit, and whether it lies with its box inside the hull of the scrubbed cells.
 * @throws value.not-positive
 */
export function judgeSetting(
  fit: WindowFit,
  point: WindowPoint,
  { tolerance, bound }: Pick<SettingJob, 'tolerance' | 'bound'>,
): SettingPromise & { inside: boolean } {
  return { ...promiseOf(fit, point, tolerance, bound), inside: triedPlaces(fit, tolerance)(point) };
}

/** Why not quicker: looks at what the next faster step would run into. */
function bindingOf(choice: SettingChoice, fit: WindowFit, job: SettingJob): Binding {
  if (choice.speedMmPerS >= job.topSpeedMmPerS * 0.999) return 'top-speed';
  if (job.motion.kind === 'gantry' && job.directions === 'two-way') {
    if (choice.speedMmPerS >= 0.97 * fastestRowSpeed(job.widthMm, job.motion.accelerationMmPerS2)) return 'turnaround';
  }
  const fastest = Math.max(...fit.cells.map((cell) => cell.speedMmPerS));
  if (choice.speedMmPerS >= fastest * 0.999) return 'tested-range';
  const faster = boundariesAt(fit, { ...choice, speedMmPerS: choice.speedMmPerS * 1.03 });
  const middle = (values: Float64Array) => values.reduce((sum, one) => sum + one, 0) / values.length;
  const lnPower = Math.log(choice.powerW);
  return lnPower - middle(faster.bondAt) < middle(faster.overAt) - lnPower ? 'too-little' : 'too-much';
}
