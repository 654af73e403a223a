import { array, boolean, number, object, string, tuple, type InferType } from 'yup';
import { COUPON_PARAMETERS, MAX_CELLS, OUTCOMES, STAGES, type CouponDesign } from '@unto/core';
import { finite, oneOf, notNegative, optionalNumber, outcome, positive, uuid, whole, within } from '../fields/index.js';
import type { Burn } from '../devices/controller.js';
import { outcomeRules, type CouponPicture } from './pictures.js';

const axis = () =>
  object({
    parameter: oneOf('Parameter', COUPON_PARAMETERS),
    spacing: oneOf('Spacing', ['linear', 'log', 'list'] as const),
    from: finite('From').optional(),
    to: finite('To').optional(),
    count: whole('Steps', 1, MAX_CELLS).optional(),
    values: array().of(finite('Value')).optional(),
  }).noUnknown();

const MOST_STROKES = 2000;

/** Shape of a design; the core checks its sense (sizes, axes, head limits). */
export const couponDesign = object({
  code: string().max(20).defined().default(''),
  axes: object({ x: axis().required(), y: axis().required(), block: axis().optional().default(undefined) }).noUnknown(),
  fixed: object({
    powerPercent: within('Power', 0, 100, '%').moreThan(0, 'Power must be above 0.'),
    speedMmPerS: positive('Speed', 'mm/s'),
    intervalMm: positive('Interval', 'mm'),
    frequencyKHz: optionalNumber('Frequency', 'kHz'),
    pulseNs: optionalNumber('Pulse length', 'ns'),
  }).noUnknown(),
  hatches: number().oneOf([1, 2], 'Cells are hatched once or crossed.').default(1).required(),
  passes: whole('Passes', 1, 99),
  cell: object({ widthMm: positive('Cell width', 'mm'), heightMm: positive('Cell height', 'mm') }).noUnknown(),
  gapMm: notNegative('Gap', 'mm'),
  marginMm: notNegative('Margin', 'mm'),
  fill: oneOf('Cells', ['filled', 'lines', 'artwork'] as const),
  lineSpacingMm: positive('Line spacing', 'mm'),
  hatchAngleDeg: within('Hatch angle', -90, 90, '°'),
  directions: oneOf('Directions', ['one-way', 'two-way'] as const),
  labels: object({
    at: oneOf('Labels', ['edges', 'each'] as const),
    heightMm: positive('Label height', 'mm'),
    powerPercent: within('Label power', 0, 100, '%').moreThan(0, 'Label power must be above 0.'),
    speedMmPerS: positive('Label speed', 'mm/s'),
  }).noUnknown(),
  blank: object({ widthMm: positive('Blank width', 'mm'), heightMm: positive('Blank height', 'mm') }).noUnknown(),
  artwork: object({
    name: string().defined().max(200),
    strokes: array()
      .of(
        array()
          .of(tuple([finite('x', 'mm'), finite('y', 'mm')]).required())
          .required(),
      )
      .required()
      .max(MOST_STROKES, 'That artwork has too many strokes for a cell: bring a smaller piece of it.'),
  })
    .noUnknown()
    .nullable()
    .defined()
    .default(null),
  compoundIds: array().of(uuid().label('Compound')).defined().default([]).max(9),
  anchors: boolean().default(false).required(),
  bareStrip: boolean().default(false).required(),
  frame: boolean().default(true).required(),
  order: oneOf('Order', ['as read', 'shuffled'] as const).default('as read'),
  orderSeed: whole('Seed', 1, 1e9).default(1),
}).noUnknown();

export const createCoupon = object({
  id: uuid().label('id'),
  ticketId: uuid().label('Ticket').nullable().defined().default(null),
  substrateId: uuid().label('Substrate'),
  compoundId: uuid().label('Compound').nullable().defined().default(null),
  headId: uuid().label('Head'),
  lensId: uuid().label('Lens'),
  focusOffsetMm: finite('Focus offset', 'mm').default(0),
  design: couponDesign,
}).noUnknown();
/** A coupon may be redesigned until it is burnt. */
export const redesignCoupon = object({
  version: whole('Version', 1, 1e9),
  focusOffsetMm: finite('Focus offset', 'mm'),
  design: couponDesign,
}).noUnknown();
export const markBurnt = object({ version: whole('Version', 1, 1e9) }).noUnknown();

/** Outcomes of some cells at a stage. Appended; the newest reading of a cell counts. */
export const createReading = object({
  id: uuid().label('id'),
  stage: oneOf('Stage', STAGES),
  /** Entered by eye with no scale, from a table, from a picture, or by eye against the printed step scale. */
  source: oneOf('Source', ['entered', 'csv', 'picture', 'scale'] as const),
  pictureId: uuid().label('Picture').nullable().optional(),
  rules: outcomeRules.nullable().optional().default(undefined),
  entries: array()
    .of(
      object({
        cell: number().label('Cell').integer().min(0).required(),
        outcome: outcome(),
        /** What the rules proposed, where a picture was read. */
        proposed: string()
          .oneOf([...OUTCOMES])
          .optional(),
        /** Why somebody took another outcome than proposed. */
        reason: string().max(300).optional(),
        /** Step of the printed scale that the cell is like, 0 (bare) to 10. */
        step: number().label('Step').integer().min(0).max(10).optional(),
      }).noUnknown(),
    )
    .required()
    .min(1, 'Mark at least one cell.')
    .max(MAX_CELLS),
}).noUnknown();

export type CreateCoupon = Omit<InferType<typeof createCoupon>, 'design'> & { readonly design: CouponDesign };
export type CreateReading = InferType<typeof createReading>;

/** The revisions a record was made on. */
export interface Pins {
  readonly substrate: string;
  readonly compound: string | null;
  readonly head: string;
  readonly lens: string;
  readonly machine: string;
  readonly calibration: string | null;
}

export const COUPON_STAGES = ['designed', 'burnt', 'rinsed', 'scrubbed'] as const;
export type CouponStage = (typeof COUPON_STAGES)[number];

export interface Reading extends CreateReading {
  readonly at: string;
  readonly by: string;
}

/** A coupon as stored; `code` inside the design is the coupon's own. */
export interface Coupon extends Omit<CreateCoupon, 'id'> {
  readonly id: string;
  readonly version: number;
  readonly stage: CouponStage;
  readonly pins: Pins;
  readonly createdAt: string;
  readonly by: string;
  readonly burntAt: string | null;
  /** Cells burnt whole, where the run broke off; null where all were. */
  readonly burntCells: readonly number[] | null;
  readonly burn: Burn | null;
  readonly pictures: readonly CouponPicture[];
  readonly readings: readonly Reading[];
}

/** A row of the list of coupons. */
export interface CouponSummary {
  readonly id: string;
  readonly code: string;
  readonly stage: CouponStage;
  readonly ticketId: string | null;
  readonly ticketTitle: string | null;
  readonly substrateId: string;
  readonly compoundId: string | null;
  readonly headId: string;
  readonly lensId: string;
  readonly cells: number;
  readonly scrubbedCells: number;
  readonly holds: number;
  readonly createdAt: string;
}

export const listCouponsQuery = object({
  ticketId: string().optional(),
  stage: string()
    .oneOf([...COUPON_STAGES])
    .optional(),
});
