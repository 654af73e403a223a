import { mixed, object, string, type InferType } from 'yup';
import { AMOUNTS, LAMP_TESTS, SHOWING, type Figure, type LooksFinding } from '@unto/core';
import { note, notNegative, oneOf, optionalOneOf, positive, uuid } from '../fields/index.js';

/** How a coat is read beside weighing it. */
export const COAT_READING_KINDS = ['comb', 'looks'] as const;
export type CoatReadingKind = (typeof COAT_READING_KINDS)[number];

/** Entries of each kind, as they were read. */
export const COAT_ENTRIES = {
  comb: object({
    wettedUm: notNegative('Deepest tooth that came out wet', 'µm').max(5000, 'A comb tooth is at most 5000 µm.'),
    dryToothUm: positive('Next tooth, still dry', 'µm')
      .max(5000, 'A comb tooth is at most 5000 µm.')
      .test(
        'rises',
        'The tooth that stayed dry must be the higher one: were the two swapped?',
        (value, { parent }) => !(value <= parent.wettedUm),
      ),
  }).noUnknown(),
  looks: object({
    showing: oneOf('Ground showing', SHOWING),
    runs: oneOf('Runs', AMOUNTS),
    lumps: oneOf('Lumps', AMOUNTS),
    lamp: optionalOneOf('Lamp', LAMP_TESTS),
  }).noUnknown(),
} as const;

export interface CoatEntriesOf {
  comb: InferType<(typeof COAT_ENTRIES)['comb']>;
  looks: InferType<(typeof COAT_ENTRIES)['looks']>;
}

export const createCoatReading = object({
  id: uuid().label('id'),
  kind: oneOf('Kind', COAT_READING_KINDS),
  /** The weighing of the same coat; null when it was not weighed. */
  weighingId: uuid().label('Weighing').nullable().optional(),
  entries: mixed<CoatEntriesOf[CoatReadingKind]>().required('The entries are missing.'),
  note: note('Note', 500),
}).noUnknown();
export type CreateCoatReading = InferType<typeof createCoatReading>;

/** A reading of a coat as kept, with the film that follows. Appended, never changed. */
export interface CoatReading<K extends CoatReadingKind = CoatReadingKind> extends Omit<
  CreateCoatReading,
  'kind' | 'entries' | 'weighingId'
> {
  readonly weighingId: string | null;
  readonly kind: K;
  readonly entries: CoatEntriesOf[K];
  readonly film: Figure;
  readonly findings: readonly LooksFinding[];
  readonly ticketId: string;
  readonly compoundId: string;
  readonly at: string;
  readonly by: string;
}

export const coatTrendQuery = object({ compoundId: string().optional() });
