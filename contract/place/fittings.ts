import { array, type InferType } from 'yup';
import { HEAD_CHANGE_STEPS, type HeadChangeStep } from '@unto/core';
import { amount, instant, list, oneOf, orNull, record, shape, uuid, who, word } from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

const CODES: readonly HeadChangeStep[] = HEAD_CHANGE_STEPS.map(({ code }) => code);

const FITTING_WORKS = ['mark', 'cut'] as const;

/** A head and lens put on their machine, every step of the change ticked. */
export const createFitting = shape({
  id: uuid().label('id'),
  headId: uuid().label('Head'),
  lensId: uuid().label('Lens'),
  ticketId: uuid().label('Ticket').nullable().defined().default(null),
  /** What it is fitted for: a ticket may cut with one head and mark with the other. */
  work: oneOf('Work', FITTING_WORKS),
  steps: array()
    .of(oneOf('Step', CODES))
    .label('Steps')
    .required()
    .max(CODES.length)
    .test('all', 'Every step of the change must be done before it counts as fitted.', (steps) =>
      CODES.every((code) => steps.includes(code)),
    ),
});
export type CreateFitting = Frozen<InferType<typeof createFitting>>;

/** What stands on a machine since when. Appended, never changed. */
export const fitting = record({
  id: uuid(),
  headId: uuid(),
  lensId: uuid(),
  ticketId: orNull(uuid()),
  work: word(FITTING_WORKS),
  steps: list(word(CODES)),
  machineId: uuid(),
  /** Its place in the order of all that happened: a clock can be set back. */
  sequence: amount(),
  at: instant(),
  by: who(),
});
export type Fitting = Frozen<InferType<typeof fitting>>;
