import { object, type InferType } from 'yup';
import {
  flag,
  instant,
  keptHash,
  note,
  oneOf,
  optionalUuid,
  orNull,
  record,
  shape,
  uuid,
  who,
  word,
  words,
  yes,
} from '../fields/index.js';
import { FILE_TYPES, type FileType } from '../files/index.js';
import type { Frozen } from '../routing/index.js';

/** What a picture beside a ticket or a run shows. */
export const REMARK_SHOWS = ['part', 'mark', 'set-up', 'else'] as const;
export type RemarkShows = (typeof REMARK_SHOWS)[number];

/** A note, a picture or both beside a ticket, or beside one of its runs. Words or a picture must be there. */
export const createRemark = shape({
  id: uuid().label('id'),
  ticketId: uuid().label('Ticket'),
  runId: uuid().label('Run').nullable().defined().default(null),
  words: note('Note', 2000),
  fileHash: keptHash('Picture').nullable().defined().default(null),
  shows: oneOf('What it shows', REMARK_SHOWS).nullable().defined().default(null),
}).test('something', 'Write a note, or bring a picture.', ({ words: said, fileHash }, context) =>
  // Entries that are no words at all are refused where they stand.
  typeof said !== 'string' || said.trim() || fileHash
    ? true
    : context.createError({ path: 'words', message: 'Write a note, or bring a picture.' }),
);
export type CreateRemark = Frozen<InferType<typeof createRemark>>;

/** Takes a remark out of sight, or back; it is never lost. */
export const retireRemark = shape({ retired: yes('Retired') });
export type RetireRemark = Frozen<InferType<typeof retireRemark>>;

export const remark = record({
  id: uuid(),
  ticketId: uuid(),
  runId: orNull(uuid()),
  words: words(),
  file: orNull(
    record({ hash: keptHash('Picture'), name: words(), mediaType: word(Object.keys(FILE_TYPES) as FileType[]) }),
  ),
  shows: orNull(word(REMARK_SHOWS)),
  retired: flag(),
  at: instant(),
  by: who(),
});
export type Remark = Frozen<InferType<typeof remark>>;

export const listRemarksQuery = object({ ticketId: uuid().label('Ticket'), runId: optionalUuid() });
export type ListRemarksQuery = Frozen<InferType<typeof listRemarksQuery>>;
