import { array, type InferType } from 'yup';
import { revisions } from '../coupons/coupons.js';
import { figure } from '../evidence/index.js';
import {
  amount,
  flag,
  gradeWord,
  instant,
  list,
  oneOf,
  orNull,
  record,
  shape,
  uuid,
  who,
  whole,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';
import { coreSetting, keptSetting } from '../setting/index.js';

export const RECIPE_KINDS = ['quickest', 'widest', 'cheapest', 'stated', 'step test'] as const;

/** What the fit behind a recipe was asked, frozen with it. */
const frozenFit = record({
  modelVersion: amount(),
  seed: amount(),
  bound: amount(),
  tolerancePower: amount(),
  toleranceFocusMm: amount(),
  cells: amount(),
  insideHull: flag(),
});
export type FrozenFit = Frozen<InferType<typeof frozenFit>>;

export const createRecipe = shape({
  id: uuid().label('id'),
  ticketId: uuid().label('Ticket'),
  kind: oneOf('Kind', RECIPE_KINDS),
  couponIds: array().of(uuid()).max(100).defined().default([]),
  ...coreSetting,
  seed: whole('Seed', 0, 4294967295),
});
export type CreateRecipe = Frozen<InferType<typeof createRecipe>>;

/** An accepted setting; frozen. */
export const recipe = record({
  id: uuid(),
  ticketId: uuid(),
  kind: word(RECIPE_KINDS),
  couponIds: list(uuid()),
  ...keptSetting,
  powerPercent: amount(),
  speedMmPerS: amount(),
  intervalMm: amount(),
  seed: amount(),
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
});
export type Recipe = Frozen<InferType<typeof recipe>>;
