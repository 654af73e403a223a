import { array, boolean, number, type InferType } from 'yup';
import { COAT_FAULTS, type CoatMapJudgement } from '@unto/core';
import {
  amount,
  describes,
  instant,
  keptHash,
  list,
  note,
  notNegative,
  oneOf,
  orNull,
  pictureSpot,
  positive,
  record,
  shape,
  uuid,
  who,
  whole,
  word,
  words,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';

/** What was done about a coat after its picture: the last moment that costs only compound. */
export const PICTURE_DECISIONS = ['accepted', 'touch up', 'rinsed off'] as const;

const MOST_CELLS = 40_000;

/** A picture of a coat as it was read: where the corners and the references lay, and the film cell by cell. */
export const pictureEntries = shape({
  fileHash: keptHash('The picture'),
  widthMm: positive('Width of the coat', 'mm').max(2000),
  heightMm: positive('Height of the coat', 'mm').max(2000),
  corners: array().of(pictureSpot).label('Corners').required().length(4, 'A coat has four corners.'),
  bare: pictureSpot.nullable().defined().default(null),
  good: pictureSpot.nullable().defined().default(null),
  map: shape({
    columns: whole('Columns', 1, MOST_CELLS),
    rows: whole('Rows', 1, MOST_CELLS),
    cellMm: positive('Cell', 'mm'),
    film: array().of(number().required().min(0).max(10)).required().max(MOST_CELLS),
    noise: notNegative('Noise'),
    bareRead: boolean().required(),
    lightFrom: oneOf('Light judged by', ['surround', 'part itself'] as const),
  }).test(
    'whole',
    'The map is not whole: cells are missing.',
    (map) => map == null || map.film?.length === map.columns * map.rows,
  ),
});
export type PictureEntries = Frozen<InferType<typeof pictureEntries>>;

export const createCoatPicture = shape({
  id: uuid().label('id'),
  weighingId: uuid().label('Weighing').nullable().defined().default(null),
  entries: pictureEntries,
  decision: oneOf('Decision', PICTURE_DECISIONS),
  note: note('Note', 500),
});
export type CreateCoatPicture = Frozen<InferType<typeof createCoatPicture>>;

/** A picture as kept, judged from its map. Appended, never changed. */
export const coatPicture = record({
  id: uuid(),
  weighingId: orNull(uuid()),
  entries: pictureEntries,
  decision: word(PICTURE_DECISIONS),
  note: words(),
  judgement: describes<CoatMapJudgement>()(
    record({
      places: list(
        record({
          fault: word(COAT_FAULTS),
          xMm: amount(),
          yMm: amount(),
          widthMm: amount(),
          heightMm: amount(),
          areaMm2: amount(),
          film: amount(),
          ofArtwork: amount(),
        }),
      ),
      brush: orNull(record({ along: word(['x', 'y']), swing: amount() })),
      paleShare: amount(),
      lostShare: amount(),
      advice: word(['accept', 'touch up', 'rinse off']),
    }),
  ),
  ticketId: uuid(),
  at: instant(),
  by: who(),
});
export type CoatPicture = Frozen<InferType<typeof coatPicture>>;
