import { array, object, type InferType } from 'yup';
import { HEAD_CHANGE_STEPS, type HeadChangeStep } from '@unto/core';
import { oneOf, uuid } from '../fields/index.js';

const CODES: readonly HeadChangeStep[] = HEAD_CHANGE_STEPS.map(({ code }) => code);

/** A head and lens put on their machine, every step of the change ticked. */
export const createFitting = object({
  id: uuid().label('id'),
  headId: uuid().label('Head'),
  lensId: uuid().label('Lens'),
  ticketId: uuid().label('Ticket').nullable().defined().default(null),
  /** What it is fitted for: a ticket may cut with one head and mark with the other. */
  work: oneOf('Work', ['mark', 'cut'] as const),
  steps: array()
    .of(oneOf('Step', CODES))
    .label('Steps')
    .required()
    .test('all', 'Every step of the change must be done before it counts as fitted.', (steps) =>
      CODES.every((code) => steps.includes(code)),
    ),
}).noUnknown();
export type CreateFitting = InferType<typeof createFitting>;

/** What stands on a machine since when. Appended, never changed. */
export interface Fitting extends CreateFitting {
  readonly machineId: string;
  readonly at: string;
  readonly by: string;
}
