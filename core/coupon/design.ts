import { CoreError } from '../support/core-error.js';
import { CORE_READING, readIn, type Quantity, type UnitReading } from '../units/registry.js';
import { requireFinite, requireNotNegative, requirePositive, requireWithin } from '../support/require.js';

/** What a coupon may vary, in core units: percent of full scale, mm/s, mm, kHz, ns, mm, degrees, and counts. */
export const COUPON_PARAMETERS = [
  'power',
  'speed',
  'interval',
  'frequency',
  'pulse',
  'focus',
  'angle',
  'hatches',
  'passes',
  'coats',
  'compound',
] as const;
export type CouponParameter = (typeof COUPON_PARAMETERS)[number];

export const PARAMETER_UNITS: Record<CouponParameter, string> = {
  power: '%',
  speed: 'mm/s',
  interval: 'mm',
  frequency: 'kHz',
  pulse: 'ns',
  focus: 'mm',
  angle: '°',
  hatches: '',
  passes: '',
  coats: '',
  compound: '',
};

/** Parameters that panels and shops read in units of their own. */
export const PARAMETER_QUANTITIES: Partial<Record<CouponParameter, Quantity>> = {
  power: 'power',
  speed: 'speed',
  interval: 'interval',
  focus: 'length',
};

/** A parameter's value as it reads on a panel. */
export function readParameter(
  parameter: CouponParameter,
  value: number,
  reading: UnitReading,
): { readonly value: number; readonly unit: string } {
  const quantity = PARAMETER_QUANTITIES[parameter];
  return quantity ? readIn(reading, quantity, value) : { value, unit: PARAMETER_UNITS[parameter] };
}

/** What a value of an axis is called on the blank: short, as it is keyed in at the machine; compounds go by letters. */
export function axisLabel({ labels }: CouponDesign, parameter: CouponParameter, value: number): string {
  if (parameter === 'compound') return String.fromCharCode(64 + value);
  return String(Number(readParameter(parameter, value, labels.reading ?? CORE_READING).value.toPrecision(3)));
}

/** Counted things: whole numbers, 1 and up. Hatches: 1 is one direction, 2 crosses it at a right angle. */
const COUNTED: Partial<Record<CouponParameter, number>> = { hatches: 2, passes: 99, coats: 5, compound: 9 };
/** Focus offset and hatch angle may be nought or below. */
const SIGNED: readonly CouponParameter[] = ['focus', 'angle'];
/** What is sprayed cannot change from cell to cell, only from block to block. */
const SPRAYED: readonly CouponParameter[] = ['coats', 'compound'];

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
  /** Values of the parameters that no axis varies. Frequency and pulse length are null where the head has none to set. */
  readonly fixed: {
    readonly powerPercent: number;
    readonly speedMmPerS: number;
    readonly intervalMm: number;
    readonly frequencyKHz: number | null;
    readonly pulseNs: number | null;
  };
  readonly passes: number;
  /** 2 hatches every cell again at a right angle. */
  readonly hatches: 1 | 2;
  readonly cell: { readonly widthMm: number; readonly heightMm: number };
  readonly gapMm: number;
  readonly marginMm: number;
  /** Filled cells, cells of separate lines `lineSpacingMm` apart, or a piece of the artwork in every cell. */
  readonly fill: 'filled' | 'lines' | 'artwork';
  readonly lineSpacingMm: number;
  /** Polylines in mm, origin at the lower left of the piece shown in a cell; needed where cells are artwork. */
  readonly artwork: { readonly name: string; readonly strokes: readonly (readonly ArtworkPoint[])[] } | null;
  readonly hatchAngleDeg: number;
  readonly directions: 'one-way' | 'two-way';
  /** Burnt labels: at rows and columns, or besides that under each cell. */
  readonly labels: {
    readonly at: 'edges' | 'each';
    /** Under each cell the letter of its column and the number of its row; not said on coupons that had the two values there. */
    readonly captions?: 'grid' | undefined;
    readonly heightMm: number;
    readonly powerPercent: number;
    readonly speedMmPerS: number;
    /** Units the labels are burnt in, as they were when it was designed; as the core counts where none is said. */
    readonly reading?: UnitReading | null | undefined;
  };
  readonly blank: { readonly widthMm: number; readonly heightMm: number };
  /** Compounds of the blocks, by id, where an axis varies the compound. */
  readonly compoundIds: readonly string[];
  /** The middle setting again in the corners and the centre of every block, to show drift of spray and flatness. */
  readonly anchors: boolean;
  /** A column beside the grid that is left uncoated: what the beam does alone. */
  readonly bareStrip: boolean;
  /** Corner marks by which a picture of it is read. */
  readonly frame: boolean;
  /** Order of burning: as read, or shuffled so that heat and drift do not follow an axis. */
  readonly order: 'as read' | 'shuffled';
  readonly orderSeed: number;
}

export type ArtworkPoint = readonly [x: number, y: number];

/** The parts of a design that a plain coupon leaves as they are. */
export const PLAIN_DESIGN = {
  passes: 1,
  hatches: 1,
  artwork: null,
  compoundIds: [],
  anchors: false,
  bareStrip: false,
  frame: true,
  order: 'as read',
  orderSeed: 1,
} as const satisfies Partial<CouponDesign>;

/** What the head allows. */
export interface CouponLimits {
  readonly bed: { readonly widthMm: number; readonly heightMm: number };
  readonly topSpeedMmPerS: number;
  readonly firingThresholdPercent: number;
  /** What a pulsed head can be set to; undefined where it has nothing to set. */
  readonly frequencyKHz?: Range | undefined;
  readonly pulseNs?: Range | undefined;
}

export interface Range {
  readonly low: number;
  readonly high: number;
}

/** More cells than a coupon of 50 × 80 help nobody and would stall a bench phone. */
export const MAX_CELLS = 4000;
/** More rows than any coupon that is burnt in an hour, fewer than a program that no controller takes. */
const MOST_ROWS = 500_000;

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
    axis.values.forEach((value) => requireValue(axis.parameter, value));
    if (new Set(axis.values).size !== axis.values.length) {
      throw new CoreError('coupon.axes', `The ${axis.parameter} axis lists a value twice.`, { path: axis.parameter });
    }
    return [...axis.values];
  }
  const { count, from, to } = axis;
  if (!Number.isInteger(count) || count < 1) {
    throw new CoreError('coupon.axes', `The ${axis.parameter} axis needs one step or more.`, { path: axis.parameter });
  }
  requireValue(axis.parameter, from, axis.spacing);
  if (count === 1) return [from];
  requireValue(axis.parameter, to, axis.spacing);
  if (from === to) {
    throw new CoreError(
      'coupon.axes',
      `The ${axis.parameter} axis runs from ${from} to ${to}: give it one step, or two ends.`,
      {
        path: axis.parameter,
      },
    );
  }
  const values = Array.from({ length: count }, (_, i) => {
    const t = i / (count - 1);
    const value = axis.spacing === 'log' ? from * (to / from) ** t : from + (to - from) * t;
    return Number(value.toPrecision(6));
  });
  values.forEach((value) => requireValue(axis.parameter, value));
  return values;
}

/** A value that its parameter can take. */
function requireValue(parameter: CouponParameter, value: number, spacing?: 'linear' | 'log'): void {
  const most = COUNTED[parameter];
  if (SIGNED.includes(parameter) && spacing !== 'log') requireFinite(parameter, value);
  else requirePositive(parameter, value);
  if (most !== undefined && spacing === undefined && (!Number.isInteger(value) || value > most))
    throw new CoreError('coupon.axes', `The ${parameter} axis takes whole numbers from 1 to ${most}, not ${value}.`, {
      path: parameter,
    });
}

/**
 * Checks every number of a design against itself and the head.
 * @throws coupon.axes, coupon.too-many-cells, coupon.too-many-rows, value.*
 */
export function checkDesign(design: CouponDesign, limits: CouponLimits): void {
  const axes = [design.axes.x, design.axes.y, ...(design.axes.block ? [design.axes.block] : [])];
  if (new Set(axes.map((axis) => axis.parameter)).size !== axes.length) {
    throw new CoreError('coupon.axes', 'Each axis must vary something else.', { path: 'axes' });
  }
  const sprayed = [design.axes.x, design.axes.y].find(({ parameter }) => SPRAYED.includes(parameter));
  if (sprayed) {
    throw new CoreError('coupon.axes', `The ${sprayed.parameter} can only change from block to block.`, {
      path: 'axes',
    });
  }
  const values = valuesOf(design);
  const cells = axes.reduce((product, { parameter }) => product * values[parameter]!.length, 1);
  if (cells > MAX_CELLS) {
    throw new CoreError('coupon.too-many-cells', `${cells} cells; a coupon holds at most ${MAX_CELLS}.`, {
      path: 'axes',
    });
  }
  checkValues(design, values, limits);
  requirePositive('cell width', design.cell.widthMm);
  requirePositive('cell height', design.cell.heightMm);
  requireNotNegative('gap', design.gapMm);
  requireNotNegative('margin', design.marginMm);
  requirePositive('blank width', design.blank.widthMm);
  requirePositive('blank height', design.blank.heightMm);
  requirePositive('label height', design.labels.heightMm);
  requireWithin('label power', requirePositive('label power', design.labels.powerPercent), 0, 100);
  if (!Number.isInteger(design.passes) || design.passes < 1 || design.passes > 99) {
    throw new CoreError('value.out-of-range', 'Passes must be a whole number from 1 to 99.', { path: 'passes' });
  }
  if (design.fill === 'lines') requirePositive('line spacing', design.lineSpacingMm);
  if (design.fill === 'artwork' && !design.artwork?.strokes.length)
    throw new CoreError('coupon.axes', 'Cells are to show the artwork: bring an SVG of it.', { path: 'artwork' });
  checkRows(design, values, cells);
}

/** Rows (or pieces of artwork) that the whole coupon is made of, counted on the average over its axes. */
function checkRows(design: CouponDesign, values: ParameterValues, cells: number): void {
  const mean = (of: readonly number[]) => of.reduce((sum, value) => sum + value, 0) / of.length;
  const across = Math.hypot(design.cell.widthMm, design.cell.heightMm);
  const spacings = design.fill === 'lines' ? [design.lineSpacingMm] : values.interval!;
  const ofCell =
    design.fill === 'artwork'
      ? (design.artwork?.strokes ?? []).reduce((sum, { length }) => sum + length, 0)
      : mean(spacings.map((spacing) => across / spacing)) * mean(values.hatches!);
  const rows = cells * ofCell * mean(values.passes!);
  if (rows > MOST_ROWS)
    throw new CoreError(
      'coupon.too-many-rows',
      `The coupon would be ${Math.round(rows / 1000)} thousand rows; at most ${MOST_ROWS / 1000} thousand are laid out. Take fewer or smaller cells, or rows further apart.`,
      { path: 'cell.heightMm' },
    );
}

/** Every value that each parameter takes on the coupon. */
function valuesOf({ axes, fixed, passes, hatches, hatchAngleDeg }: CouponDesign): ParameterValues {
  const values: ParameterValues = {
    power: [fixed.powerPercent],
    speed: [fixed.speedMmPerS],
    interval: [fixed.intervalMm],
    frequency: fixed.frequencyKHz === null ? [] : [fixed.frequencyKHz],
    pulse: fixed.pulseNs === null ? [] : [fixed.pulseNs],
    passes: [passes],
    hatches: [hatches],
    angle: [hatchAngleDeg],
  };
  for (const axis of [axes.x, axes.y, ...(axes.block ? [axes.block] : [])]) values[axis.parameter] = axisValues(axis);
  return values;
}

type ParameterValues = Partial<Record<CouponParameter, number[]>>;

function checkValues(design: CouponDesign, values: ParameterValues, limits: CouponLimits): void {
  for (const percent of values.power!) requireWithin('power', requirePositive('power', percent), 0, 100);
  for (const speed of [...values.speed!, design.labels.speedMmPerS]) checkSpeed(speed, limits.topSpeedMmPerS);
  for (const interval of values.interval!) requirePositive('interval', interval);
  for (const offset of values.focus ?? []) requireWithin('focus', offset, -20, 20);
  for (const angle of values.angle!) requireWithin('hatch angle', angle, -90, 90);
  if (values.frequency!.length && !limits.frequencyKHz) throw notSet('frequency');
  if (values.pulse!.length && !limits.pulseNs) throw notSet('pulse');
  for (const value of [...values.frequency!, ...values.pulse!]) requirePositive('value', value);
  const most = Math.max(0, ...(values.compound ?? []));
  if (most > design.compoundIds.length)
    throw new CoreError('coupon.axes', `Name ${most} compounds, one for each block.`, { path: 'compound' });
}

function notSet(parameter: 'frequency' | 'pulse'): CoreError {
  const name = parameter === 'pulse' ? 'pulse length' : 'frequency';
  return new CoreError('coupon.axes', `This head has no ${name} to set: leave it out.`, { path: parameter });
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
