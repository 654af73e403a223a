import { object, string, type InferType } from 'yup';
import { STATIONS, type Figure } from '@unto/core';
import { day, enteredMass, note, notNegative, oneOf, positive, text, uuid, whole, yes } from '../fields/index.js';

export const AIM_TONES = ['dark on light', 'light on dark'] as const;
export const AIM_STRENGTHS = ['soft', 'clear', 'strong'] as const;
export const AIM_WORKS = ['line work', 'fill', 'photograph'] as const;
export const TICKET_STATES = ['open', 'done'] as const;

/** What a good mark means for this ticket. */
export const aim = object({
  tone: oneOf('Tone', AIM_TONES),
  strength: oneOf('Strength', AIM_STRENGTHS),
  work: oneOf('Work', AIM_WORKS),
}).noUnknown();

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

export const createTicket = object({ id: uuid().label('id'), ...ticketFields }).noUnknown();
export const changeTicket = object({
  version: whole('Version', 1, 1e9),
  ...ticketFields,
  compoundId: uuid().label('Compound').nullable().defined().default(null),
  choiceReason: note('Reason for the choice', 1000),
  state: oneOf('State', TICKET_STATES),
}).noUnknown();

export type CreateTicket = InferType<typeof createTicket>;
export type ChangeTicket = InferType<typeof changeTicket>;
export type Aim = InferType<typeof aim>;

/** A ticket as stored. */
export interface Ticket extends Omit<ChangeTicket, 'version'> {
  readonly id: string;
  readonly number: number;
  readonly version: number;
  readonly createdAt: string;
  readonly changedAt: string;
}

/** Things ticked off at a station, and cautions understood: appended, never changed. */
export const createCheck = object({
  id: uuid().label('id'),
  station: oneOf('Station', STATIONS),
  kind: oneOf('Kind', ['check', 'caution'] as const),
  code: text('Code', 60),
}).noUnknown();
export type CreateCheck = InferType<typeof createCheck>;
export interface Check extends CreateCheck {
  readonly ticketId: string;
  readonly at: string;
  readonly by: string;
}

export const CLOCK_KINDS = ['shake', 'dry', 'cool'] as const;
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

/** A container weighed before and after spraying some pieces; the parts too when someone took the time. */
export const createWeighing = object({
  id: uuid().label('id'),
  containerId: uuid().label('Container'),
  pieces: whole('Pieces coated', 1, 100_000),
  before: enteredMass('Weight before'),
  after: enteredMass('Weight after'),
  partsBefore: enteredMass('Parts before').nullable().default(null).defined(),
  partsAfter: enteredMass('Parts after drying').nullable().default(null).defined(),
  correctsId: uuid().label('Corrected weighing').nullable().defined().default(null),
}).noUnknown();
export type CreateWeighing = InferType<typeof createWeighing>;
export interface Weighing extends CreateWeighing {
  readonly ticketId: string;
  readonly at: string;
  readonly by: string;
  readonly compoundId: string;
  readonly beforeG: number;
  readonly afterG: number;
  /** Dry film laid, as judged then. */
  readonly film: Figure;
  readonly transfer: Figure | null;
}

export const listTicketsQuery = object({
  state: string()
    .oneOf([...TICKET_STATES])
    .optional(),
});
