import { mixed, object, type InferType, type Schema } from 'yup';
import { PART_GUESSES, WORD_TESTS, type Grade, type Observations, type WordTest } from '@unto/core';
import { enteredMass, oneOf, optionalNumber, text, uuid } from '../fields/index.js';

const answers = Object.fromEntries(
  (Object.keys(WORD_TESTS) as WordTest[]).map((test) => [
    test,
    oneOf(WORD_TESTS[test].name, WORD_TESTS[test].answers as readonly string[]).optional(),
  ]),
) as unknown as Record<WordTest, Schema>;

/** A weighing and a volume as they were read: by the ruler, or by the water pushed away. */
export const weighedPart = object({
  mass: enteredMass('Weight'),
  by: oneOf('Volume', ['sheet', 'water'] as const),
  lengthMm: optionalNumber('Length', 'mm'),
  widthMm: optionalNumber('Width', 'mm'),
  thicknessMm: optionalNumber('Thickness', 'mm'),
  displacedMl: optionalNumber('Water pushed away', 'mL'),
}).noUnknown();
export type WeighedPart = InferType<typeof weighedPart>;

/** What was seen of a part and what it is taken to be. Appended, never changed. */
export const createIdentification = object({
  id: uuid().label('id'),
  label: text('What is looked at', 120),
  ticketId: uuid().label('Ticket').nullable().defined().default(null),
  blankId: uuid().label('Blank').nullable().defined().default(null),
  words: object(answers).noUnknown(),
  weighed: weighedPart.nullable().defined().default(null),
  guessKey: oneOf(
    'Taken to be',
    PART_GUESSES.map(({ key }) => key),
  ),
  /** The substrate it is booked as, which must be of that family and layer. */
  substrateId: uuid().label('Substrate').nullable().defined().default(null),
}).noUnknown();
export type CreateIdentification = Omit<InferType<typeof createIdentification>, 'words'> & {
  readonly words: Observations['words'];
};

export interface IdentificationRecord extends CreateIdentification {
  readonly density: { readonly value: number; readonly error: number } | null;
  readonly modelVersion: number;
  /** The leading guesses as computed then. */
  readonly probabilities: readonly { readonly key: string; readonly name: string; readonly probability: number }[];
  readonly probability: number;
  readonly grade: Grade;
  readonly at: string;
  readonly by: string;
}

export const listIdentificationsQuery = object({
  ticketId: mixed<string>().optional(),
  blankId: mixed<string>().optional(),
});
