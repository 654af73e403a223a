import { type InferType } from 'yup';
import {
  amount,
  instant,
  oneOf,
  orNull,
  positive,
  record,
  shape,
  text,
  uuid,
  whole,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** Shaking, drying, how long a mix may be used, cooling. */
export const TIMER_KINDS = ['shake', 'dry', 'pot', 'cool'] as const;
/** Marked glass and its kin cool this long before they are rinsed, s. Common practice, no source. */
export const COOL_S = 15 * 60;
export const MOST_TRAYS = 99;
export type TimerKind = (typeof TIMER_KINDS)[number];
export const createTimer = shape({
  id: uuid().label('id'),
  kind: oneOf('Clock', TIMER_KINDS),
  label: text('Label', 120),
  minimumS: positive('Time', 's').max(30 * 86400, 'Time must be at most 30 days.'),
  /** Of the trays of a coat, the one it is of; the first where there is but one. */
  tray: whole('Tray', 1, MOST_TRAYS).optional(),
  /** On that tray; where nobody says, all that was coated counts as wet while it runs. */
  pieces: whole('Pieces', 1, 100_000).nullable().optional(),
});
export const TIMER_OUTCOMES = ['passed', 'dropped'] as const;

/** Ends a clock: `passed` when the gate is met (gloss gone, cool to the hand), `dropped` when the coat was rinsed off. */
export const endTimer = shape({ outcome: oneOf('Outcome', TIMER_OUTCOMES) });
export type CreateTimer = Frozen<InferType<typeof createTimer>>;
export const timer = record({
  id: uuid(),
  kind: word(TIMER_KINDS),
  label: words(),
  minimumS: amount(),
  tray: amount(),
  pieces: orNull(amount()),
  ticketId: uuid(),
  ticketTitle: words(),
  startedAt: instant(),
  endedAt: orNull(instant()),
  outcome: orNull(word(TIMER_OUTCOMES)),
});
export type Timer = Frozen<InferType<typeof timer>>;
export type EndTimer = Frozen<InferType<typeof endTimer>>;
