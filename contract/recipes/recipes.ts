import { array, type InferType } from 'yup';
import { DRIFT_MEASURES } from '@unto/core';
import { revisions } from '../coupons/coupons.js';
import { figure } from '../evidence/index.js';
import {
  amount,
  flag,
  gradeWord,
  instant,
  list,
  notNegative,
  oneOf,
  orNull,
  positive,
  record,
  shape,
  text,
  uuid,
  who,
  whole,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';
import { coreSetting, keptSetting } from '../setting/index.js';

export const RECIPE_KINDS = [
  'quickest',
  'widest',
  'strongest',
  'cheapest',
  'mix',
  'match',
  'stated',
  'step test',
] as const;

/** What a window, and a recipe of it, is of: compound (null: bare), substrate, head and lens. */
export const pairingParts = {
  substrateId: uuid().label('Substrate'),
  compoundId: uuid().label('Compound').nullable().defined(),
  headId: uuid().label('Head'),
  lensId: uuid().label('Lens'),
};
export const pairing = record(pairingParts);
export type Pairing = Frozen<InferType<typeof pairing>>;

/** What the fit behind a recipe was asked, frozen with it. */
const frozenFit = record({
  modelVersion: amount(),
  seed: amount(),
  bound: amount(),
  tolerancePower: amount(),
  toleranceFocusMm: amount(),
  cells: amount(),
  insideHull: flag(),
  /** What windows elsewhere taught of it, in words; recipes of before have none. */
  taught: words().optional(),
});
export type FrozenFit = Frozen<InferType<typeof frozenFit>>;

/** How much a coupon counted in the fit. */
const couponWeight = record({ couponId: uuid(), weight: amount() });

/** Where a recipe is valid, in what was seen of it: what lies beyond wants a look. */
export const recipeRange = record({
  /** Lots of the compound that its coupons were sprayed from, as far as known. */
  lots: list(words()),
  /** Dry film that its compound asks for, µm; null for bare metal. */
  filmUm: orNull(record({ low: amount(), high: amount() })),
  thicknessMm: orNull(amount()),
  /** Coats under the cells it rests on; null for bare metal, and in recipes of before. */
  coats: orNull(amount()).optional(),
  /** Days without a coupon or a judged run after which it is looked at again. */
  restDays: amount(),
});
export type RecipeRange = Frozen<InferType<typeof recipeRange>>;

export const createRecipe = shape({
  id: uuid().label('id'),
  /** The ticket that takes it into use at once; null where it is taken from the window alone. */
  ticketId: uuid().label('Ticket').nullable().defined().default(null),
  /** What it is of; a ticket says it itself. */
  pairing: shape({
    ...pairingParts,
    markWidthMm: positive('Width of the mark', 'mm'),
    markHeightMm: positive('Height of the mark', 'mm'),
  })
    .nullable()
    .optional()
    .default(undefined),
  kind: oneOf('Kind', RECIPE_KINDS),
  couponIds: array().of(uuid()).max(100).defined().default([]),
  /** Coupons that were given back their full weight. */
  atFullIds: array().of(uuid()).max(100).optional(),
  ...coreSetting,
  /** Coats that it is for, where its window varied or shared them. */
  coats: whole('Coats', 0, 9).optional(),
  seed: whole('Seed', 0, 4294967295),
});
export type CreateRecipe = Frozen<InferType<typeof createRecipe>>;

export const RECIPE_STATES = ['in use', 'may drift', 'suspended'] as const;

/** An accepted setting; frozen but for whether it is in use. */
export const recipe = record({
  id: uuid(),
  /** The ticket it was taken for; null where it was taken from the window alone. */
  ticketId: orNull(uuid()),
  ...pairingParts,
  kind: word(RECIPE_KINDS),
  couponIds: list(uuid()),
  weights: list(couponWeight),
  /** Judged runs that counted as cells. */
  runIds: list(uuid()),
  valid: orNull(recipeRange),
  ...keptSetting,
  powerPercent: amount(),
  speedMmPerS: amount(),
  intervalMm: amount(),
  seed: amount(),
  /** Its version among the recipes of its pairing. */
  number: amount(),
  secondsPerPiece: amount(),
  fit: orNull(frozenFit),
  /** Share that holds in the worst case; null for a setting taken from elsewhere. */
  worst: orNull(figure()),
  grade: gradeWord(),
  /** Why the grade is no better, in words. */
  because: list(words()),
  revisions,
  acceptedBy: who(),
  acceptedAt: instant(),
  state: record({ state: word(RECIPE_STATES), why: words(), since: orNull(instant()), by: orNull(who()) }),
});
export type Recipe = Frozen<InferType<typeof recipe>>;

/** A ticket takes a recipe of its pairing into use. */
export const createRecipeUse = shape({ id: uuid().label('id'), recipeId: uuid().label('Recipe') });
export type CreateRecipeUse = Frozen<InferType<typeof createRecipeUse>>;

/** A recipe is suspended, or put back into use after a check coupon. */
export const createRecipeState = shape({
  id: uuid().label('id'),
  state: oneOf('State', ['in use', 'suspended'] as const),
  why: text('Why', 500),
});
export type CreateRecipeState = Frozen<InferType<typeof createRecipeState>>;

/** How the judged runs of a recipe went, all tickets together. */
export const recipeRecord = record({ runs: amount(), pieces: amount(), good: amount(), newest: orNull(instant()) });
export type RecipeRecord = Frozen<InferType<typeof recipeRecord>>;

/** A recipe of a pairing that a ticket may take into use, and how it went. */
export const offeredRecipe = record({ recipe, record: recipeRecord });
export type OfferedRecipe = Frozen<InferType<typeof offeredRecipe>>;

const driftPoint = record({
  runId: uuid(),
  at: instant(),
  value: amount(),
  z: amount(),
  low: amount(),
  high: amount(),
  rules: list(words()),
});
/** A control chart of one measure over the judged runs of a recipe, oldest first. */
export const driftChart = record({
  measure: word(DRIFT_MEASURES),
  centre: amount(),
  spread: amount(),
  /** Runs that the centre and spread come from. */
  baseline: amount(),
  points: list(driftPoint),
  /** The first run that was out, why, and whether it went on so; null while it holds steady. */
  alarm: orNull(record({ index: amount(), words: words(), sure: flag() })),
});
export type DriftChart = Frozen<InferType<typeof driftChart>>;

/** Something that was otherwise in the runs that were out. */
export const driftFactor = record({
  factor: words(),
  level: words(),
  outWith: amount(),
  runsWith: amount(),
  outWithout: amount(),
  runsWithout: amount(),
  /** Chance of as large a difference if it had no part, 0 to 1 (Fisher’s exact test). */
  chance: notNegative('Chance'),
});
export type DriftFactor = Frozen<InferType<typeof driftFactor>>;

/** A recipe with its runs’ charts. */
export const recipePage = record({
  recipe,
  record: recipeRecord,
  charts: list(driftChart),
  factors: list(driftFactor),
  /** A coupon of the pairing was fired and scrubbed since it was suspended. */
  checked: flag(),
});
export type RecipePage = Frozen<InferType<typeof recipePage>>;
