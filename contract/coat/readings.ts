import { mixed, object, type InferType } from 'yup';
import { AMOUNTS, INSPECTION_FINDINGS, LAMP_TESTS, SHOWING, type Figure, type InspectionFinding } from '@unto/core';
import { figure } from '../evidence/index.js';
import {
  byKind,
  instant,
  list,
  note,
  notNegative,
  oneOf,
  optionalOneOf,
  optionalUuid,
  orNull,
  pageQuery,
  positive,
  shape,
  uuid,
  who,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** How a coat is read beside weighing it. */
export const COAT_READING_KINDS = ['comb', 'inspection'] as const;
export type CoatReadingKind = (typeof COAT_READING_KINDS)[number];

/** Entries of each kind, as they were read. */
export const COAT_ENTRIES = {
  comb: shape({
    wettedUm: notNegative('Deepest tooth that came out wet', 'µm').max(5000, 'A comb tooth is at most 5000 µm.'),
    dryToothUm: positive('Next tooth, still dry', 'µm')
      .max(5000, 'A comb tooth is at most 5000 µm.')
      .test(
        'rises',
        'The tooth that stayed dry must be the higher one: were the two swapped?',
        (value, { parent }) => !(value <= parent.wettedUm),
      ),
  }),
  inspection: shape({
    showing: oneOf('Ground showing', SHOWING),
    runs: oneOf('Runs', AMOUNTS),
    lumps: oneOf('Lumps', AMOUNTS),
    lamp: optionalOneOf('Lamp', LAMP_TESTS),
  }),
} as const;

export interface CoatEntriesOf {
  comb: Frozen<InferType<(typeof COAT_ENTRIES)['comb']>>;
  inspection: Frozen<InferType<(typeof COAT_ENTRIES)['inspection']>>;
}

export const createCoatReading = shape({
  id: uuid().label('id'),
  kind: oneOf('Kind', COAT_READING_KINDS),
  /** The weighing of the same coat; null when it was not weighed. */
  weighingId: uuid().label('Weighing').nullable().optional(),
  entries: mixed<CoatEntriesOf[CoatReadingKind]>().required('The entries are missing.'),
  note: note('Note', 500),
});
export type CreateCoatReading = Frozen<InferType<typeof createCoatReading>>;

/** A reading of a coat as kept, with the film that follows. Appended, never changed. */
export interface CoatReading<K extends CoatReadingKind = CoatReadingKind> {
  readonly id: string;
  readonly kind: K;
  readonly weighingId: string | null;
  readonly entries: CoatEntriesOf[K];
  readonly note: string;
  readonly film: Figure;
  readonly findings: readonly InspectionFinding[];
  readonly ticketId: string;
  readonly compoundId: string;
  readonly at: string;
  readonly by: string;
}
export const coatReading = byKind<CoatReading>(
  'kind',
  { comb: { entries: COAT_ENTRIES.comb }, inspection: { entries: COAT_ENTRIES.inspection } },
  {
    id: uuid(),
    weighingId: orNull(uuid()),
    note: words(),
    film: figure(),
    findings: list(word(INSPECTION_FINDINGS)),
    ticketId: uuid(),
    compoundId: uuid(),
    at: instant(),
    by: who(),
  },
);

export const coatTrendQuery = object({ ...pageQuery, compoundId: optionalUuid() });
