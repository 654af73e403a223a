import { array, boolean, number, object, string, tuple, type InferType, type Schema } from 'yup';
import { COUPON_PARAMETERS, MAX_CELLS, OUTCOMES, STAGES, type CouponDesign } from '@unto/core';
import {
  amount,
  finite,
  instant,
  list,
  notNegative,
  oneOf,
  optionalNumber,
  optionalUuid,
  orNull,
  outcome,
  pageQuery,
  positive,
  record,
  shape,
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
import { firing, firingNotes, type Firing } from '../setting/index.js';
import { couponPicture, outcomeRules } from './pictures.js';

const axis = () =>
  shape({
    parameter: oneOf('Parameter', COUPON_PARAMETERS),
    spacing: oneOf('Spacing', ['linear', 'log', 'list'] as const),
    from: finite('From').optional(),
    to: finite('To').optional(),
    count: whole('Steps', 1, MAX_CELLS).optional(),
    values: array().of(finite('Value')).max(MAX_CELLS).optional(),
  });

const MOST_STROKES = 2000;
const MOST_POINTS = 5000;

const designShape = shape({
  code: string().max(20).defined().default(''),
  axes: shape({ x: axis(), y: axis(), block: axis().optional().default(undefined) }),
  fixed: shape({
    powerPercent: within('Power', 0, 100, '%').moreThan(0, 'Power must be above 0.'),
    speedMmPerS: positive('Speed', 'mm/s'),
    intervalMm: positive('Interval', 'mm'),
    frequencyKHz: optionalNumber('Frequency', 'kHz'),
    pulseNs: optionalNumber('Pulse length', 'ns'),
  }),
  hatches: number<1 | 2>().min(1).max(2).oneOf([1, 2], 'Cells are hatched once or crossed.').default(1).required(),
  passes: whole('Passes', 1, 99),
  cell: shape({ widthMm: positive('Cell width', 'mm'), heightMm: positive('Cell height', 'mm') }),
  gapMm: notNegative('Gap', 'mm'),
  marginMm: notNegative('Margin', 'mm'),
  fill: oneOf('Cells', ['filled', 'lines', 'artwork'] as const),
  lineSpacingMm: positive('Line spacing', 'mm'),
  hatchAngleDeg: within('Hatch angle', -90, 90, '°'),
  directions: oneOf('Directions', ['one-way', 'two-way'] as const),
  labels: shape({
    at: oneOf('Labels', ['edges', 'each'] as const),
    heightMm: positive('Label height', 'mm'),
    powerPercent: within('Label power', 0, 100, '%').moreThan(0, 'Label power must be above 0.'),
    speedMmPerS: positive('Label speed', 'mm/s'),
    /** Letter of the column and number of the row under each cell; coupons of before had the two values there. */
    captions: string<'grid'>().oneOf(['grid']).optional(),
    reading: unitReading().nullable().optional().default(null),
  }),
  blank: shape({ widthMm: positive('Blank width', 'mm'), heightMm: positive('Blank height', 'mm') }),
  artwork: shape({
    name: string().defined().max(200),
    strokes: array()
      .of(
        array()
          .of(tuple([finite('x', 'mm'), finite('y', 'mm')]).required())
          .required()
          .max(MOST_POINTS, 'A line of that artwork has too many points: bring a smaller piece of it.'),
      )
      .required()
      .max(MOST_STROKES, 'That artwork has too many strokes for a cell: bring a smaller piece of it.'),
  })
    .nullable()
    .defined()
    .default(null),
  compoundIds: array().of(uuid().label('Compound')).defined().default([]).max(9),
  anchors: boolean().default(false).required(),
  bareStrip: boolean().default(false).required(),
  frame: boolean().default(true).required(),
  order: oneOf('Order', ['as read', 'shuffled'] as const).default('as read'),
  orderSeed: whole('Seed', 1, 1e9).default(1),
});

/** A design. What an axis needs by its spacing, sizes and head limits, the core checks when it lays the coupon out. */
export const couponDesign = designShape as unknown as Schema<CouponDesign>;

export const createCoupon = shape({
  id: uuid().label('id'),
  ticketId: uuid().label('Ticket').nullable().defined().default(null),
  substrateId: uuid().label('Substrate'),
  compoundId: uuid().label('Compound').nullable().defined().default(null),
  headId: uuid().label('Head'),
  lensId: uuid().label('Lens'),
  focusOffsetMm: finite('Focus offset', 'mm').default(0),
  design: couponDesign,
});
/** A coupon may be redesigned until it is burnt. */
export const redesignCoupon = shape({
  version: whole('Version', 1, 1e9),
  focusOffsetMm: finite('Focus offset', 'mm'),
  design: couponDesign,
});
/** Fired by hand: what was noted of the machine goes with it. */
export const markBurnt = shape({ version: whole('Version', 1, 1e9), notes: firingNotes });

export const READING_SOURCES = ['entered', 'csv', 'picture', 'scale', 'again'] as const;

const readingEntries = array()
  .of(
    shape({
      cell: whole('Cell', 0, MAX_CELLS),
      outcome: outcome(),
      /** What the rules proposed, where a picture was read. */
      proposed: string()
        .oneOf([...OUTCOMES])
        .optional(),
      /** Why somebody took another outcome than proposed. */
      reason: string().max(300).optional(),
      /** Share of its contrast that was left after the scrub, worked out here where pictures of before and after were read. */
      kept: number().min(0).max(100).optional(),
      /** Step of the printed scale that the cell is like, 0 (bare) to 10. */
      step: number().label('Step').integer().min(0).max(10).optional(),
    }),
  )
  .required()
  .min(1, 'Mark at least one cell.')
  .max(MAX_CELLS);

/** Outcomes of some cells at a stage. Appended; the newest reading of a cell counts. */
export const createReading = shape({
  id: uuid().label('id'),
  stage: oneOf('Stage', STAGES),
  /**
   * Entered by eye with no scale, from a table, from a picture, or by eye against the printed step scale; again where somebody looked
   * once more at cells that disagree with their neighbours.
   */
  source: oneOf('Source', READING_SOURCES),
  pictureId: uuid().label('Picture').nullable().optional(),
  rules: outcomeRules.nullable().optional().default(undefined),
  entries: readingEntries,
});

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
  ticketId: optionalUuid(),
  stage: string()
    .oneOf([...COUPON_STAGES])
    .optional(),
});
export type RedesignCoupon = Frozen<InferType<typeof redesignCoupon>>;
export type MarkBurnt = Frozen<InferType<typeof markBurnt>>;
export type ListCouponsQuery = Frozen<InferType<typeof listCouponsQuery>>;

/** What was scrubbed of a ticket's compound under another head or lens of the same beam, or on another part of its family. */
export const couponsElsewhere = record({
  head: words(),
  lens: words(),
  substrate: words(),
  /** Spot and metal that it was heated by: spot (1/e²) radius mm, W/(mm·K), mm²/s. */
  under: record({ radiusMm: amount(), conductivity: amount(), diffusivity: amount() }),
  cells: list(record({ powerW: amount(), speedMmPerS: amount(), intervalMm: amount(), outcome: word(OUTCOMES) })),
  /** Why none of it is carried over here; null where it is. */
  refused: orNull(words()),
});
export type CouponsElsewhere = Frozen<InferType<typeof couponsElsewhere>>;
