import { type InferType } from 'yup';
import { amount, instant, list, note, oneOf, orNull, record, shape, uuid, who, word, words } from '../fields/index.js';
import { route, type Frozen } from '../routing/index.js';

/** What is done to keep a head or a lens as it was. */
export const UPKEEP = ['cleaned', 'source renewed', 'aligned'] as const;

export const createUpkeep = shape({
  id: uuid().label('id'),
  what: oneOf('What was done', UPKEEP),
  note: note('Note', 300),
});
export type CreateUpkeep = Frozen<InferType<typeof createUpkeep>>;

/** What was done to a head or lens, and how long its beam was on since: the minutes of the runs that were logged. */
export const upkeep = record({
  itemId: uuid(),
  done: list(record({ id: uuid(), what: word(UPKEEP), note: words(), at: instant(), by: who() })),
  /** Hours of logged runs since it was cleaned last; null where nobody said that it was. */
  hoursSinceCleaned: orNull(amount()),
  /** Hours of logged runs since its source was renewed, or of all there are. */
  hours: amount(),
});
export type Upkeep = Frozen<InferType<typeof upkeep>>;

export const upkeepRoutes = {
  upkeep: route({
    method: 'get',
    path: '/api/inventory/:id/upkeep',
    summary: 'What was done to keep a head or lens as it was',
    params: { id: uuid() },
    answer: upkeep,
  }),
  createUpkeep: route({
    method: 'post',
    path: '/api/inventory/:id/upkeep',
    summary: 'A head or lens was cleaned, aligned, or its source renewed',
    params: { id: uuid() },
    body: createUpkeep,
    answer: upkeep,
  }),
} as const;
