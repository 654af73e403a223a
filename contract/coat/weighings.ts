import { object, type InferType } from 'yup';
import type { Figure } from '@unto/core';
import { enteredMass, uuid, whole } from '../fields/index.js';

/** A container weighed before and after spraying some pieces; the parts too when someone took the time. */
export const createWeighing = object({
  id: uuid().label('id'),
  containerId: uuid().label('Container'),
  pieces: whole('Pieces coated', 1, 100_000),
  before: enteredMass('Weight before'),
  after: enteredMass('Weight after'),
  strokes: whole('Strokes', 1, 10_000).nullable().optional(),
  partsBefore: enteredMass('Parts before').nullable().default(null).defined(),
  partsAfter: enteredMass('Parts after drying').nullable().default(null).defined(),
  correctsId: uuid().label('Corrected weighing').nullable().defined().default(null),
}).noUnknown();
export type CreateWeighing = InferType<typeof createWeighing>;
export interface Weighing extends Omit<CreateWeighing, 'strokes'> {
  readonly strokes: number | null;
  readonly ticketId: string;
  readonly at: string;
  readonly by: string;
  readonly compoundId: string;
  readonly beforeG: number;
  readonly afterG: number;
  /** Dry film laid, as judged then. */
  readonly film: Figure;
  readonly transfer: Figure | null;
  /** The mix was past its pot life when this was laid. */
  readonly afterPotLife: boolean;
}

/** A coat as it was weighed: one point of a trend. */
export interface CoatSample {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly ticketId: string;
  readonly ticketTitle: string;
  readonly pieces: number;
  readonly film: Figure;
  readonly transferValue: number | null;
  readonly laidG: number;
  readonly strokes: number | null;
}
