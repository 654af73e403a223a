import { boolean, type InferType } from 'yup';
import { COAT_HANDLINGS, STORED_STATES } from '@unto/core';
import {
  amount,
  instant,
  note,
  oneOf,
  orNull,
  record,
  shape,
  text,
  uuid,
  who,
  whole,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** Coated, dry pieces laid on the shelf to be fired another day. */
export const storeCoat = shape({
  id: uuid().label('id'),
  pieces: whole('Pieces stored', 1, 100_000),
  place: text('Where they lie', 120),
  note: note('Note', 500),
});
export type StoreCoat = Frozen<InferType<typeof storeCoat>>;

const STORED_OUTCOMES = ['taken up', 'rinsed off'] as const;

/** The end of a stored coat: looked at and taken up, or rinsed off. A coat past its date needs the reason of whoever takes it up. */
export const endStoredCoat = shape({
  outcome: oneOf('Outcome', STORED_OUTCOMES),
  dry: boolean().label('Still dry').required(),
  untouched: boolean().label('Untouched').required(),
  reason: note('Reason', 500),
});
export type EndStoredCoat = Frozen<InferType<typeof endStoredCoat>>;

export const storedCoat = record({
  id: uuid(),
  pieces: amount(),
  place: words(),
  note: words(),
  ticketId: uuid(),
  ticketTitle: words(),
  compoundId: uuid(),
  compoundName: words(),
  handling: word(COAT_HANDLINGS),
  storedAt: instant(),
  keepUntil: orNull(instant()),
  state: word(STORED_STATES),
  by: who(),
  endedAt: orNull(instant()),
  outcome: orNull(word(STORED_OUTCOMES)),
  endReason: words(),
  endedBy: orNull(who()),
});
export type StoredCoat = Frozen<InferType<typeof storedCoat>>;
