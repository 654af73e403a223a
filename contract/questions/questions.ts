import { type InferType } from 'yup';
import { STATIONS } from '@unto/core';
import { amount, flag, instant, list, orNull, record, shape, text, uuid, who, word, words } from '../fields/index.js';
import { route, type Frozen } from '../routing/index.js';

const questionFields = {
  id: uuid(),
  station: word(STATIONS),
  text: words(),
  compoundId: orNull(uuid()),
  substrateId: orNull(uuid()),
  /** Of marks at least so long, mm; null for any. */
  longerThanMm: orNull(amount()),
  caseId: orNull(uuid()),
  at: instant(),
  by: who(),
};

/** A question that the shop asks at a station since something went wrong: of which tickets, and whence it comes. */
export const stationQuestion = record({ ...questionFields, ended: flag() });
export type StationQuestion = Frozen<InferType<typeof stationQuestion>>;

/** A question as it is asked of a ticket. */
export const askedQuestion = record({ ...questionFields, answered: flag() });
export type AskedQuestion = Frozen<InferType<typeof askedQuestion>>;

/** A question is asked no more. */
export const endQuestion = shape({ id: uuid().label('id'), why: text('Why', 300) });
export type EndQuestion = Frozen<InferType<typeof endQuestion>>;

export const questionRoutes = {
  stationQuestions: route({
    method: 'get',
    path: '/api/questions',
    summary: 'Questions that the shop asks at its stations, newest first',
    params: {},
    answer: list(stationQuestion),
  }),
  endQuestion: route({
    method: 'post',
    path: '/api/questions/:id/end',
    summary: 'Ask a question no more',
    params: { id: uuid() },
    body: endQuestion,
    answer: list(stationQuestion),
  }),
} as const;
