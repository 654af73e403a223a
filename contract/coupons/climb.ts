import { object, type InferType } from 'yup';
import { CLIMB_OUTCOMES, type ClimbStep } from '@unto/core';
import { note, oneOf, positive, uuid, within } from '../fields/index.js';
import type { Pins } from './coupons.js';

/** A tiny cell fired on the piece itself, rinsed and scrubbed. Appended, never changed. */
export const createClimbStep = object({
  id: uuid().label('id'),
  powerPercent: within('Power', 0, 100, '%').moreThan(0, 'Power must be above 0.'),
  speedMmPerS: positive('Speed', 'mm/s'),
  intervalMm: positive('Interval', 'mm'),
  outcome: oneOf('Outcome', CLIMB_OUTCOMES),
  note: note('Where', 300),
}).noUnknown();
export type CreateClimbStep = InferType<typeof createClimbStep>;

export interface KeptClimbStep extends ClimbStep {
  readonly id: string;
  readonly note: string;
  readonly pins: Pins;
  readonly at: string;
  readonly by: string;
}
