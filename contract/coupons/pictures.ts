import { array, boolean, number, string, type InferType } from 'yup';
import { CARD_SIZES, MAX_CELLS, STAGES, UNREADABLE, type CardPrint, type CellMeasure } from '@unto/core';
import {
  describes,
  instant,
  keptHash,
  notNegative,
  oneOf,
  pictureSpot,
  positive,
  record,
  shape,
  uuid,
  who,
  whole,
  within,
  word,
} from '../fields/index.js';
import { cardPrint } from '../cards/cards.js';
import type { Frozen } from '../routing/index.js';

const measured = (label: string) => number().label(label).min(-1e6).max(1e6).nullable().defined();

const cellMeasure = shape({
  cell: whole('Cell', 0, MAX_CELLS),
  unreadable: string()
    .oneOf([...UNREADABLE])
    .nullable()
    .defined(),
  lightness: measured('L*'),
  bareLightness: measured('L* of bare ground'),
  contrast: measured('Contrast'),
  deltaE: measured('ΔE₀₀'),
  chroma: measured('Chroma'),
  coverage: measured('Coverage'),
  evenness: measured('Evenness'),
  grain: measured('Grain'),
  edgeUm: measured('Edge'),
  halo: measured('Halo'),
}).test(
  'honest',
  'A cell that cannot be read carries no figures.',
  (cell) => !cell.unreadable || (cell.contrast === null && cell.lightness === null),
);

/** A picture of a coupon as it was read: how card and coupon lay in it, and every cell's measures. */
export const couponPictureEntries = shape({
  fileHash: keptHash('The picture'),
  card: oneOf('Card', CARD_SIZES),
  /** What was taken for the card's print; null for a typical one, as all were read before it could be known. */
  print: cardPrint.nullable().optional().default(undefined),
  reprojectionErrorMm: notNegative('Miss of the card’s marks', 'mm'),
  mmPerPx: positive('Pixel', 'mm'),
  blurUm: measured('Camera blur'),
  unevenness: positive('Unevenness of the light'),
  /** Corner marks of the coupon in the picture; by whom they were put there. */
  corners: array().of(pictureSpot).label('Corners').required().length(4, 'A coupon has four corner marks.'),
  byHand: boolean().required(),
  code: string().defined().max(20),
  /** Somebody looked at the coupon and says that it is this one, where its code cannot be read. */
  codeConfirmed: boolean().optional(),
  noise: positive('Noise', 'L*'),
  edgeFloorUm: notNegative('Edge floor', 'µm'),
  /** The coupon straight from above, kept beside the photograph. */
  level: shape({ fileHash: keptHash('The straight picture'), pxMm: positive('Pixels a millimetre') })
    .nullable()
    .optional()
    .default(null),
  cells: array().of(cellMeasure).required().min(1).max(MAX_CELLS),
});
export type CouponPictureEntries = Omit<Frozen<InferType<typeof couponPictureEntries>>, 'cells' | 'print'> & {
  readonly cells: readonly CellMeasure[];
  readonly print?: CardPrint | null | undefined;
};

export const createCouponPicture = shape({
  id: uuid().label('id'),
  stage: oneOf('Stage', STAGES),
  entries: couponPictureEntries,
});
export type CreateCouponPicture = Omit<Frozen<InferType<typeof createCouponPicture>>, 'entries'> & {
  readonly entries: CouponPictureEntries;
};

/** A picture as kept. Appended, never changed. */
export const couponPicture = record({
  id: uuid(),
  couponId: uuid(),
  stage: word(STAGES),
  entries: describes<CouponPictureEntries>()(couponPictureEntries),
  at: instant(),
  by: who(),
});
export type CouponPicture = Frozen<InferType<typeof couponPicture>>;

/** Limits by which outcomes were proposed. */
export const outcomeRules = shape({
  retention: within('Kept after the scrub', 0, 1),
  contrast: within('Contrast', 0, 100, 'L*'),
  coverage: within('Coverage', 0, 1),
  halo: within('Halo', 0, 5),
  edgeUm: positive('Edge', 'µm'),
  evenness: within('Evenness', 0, 1),
  chroma: within('Chroma', 0, 150),
});

export const takeCouponPicture = shape({ stage: oneOf('Stage', STAGES) });
export type TakeCouponPicture = Frozen<InferType<typeof takeCouponPicture>>;
