import { object, type InferType } from 'yup';
import { amount, keptHash, record, text, word, words } from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** Kinds of file that are kept, by how they begin. */
export const FILE_TYPES = {
  'application/pdf': [0x25, 0x50, 0x44, 0x46],
  'image/png': [0x89, 0x50, 0x4e, 0x47],
  'image/jpeg': [0xff, 0xd8, 0xff],
} as const;
/** Kept too: artwork that is a text. It is never shown as what it says it is. */
export const TEXT_TYPE = 'text/plain';
export type FileType = keyof typeof FILE_TYPES | typeof TEXT_TYPE;
export const MAX_FILE_BYTES = 25_000_000;

export const keepFileQuery = object({ name: text('File name') });

/** A file the server keeps, named by the hash of its content. */
export const keptFile = record({
  hash: keptHash('File'),
  name: words(),
  mediaType: word([...Object.keys(FILE_TYPES), TEXT_TYPE] as FileType[]),
  bytes: amount(),
});
export type KeptFile = Frozen<InferType<typeof keptFile>>;
