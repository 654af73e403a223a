import { array, type InferType } from 'yup';
import { ARTWORK_WORKS, TEXT_ALIGNS, TEXT_KINDS } from '@unto/core';
import {
  amount,
  finite,
  instant,
  keptHash,
  list,
  note,
  oneOf,
  optionalNumber,
  optionalOneOf,
  orNull,
  positive,
  record,
  shape,
  text,
  uuid,
  who,
  whole,
  within,
  word,
  words,
  yes,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

export const ARTWORK_KINDS = ['SVG', 'DXF', 'G-code', 'picture'] as const;
export type ArtworkKind = (typeof ARTWORK_KINDS)[number];

/** What somebody says of a file of artwork that it does not say itself. */
export const artworkEntries = shape({
  /** Of a DXF that names none. */
  unit: optionalOneOf('Unit', ['mm', 'in'] as const),
  /** Of a file that fills nothing itself. */
  closed: oneOf('Closed outlines', ['filled', 'followed'] as const),
  /** Brought to this width; its own where null. */
  widthMm: optionalNumber('Width', 'mm').max(2000, 'Width must be at most 2000 mm.'),
  /** Of a picture: darker than this is marked. */
  darker: within('Marked where darker than', 1, 254),
});

export const createArtwork = shape({
  id: uuid().label('id'),
  fileHash: keptHash('File'),
  name: text('File name'),
  entries: artworkEntries,
});
export type CreateArtwork = Frozen<InferType<typeof createArtwork>>;

const narrowest = record({ mm: amount(), xMm: amount(), yMm: amount() });
const swept = record({ heightMm: amount(), extentMm: amount(), spansPerRow: amount(), markedShare: amount() });
export const artworkMeasure = record({
  ...{ widthMm: amount(), heightMm: amount(), filledMm2: amount(), filledShare: amount() },
  ...{ swept, sweptUp: swept, linesMm: amount(), lines: amount() },
  ...{ smallestStroke: orNull(narrowest), smallestGap: orNull(narrowest), openFills: amount(), corners: amount() },
});

/** A file of artwork as brought to a ticket. Appended, never changed. */
export const artwork = record({
  id: uuid(),
  ticketId: uuid(),
  fileHash: words(),
  name: words(),
  kind: word(ARTWORK_KINDS),
  entered: artworkEntries,
  measure: artworkMeasure,
  /** What was left out of it, in words. */
  said: list(words()),
  at: instant(),
  by: who(),
});
export type ArtworkRecord = Frozen<InferType<typeof artwork>>;

/** What is drawn of an artwork, from our own geometry: paths in mm, y down, from its upper left corner. */
export const artworkDrawing = record({
  widthMm: amount(),
  heightMm: amount(),
  paths: list(record({ as: word(['marked', 'left bare', 'line'] as const), evenodd: orNull(words()), d: words() })),
});
export type ArtworkDrawing = Frozen<InferType<typeof artworkDrawing>>;

const textField = shape({
  kind: oneOf('Written as', TEXT_KINDS),
  says: text('What it says', 200),
  xMm: finite('From the left', 'mm').min(-2000).max(2000),
  yMm: finite('From below', 'mm').min(-2000).max(2000),
  heightMm: positive('Height', 'mm').max(500),
  widthMm: optionalNumber('Room', 'mm').max(2000),
  align: oneOf('Stands', TEXT_ALIGNS),
});

/** How a piece is marked: the artwork and texts on it, from its lower left corner, and in what order. */
export const layoutEntries = shape({
  artworkId: uuid().label('Artwork').nullable().defined().default(null),
  xMm: finite('From the left', 'mm').min(-2000).max(2000),
  yMm: finite('From below', 'mm').min(-2000).max(2000),
  turnDeg: within('Turned by', -360, 360),
  work: oneOf('Marked as', ARTWORK_WORKS),
  outlineFirst: yes('Outlines first'),
  fields: array().of(textField).label('Texts').defined().max(12),
  table: shape({
    columns: array().of(note('Column', 60)).defined().max(60),
    rows: array()
      .of(array().of(note('Cell', 200)).defined().max(60))
      .label('Rows')
      .defined()
      .max(2000),
  }),
  numberFrom: whole('First number', 0, 1e9),
  numberStep: whole('Counted by', 1, 1e6),
});
export type LayoutEntries = Frozen<InferType<typeof layoutEntries>>;

export const createLayout = shape({ id: uuid().label('id'), entries: layoutEntries });
export type CreateLayout = Frozen<InferType<typeof createLayout>>;

/** How pieces are marked, as kept; the newest of a ticket stands. */
export const layout = record({
  id: uuid(),
  ticketId: uuid(),
  artworkId: orNull(uuid()),
  entered: layoutEntries,
  /** Of everything on the piece that carries most. */
  measure: artworkMeasure,
  at: instant(),
  by: who(),
});
export type Layout = Frozen<InferType<typeof layout>>;
