import { type InferType } from 'yup';
import { APPLICATIONS } from '@unto/core';
import { figure } from '../evidence/index.js';
import {
  amount,
  enteredMass,
  flag,
  instant,
  oneOf,
  orNull,
  record,
  shape,
  uuid,
  who,
  whole,
  within,
  word,
  words,
} from '../fields/index.js';
import { MOST_TRAYS } from './timers.js';
import type { Frozen } from '../routing/index.js';

/** A container weighed before and after spraying some pieces; the parts too when someone took the time. */
export const createWeighing = shape({
  id: uuid().label('id'),
  containerId: uuid().label('Container'),
  pieces: whole('Pieces coated', 1, 100_000),
  before: enteredMass('Weight before'),
  after: enteredMass('Weight after'),
  /** How it was laid on; as its compound usually is where nobody says. */
  application: oneOf('Laid on with', APPLICATIONS).optional(),
  strokes: whole('Strokes', 1, 10_000).nullable().optional(),
  /** The tray that was laid, where a coat is laid on several; the first where nobody says. */
  tray: whole('Tray', 1, MOST_TRAYS).optional(),
  /** Of the room it was laid in, where somebody looked. */
  roomC: within('Room temperature', -20, 60, '°C').nullable().optional(),
  roomHumidity: within('Room humidity', 0, 100, '%').nullable().optional(),
  partsBefore: enteredMass('Parts before').nullable().default(null).defined(),
  partsAfter: enteredMass('Parts after drying').nullable().default(null).defined(),
  correctsId: uuid().label('Corrected weighing').nullable().defined().default(null),
});
export type CreateWeighing = Frozen<InferType<typeof createWeighing>>;
export const weighing = record({
  id: uuid(),
  ticketId: uuid(),
  containerId: uuid(),
  compoundId: uuid(),
  pieces: amount(),
  before: enteredMass('Weight before'),
  after: enteredMass('Weight after'),
  partsBefore: orNull(enteredMass('Parts before')),
  partsAfter: orNull(enteredMass('Parts after drying')),
  application: word(APPLICATIONS),
  beforeG: amount(),
  afterG: amount(),
  strokes: orNull(amount()),
  tray: amount(),
  roomC: orNull(amount()),
  roomHumidity: orNull(amount()),
  correctsId: orNull(uuid()),
  /** Dry film laid, as judged then. */
  film: figure(),
  transfer: orNull(figure()),
  /** The mix was past its pot life when this was laid. */
  afterPotLife: flag(),
  /** The coat was rinsed off before firing: its pieces are coated no more. */
  rinsedOff: flag(),
  at: instant(),
  by: who(),
});
export type Weighing = Frozen<InferType<typeof weighing>>;

/** A coat as it was weighed: one point of a trend. */
export const coatSample = record({
  id: uuid(),
  at: instant(),
  by: who(),
  ticketId: uuid(),
  ticketTitle: words(),
  pieces: amount(),
  film: figure(),
  transferValue: orNull(amount()),
  massAppliedG: amount(),
  strokes: orNull(amount()),
  roomC: orNull(amount()),
  roomHumidity: orNull(amount()),
});
export type CoatSample = Frozen<InferType<typeof coatSample>>;
