import { CoreError } from '../support/core-error.js';
import { requireNotNegative, requirePositive, requireWithin } from '../support/require.js';

/** What a coupon may vary, in core units: percent of full scale, mm/s, mm. */
export const COUPON_PARAMETERS = ['power', 'speed', 'interval'] as const;
export type CouponParameter = (typeof COUPON_PARAMETERS)[number];

export const PARAMETER_UNITS: Record<CouponParameter, string> = { power: '%', speed: 'mm/s', interval: 'mm' };

/** One axis of a coupon: evenly spaced, spaced by equal ratios, or a list. */
export type CouponAxis =
  | {
      readonly parameter: CouponParameter;
      readonly spacing: 'linear' | 'log';
      readonly from: number;
      readonly to: number;
      readonly count: number;
    }
  | { readonly parameter: CouponParameter; readonly spacing: 'list'; readonly values: readonly number[] };

/** A coupon as designed. Lengths in mm; axes x (columns), y (rows) and optionally blocks side by side. */
export interface CouponDesign {
  readonly code: string;
  readonly axes: { readonly x: CouponAxis; readonly y: CouponAxis; readonly block?: CouponAxis | undefined };
  /** Values of the parameters that no axis varies. */
  readonly fixed: { readonly powerPercent: number; readonly speedMmPerS: number; readonly intervalMm: number };
  readonly passes: number;
  readonly cell: { readonly widthMm: number; readonly heightMm: number };
  readonly gapMm: number;
  readonly marginMm: number;
  /** Filled cells, or cells of separate lines `lineSpacingMm` apart. */
  readonly fill: 'filled' | 'lines';
  readonly lineSpacingMm: number;
  readonly hatchAngleDeg: number;
  readonly directions: 'one-way' | 'two-way';
  /** Burnt labels: at rows and columns, or besides that under each cell. */
  readonly labels: {
    readonly at: 'edges' | 'each';
    readonly heightMm: number;
    readonly powerPercent: number;
    readonly speedMmPerS: number;
  };
  readonly blank: { readonly widthMm: number; readonly heightMm: number };
}

/** What the head allows. */
export interface CouponLimits {
  readonly bed: { readonly widthMm: number; readonly heightMm: number };
  readonly topSpeedMmPerS: number;
  readonly firingThresholdPercent: number;
}

/** More cells than a coupon of 50 × 80 help nobody and would stall a bench phone. */
export const MAX_CELLS = 4000;

/**
 * Values along an axis, in the order designed.
 * @throws coupon.axes for a count below 1, an empty list or a log axis through 0; value.* for bad numbers
 * @example axisValues({ parameter: 'speed', spacing: 'log', from: 100, to: 400, count: 3 }) // [100, 200, 400]
 */
export function axisValues(axis: CouponAxis): number[] {
  if (axis.spacing === 'list') {
    if (axis.values.length === 0) {
      throw new CoreError('coupon.axes', `The ${axis.parameter} axis lists no value.`, { path: axis.parameter });
    }
    axis.values.forEach((value) => requirePositive(axis.parameter, value));
    if (new Set(axis.values).size !== axis.values.length) {
      throw new CoreError('coupon.axes', `The ${axis.parameter} axis lists a value twice.`, { path: axis.parameter });
    }
    return [...axis.values];
  }
  const { count, from, to } = axis;
  if (!Number.isInteger(count) || count < 1) {
    throw new CoreError('coupon.axes', `The ${axis.parameter} axis needs one step or more.`, { path: axis.parameter });
  }
  requirePositive(axis.parameter, from);
  if (count === 1) return [from];
  requirePositive(axis.parameter, to);
  if (from === to) {
    throw new CoreError(
      'coupon.axes',
      `The ${axis.parameter} axis runs from ${from} to ${to}: give it one step, or two ends.`,
      {
        path: axis.parameter,
      },
    );
  }
  return Array.from({ length: count }, (_, i) => {
    const t = i / (count - 1);
    const value = axis.spacing === 'log' ? from * (to / from) ** t : from + (to - from) * t;
    return Number(value.toPrecision(6));
  });
}

/**
 * Checks every number of a design against itself and the head.
 * @throws coupon.axes, coupon.too-many-cells, value.*
 */
export function checkDesign(design: CouponDesign, limits: CouponLimits): void {
  const axes = [design.axes.x, design.axes.y, ...(design.axes.block ? [design.axes.block] : [])];
  if (new Set(axes.map((axis) => axis.parameter)).size !== axes.length) {
    throw new CoreError('coupon.axes', 'Each axis must vary something else.', { path: 'axes' });
  }
  const values = {
    power: [design.fixed.powerPercent],
    speed: [design.fixed.speedMmPerS],
    interval: [design.fixed.intervalMm],
  };
  for (const axis of axes) values[axis.parameter] = axisValues(axis);
  const cells = axes.reduce((product, axis) => product * values[axis.parameter].length, 1);
  if (cells > MAX_CELLS) {
    throw new CoreError('coupon.too-many-cells', `${cells} cells; a coupon holds at most ${MAX_CELLS}.`, {
      path: 'axes',
    });
  }
  for (const percent of values.power) {
    requireWithin('power', requirePositive('power', percent), 0, 100);
  }
  for (const speed of [...values.speed, design.labels.speedMmPerS]) checkSpeed(speed, limits.topSpeedMmPerS);
  for (const interval of values.interval) requirePositive('interval', interval);
  requirePositive('cell width', design.cell.widthMm);
  requirePositive('cell height', design.cell.heightMm);
  requireNotNegative('gap', design.gapMm);
  requireNotNegative('margin', design.marginMm);
  requirePositive('blank width', design.blank.widthMm);
  requirePositive('blank height', design.blank.heightMm);
  requirePositive('label height', design.labels.heightMm);
  requireWithin('label power', requirePositive('label power', design.labels.powerPercent), 0, 100);
  requireWithin('hatch angle', design.hatchAngleDeg, -90, 90);
  if (!Number.isInteger(design.passes) || design.passes < 1 || design.passes > 99) {
    throw new CoreError('value.out-of-range', 'Passes must be a whole number from 1 to 99.', { path: 'passes' });
  }
  if (design.fill === 'lines') requirePositive('line spacing', design.lineSpacingMm);
}

/** @throws value.not-positive, value.out-of-range */
export function checkSpeed(speedMmPerS: number, topMmPerS: number): void {
  requirePositive('speed', speedMmPerS);
  if (speedMmPerS > topMmPerS * (1 + 1e-9)) {
    throw new CoreError(
      'value.out-of-range',
      `${Number(speedMmPerS.toPrecision(5))} mm/s is faster than this head runs, ${topMmPerS} mm/s.`,
      { path: 'speed' },
    );
  }
}
