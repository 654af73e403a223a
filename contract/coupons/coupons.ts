import { array, boolean, number, object, string, tuple, type InferType, type Schema } from 'yup';
import { COUPON_PARAMETERS, MAX_CELLS, OUTCOMES, STAGES, type CouponDesign } from '@unto/core';
import {
  amount,
  finite,
  flag,
  instant,
  list,
  notNegative,
  oneOf,
  optionalNumber,
  orNull,
  outcome,
  pageQuery,
  positive,
  record,
  unitReading,
  uuid,
  who,
  whole,
  within,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';
import { burn } from '../devices/controller.js';
import { firing, firingNotes, keptSetting, type Firing } from '../setting/index.js';
import { couponPicture, outcomeRules } from './pictures.js';

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

const designShape = object({
  code: string().max(20).defined().default(''),
  axes: object({ x: axis().required(), y: axis().required(), block: axis().optional().default(undefined) }).noUnknown(),
  fixed: object({
    powerPercent: within('Power', 0, 100, '%').moreThan(0, 'Power must be above 0.'),
    speedMmPerS: positive('Speed', 'mm/s'),
    intervalMm: positive('Interval', 'mm'),
    frequencyKHz: optionalNumber('Frequency', 'kHz'),
    pulseNs: optionalNumber('Pulse length', 'ns'),
  }).noUnknown(),
  hatches: number<1 | 2>().oneOf([1, 2], 'Cells are hatched once or crossed.').default(1).required(),
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
    reading: unitReading().nullable().default(null),
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

/** A design. What an axis needs by its spacing, sizes and head limits, the core checks when it lays the coupon out. */
export const couponDesign = designShape as unknown as Schema<CouponDesign>;

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
/** Fired by hand: what was noted of the machine goes with it. */
export const markBurnt = object({ version: whole('Version', 1, 1e9), notes: firingNotes }).noUnknown();

export const READING_SOURCES = ['entered', 'csv', 'picture', 'scale'] as const;

const readingEntries = array()
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
  .max(MAX_CELLS);

/** Outcomes of some cells at a stage. Appended; the newest reading of a cell counts. */
export const createReading = object({
  id: uuid().label('id'),
  stage: oneOf('Stage', STAGES),
  /** Entered by eye with no scale, from a table, from a picture, or by eye against the printed step scale. */
  source: oneOf('Source', READING_SOURCES),
  pictureId: uuid().label('Picture').nullable().optional(),
  rules: outcomeRules.nullable().optional().default(undefined),
  entries: readingEntries,
}).noUnknown();

export type CreateCoupon = Frozen<InferType<typeof createCoupon>>;
export type CreateReading = Frozen<InferType<typeof createReading>>;

export const COUPON_STAGES = ['designed', 'burnt', 'rinsed', 'scrubbed'] as const;
export type CouponStage = (typeof COUPON_STAGES)[number];

/** The revisions a record was made on. */
export const revisions = record({
  substrate: uuid(),
  compound: orNull(uuid()),
  head: uuid(),
  lens: uuid(),
  machine: uuid(),
  calibration: orNull(uuid()),
});
export type Revisions = Frozen<InferType<typeof revisions>>;

export const reading = record({
  id: uuid(),
  stage: word(STAGES),
  source: word(READING_SOURCES),
  pictureId: orNull(uuid()),
  rules: orNull(outcomeRules),
  entries: readingEntries,
  at: instant(),
  by: who(),
});
export type Reading = Frozen<InferType<typeof reading>>;

/** A coupon as stored; `code` inside the design is the coupon's own. */
export const coupon = record({
  id: uuid(),
  ticketId: orNull(uuid()),
  substrateId: uuid(),
  compoundId: orNull(uuid()),
  headId: uuid(),
  lensId: uuid(),
  focusOffsetMm: amount(),
  design: couponDesign,
  version: amount(),
  stage: word(COUPON_STAGES),
  revisions,
  /** What was in force when it was fired; null before that, and for coupons of before it was frozen. */
  firing: orNull(firing as unknown as Schema<Firing>),
  createdAt: instant(),
  by: who(),
  burntAt: orNull(instant()),
  /** Cells burnt whole, where the run broke off; null where all were. */
  burntCells: orNull(list(amount())),
  burn: orNull(burn),
  pictures: list(couponPicture),
  readings: list(reading),
});
export type Coupon = Frozen<InferType<typeof coupon>>;

/** A row of the list of coupons. */
export const couponSummary = record({
  id: uuid(),
  code: words(),
  stage: word(COUPON_STAGES),
  ticketId: orNull(uuid()),
  ticketTitle: orNull(words()),
  substrateId: uuid(),
  compoundId: orNull(uuid()),
  headId: uuid(),
  lensId: uuid(),
  cells: amount(),
  scrubbedCells: amount(),
  holds: amount(),
  createdAt: instant(),
});
export type CouponSummary = Frozen<InferType<typeof couponSummary>>;

export const listCouponsQuery = object({
  ...pageQuery,
  ticketId: string().optional(),
  stage: string()
    .oneOf([...COUPON_STAGES])
    .optional(),
});
export type RedesignCoupon = Frozen<InferType<typeof redesignCoupon>>;
export type MarkBurnt = Frozen<InferType<typeof markBurnt>>;
export type ListCouponsQuery = Frozen<InferType<typeof listCouponsQuery>>;

/** A scrubbed cell as a window takes it, with its whole setting. */
export const windowCell = record({
  couponId: uuid(),
  ...keptSetting,
  powerPercent: amount(),
  powerW: amount(),
  speedMmPerS: amount(),
  intervalMm: amount(),
  coats: amount(),
  outcome: word(OUTCOMES),
  /** Judged by eye, or taken against what the picture proposed. */
  byEye: flag(),
});
/** The scrubbed coupons of a ticket's pairing and their cells: what its windows are fitted to. */
export const ticketWindow = record({
  coupons: list(
    record({
      id: uuid(),
      code: words(),
      version: amount(),
      /** Fired on the revisions that the ticket would be marked on. */
      sameRevisions: flag(),
      cells: amount(),
    }),
  ),
  cells: list(windowCell),
});
export type TicketWindow = Frozen<InferType<typeof ticketWindow>>;
