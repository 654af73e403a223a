import { object, type InferType, type Schema } from 'yup';
import { PART_GUESSES, WORD_TESTS, type Observations, type WordTest } from '@unto/core';
import {
  amount,
  describes,
  enteredMass,
  gradeWord,
  instant,
  list,
  oneOf,
  optionalNumber,
  optionalUuid,
  orNull,
  pageQuery,
  record,
  shape,
  text,
  uuid,
  who,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

const answers = Object.fromEntries(
  (Object.keys(WORD_TESTS) as WordTest[]).map((test) => [
    test,
    oneOf(WORD_TESTS[test].name, WORD_TESTS[test].answers as readonly string[]).optional(),
  ]),
) as unknown as Record<WordTest, Schema>;

/** A weighing and a volume as they were read: by the ruler, or by the water pushed away. */
export const weighedPart = shape({
  mass: enteredMass('Weight'),
  by: oneOf('Volume', ['sheet', 'water'] as const),
  lengthMm: optionalNumber('Length', 'mm'),
  widthMm: optionalNumber('Width', 'mm'),
  thicknessMm: optionalNumber('Thickness', 'mm'),
  displacedMl: optionalNumber('Water pushed away', 'mL'),
});
export type WeighedPart = Frozen<InferType<typeof weighedPart>>;

/** What was seen of a part and what it is taken to be. Appended, never changed. */
export const createIdentification = shape({
  id: uuid().label('id'),
  label: text('What is looked at', 120),
  ticketId: uuid().label('Ticket').nullable().defined().default(null),
  blankId: uuid().label('Blank').nullable().defined().default(null),
  words: shape(answers),
  weighed: weighedPart.nullable().defined().default(null),
  guessKey: oneOf(
    'Taken to be',
    PART_GUESSES.map(({ key }) => key),
  ),
  /** The substrate it is booked as, which must be of that family and layer. */
  substrateId: uuid().label('Substrate').nullable().defined().default(null),
});
export type CreateIdentification = Omit<Frozen<InferType<typeof createIdentification>>, 'words'> & {
  readonly words: Observations['words'];
};

export const identification = record({
  id: uuid(),
  label: words(),
  ticketId: orNull(uuid()),
  blankId: orNull(uuid()),
  words: describes<Observations['words']>()(shape(answers)),
  weighed: orNull(weighedPart),
  guessKey: words(),
  substrateId: orNull(uuid()),
  density: orNull(record({ value: amount(), error: amount() })),
  modelVersion: amount(),
  /** The leading guesses as computed then. */
  probabilities: list(record({ key: words(), name: words(), probability: amount() })),
  probability: amount(),
  grade: gradeWord(),
  at: instant(),
  by: who(),
});
export type IdentificationRecord = Frozen<InferType<typeof identification>>;

export const listIdentificationsQuery = object({
  ...pageQuery,
  ticketId: optionalUuid(),
  blankId: optionalUuid(),
});
