import { object, string, type InferType } from 'yup';
import { STATIONS } from '@unto/core';
import type { Frozen } from '../routing/index.js';
import {
  amount,
  day,
  instant,
  note,
  notNegative,
  oneOf,
  orNull,
  pageQuery,
  positive,
  record,
  shape,
  text,
  uuid,
  who,
  whole,
  word,
  words,
  yes,
} from '../fields/index.js';

export const AIM_TONES = ['dark on light', 'light on dark'] as const;
export const AIM_STRENGTHS = ['soft', 'clear', 'strong'] as const;
export const AIM_WORKS = ['line work', 'fill', 'photograph'] as const;
export const TICKET_STATES = ['open', 'done'] as const;

/** What a good mark means for this ticket. */
export const aim = shape({
  tone: oneOf('Tone', AIM_TONES),
  strength: oneOf('Strength', AIM_STRENGTHS),
  work: oneOf('Work', AIM_WORKS),
});

const ticketFields = {
  title: text('What is marked', 120),
  pieces: whole('Pieces', 1, 100_000),
  markWidthMm: positive('Width of the mark', 'mm').max(2000, 'Width of the mark must be at most 2000.'),
  markHeightMm: positive('Height of the mark', 'mm').max(2000, 'Height of the mark must be at most 2000.'),
  coatMarginMm: notNegative('Coat margin round the mark', 'mm').max(200, 'Coat margin must be at most 200.'),
  substrateId: uuid().label('Substrate'),
  headId: uuid().label('Head'),
  lensId: uuid().label('Lens'),
  aim,
  foodUse: yes('Touches food or drink'),
  wantedOn: day('Wanted on').nullable().defined().default(null),
  note: note('Note'),
};

export const createTicket = shape({ id: uuid().label('id'), ...ticketFields });
export const changeTicket = shape({
  version: whole('Version', 1, 1e9),
  ...ticketFields,
  compoundId: uuid().label('Compound').nullable().defined().default(null),
  choiceReason: note('Reason for the choice', 1000),
  state: oneOf('State', TICKET_STATES),
});

export type CreateTicket = Frozen<InferType<typeof createTicket>>;
export type ChangeTicket = Frozen<InferType<typeof changeTicket>>;
export type Aim = Frozen<InferType<typeof aim>>;

/** A ticket as stored. */
export const ticket = record({
  id: uuid(),
  number: whole('Number', 1, 1e9),
  version: whole('Version', 1, 1e9),
  ...ticketFields,
  compoundId: orNull(uuid()),
  choiceReason: words(),
  state: word(TICKET_STATES),
  /** How its pieces are marked; null where no artwork was brought: the mark is then a rectangle. */
  layoutId: orNull(uuid()),
  /** The rectangle whose filling takes as long as that of the artwork; null for the mark itself. */
  sweptWidthMm: orNull(amount()),
  sweptHeightMm: orNull(amount()),
  createdAt: instant(),
  changedAt: instant(),
});
export type Ticket = Frozen<InferType<typeof ticket>>;

/** What of a ticket a change of it says: all but what the server gives it. */
export function changeableFields(of: Ticket): ChangeTicket {
  const { id: _id, number: _number, createdAt: _created, changedAt: _changed, ...rest } = of;
  const { layoutId: _layout, sweptWidthMm: _width, sweptHeightMm: _height, ...fields } = rest;
  return fields;
}

/** Ticked off, understood, or a tick taken back. */
const CHECK_KINDS = ['check', 'caution', 'taken back'] as const;

/** Things ticked off at a station, and cautions understood: appended, never changed. */
export const createCheck = shape({
  id: uuid().label('id'),
  station: oneOf('Station', STATIONS),
  kind: oneOf('Kind', CHECK_KINDS),
  code: text('Code', 60),
});
export type CreateCheck = Frozen<InferType<typeof createCheck>>;
export const check = record({
  id: uuid(),
  ticketId: uuid(),
  station: word(STATIONS),
  kind: word(CHECK_KINDS),
  code: words(),
  /** Its place in the order of all that happened: a clock can be set back. */
  sequence: amount(),
  at: instant(),
  by: who(),
});
export type Check = Frozen<InferType<typeof check>>;

export type ListTicketsQuery = Frozen<InferType<typeof listTicketsQuery>>;
export const listTicketsQuery = object({
  ...pageQuery,
  state: string()
    .oneOf([...TICKET_STATES])
    .optional(),
});
