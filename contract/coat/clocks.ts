import { object, type InferType } from 'yup';
import { oneOf, positive, text, uuid } from '../fields/index.js';

/** Shaking, drying, how long a mix may be used, cooling. */
export const CLOCK_KINDS = ['shake', 'dry', 'pot', 'cool'] as const;
export type ClockKind = (typeof CLOCK_KINDS)[number];
export const createClock = object({
  id: uuid().label('id'),
  kind: oneOf('Clock', CLOCK_KINDS),
  label: text('Label', 120),
  minimumS: positive('Time', 's').max(30 * 86400, 'Time must be at most 30 days.'),
}).noUnknown();
/** Ends a clock: `passed` when the gate is met (gloss gone, cool to the hand), `dropped` when the coat was rinsed off. */
export const endClock = object({ outcome: oneOf('Outcome', ['passed', 'dropped'] as const) }).noUnknown();
export type CreateClock = InferType<typeof createClock>;
export interface Clock extends CreateClock {
  readonly ticketId: string;
  readonly ticketTitle: string;
  readonly startedAt: string;
  readonly endedAt: string | null;
  readonly outcome: 'passed' | 'dropped' | null;
}
