import { boolean, object, type InferType } from 'yup';
import type { CoatHandling, StoredState } from '@unto/core';
import { note, oneOf, text, uuid, whole } from '../fields/index.js';

/** Coated, dry pieces laid on the shelf to be fired another day. */
export const storeCoat = object({
  id: uuid().label('id'),
  pieces: whole('Pieces stored', 1, 100_000),
  place: text('Where they lie', 120),
  note: note('Note', 500),
}).noUnknown();
export type StoreCoat = InferType<typeof storeCoat>;

/** The end of a stored coat: looked at and taken up, or rinsed off. A coat past its date needs the reason of whoever takes it up. */
export const endStoredCoat = object({
  outcome: oneOf('Outcome', ['taken up', 'rinsed off'] as const),
  dry: boolean().label('Still dry').required(),
  untouched: boolean().label('Untouched').required(),
  reason: note('Reason', 500),
}).noUnknown();
export type EndStoredCoat = InferType<typeof endStoredCoat>;

export interface StoredCoat extends StoreCoat {
  readonly ticketId: string;
  readonly ticketTitle: string;
  readonly compoundId: string;
  readonly compoundName: string;
  readonly handling: CoatHandling;
  readonly storedAt: string;
  readonly keepUntil: string | null;
  readonly state: StoredState;
  readonly by: string;
  readonly endedAt: string | null;
  readonly outcome: EndStoredCoat['outcome'] | null;
  readonly endReason: string;
  readonly endedBy: string | null;
}
