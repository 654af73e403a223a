import { boolean, type InferType } from 'yup';
import {
  amount,
  flag,
  gradeWord,
  instant,
  list,
  note,
  oneOf,
  record,
  shape,
  uuid,
  who,
  word,
  words,
} from '../fields/index.js';
import { route, type Frozen } from '../routing/index.js';

export const VERDICTS = ['hand over', 'hand over with exceptions', 'rework'] as const;

/** What is decided on a ticket's pieces. */
export const createVerdict = shape({
  id: uuid().label('id'),
  verdict: oneOf('Verdict', VERDICTS),
  /** Which pieces, and what of them. */
  exceptions: note('Exceptions', 1000),
  /** Whoever decides stands for what is below Proved. */
  standsForIt: boolean().label('Stands for it').defined().default(false),
});
export type CreateVerdict = Frozen<InferType<typeof createVerdict>>;

/** A verdict with what it was given on. Appended, never changed; the newest stands. */
export const verdict = record({
  id: uuid(),
  ticketId: uuid(),
  verdict: word(VERDICTS),
  exceptions: words(),
  /** The weakest grade of its runs. */
  grade: gradeWord(),
  good: amount(),
  pieces: amount(),
  belowProved: flag(),
  at: instant(),
  by: who(),
});
export type Verdict = Frozen<InferType<typeof verdict>>;

export const verdictRoutes = {
  createVerdict: route({
    method: 'post',
    path: '/api/tickets/:id/verdicts',
    summary: 'Decide on a ticket’s pieces: hand over, with exceptions, or rework',
    params: { id: uuid() },
    body: createVerdict,
    answer: list(verdict),
  }),
} as const;
