import { array, object, type InferType } from 'yup';
import type { Figure, Grade } from '@unto/core';
import type { Pins } from '../coupons/coupons.js';
import { finite, oneOf, positive, uuid, whole, within } from '../fields/index.js';

export const RECIPE_KINDS = ['quickest', 'widest', 'stated', 'climbed'] as const;

/** What the fit behind a recipe was asked, frozen with it. */
export interface FrozenFit {
  readonly modelVersion: number;
  readonly seed: number;
  readonly bound: number;
  readonly tolerancePower: number;
  readonly toleranceFocusMm: number;
  readonly cells: number;
  readonly insideHull: boolean;
}

export const createRecipe = object({
  id: uuid().label('id'),
  ticketId: uuid().label('Ticket'),
  kind: oneOf('Kind', RECIPE_KINDS),
  couponIds: array().of(uuid()).defined().default([]),
  powerPercent: within('Power', 0, 100, '%').moreThan(0, 'Power must be above 0.'),
  speedMmPerS: positive('Speed', 'mm/s'),
  intervalMm: positive('Interval', 'mm'),
  passes: whole('Passes', 1, 99),
  focusOffsetMm: finite('Focus offset', 'mm'),
  seed: whole('Seed', 0, 4294967295),
}).noUnknown();
export type CreateRecipe = InferType<typeof createRecipe>;

/** An accepted setting; frozen. */
export interface Recipe extends CreateRecipe {
  readonly number: number;
  readonly secondsPerPiece: number;
  readonly fit: FrozenFit | null;
  /** Share that holds in the worst case; null for a setting taken from elsewhere. */
  readonly worst: Figure | null;
  readonly grade: Grade;
  readonly pins: Pins;
  readonly acceptedBy: string;
  readonly acceptedAt: string;
}
