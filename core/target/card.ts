import { srgbToLinear } from '../imaging/colour.js';
import type { Point2 } from '../imaging/homography.js';

/** A rectangle of the card, mm from its lower left corner, y up. */
export interface CardBox {
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** A square mark in a corner, told apart by its number in the dictionary. */
export interface CardMark extends CardBox {
  readonly id: number;
  readonly corner: 'lower left' | 'lower right' | 'upper right' | 'upper left';
}

/** A grey field and what it is printed with, 8-bit sRGB. */
export interface GreyField extends CardBox {
  readonly srgb: number;
}

/** The printed reference card on which a coupon is photographed. */
export interface ReferenceCard {
  readonly size: CardSize;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marks: readonly CardMark[];
  /** Where the coupon is laid. */
  readonly window: CardBox;
  readonly greys: readonly GreyField[];
  /** Bare paper by which uneven light is told. */
  readonly whites: readonly CardBox[];
  /** Millimetre ruler, from its left end. */
  readonly ruler: { readonly xMm: number; readonly yMm: number; readonly lengthMm: number };
}

export const CARD_SIZES = ['A5', 'A4'] as const;
export type CardSize = (typeof CARD_SIZES)[number];

/** Marks come from this dictionary of 6 × 6 bits; at most this many wrong bits are forgiven. */
export const MARK_DICTIONARY = 'ARUCO_MIP_36h12';
export const MOST_WRONG_BITS = 3;

/** Light thrown back by white office paper and by its darkest print, share. Common practice, no source. */
const PAPER = 0.86;
const INK = 0.025;
/** Grey steps about evenly apart in lightness, 8-bit sRGB, the lightest first. */
export const GREY_STEPS = [225, 185, 145, 105, 65, 25] as const;

const FORMATS: Record<CardSize, { w: number; h: number; mark: number; off: number; window: [number, number] }> = {
  A5: { w: 210, h: 148, mark: 16, off: 9, window: [128, 88] },
  A4: { w: 297, h: 210, mark: 20, off: 12, window: [200, 140] },
};

/** First mark number of each size: a picture tells by itself which card lies in it. */
const FIRST_MARK: Record<CardSize, number> = { A5: 10, A4: 20 };
/** Numbers of all marks of all cards. */
export const MARK_IDS = CARD_SIZES.flatMap((size) => [0, 1, 2, 3].map((i) => FIRST_MARK[size] + i));

/** Geometry of the card, landscape. */
export function referenceCard(size: CardSize): ReferenceCard {
  const { w, h, mark, off, window } = FORMATS[size];
  const [far, high] = [w - off - mark, h - off - mark];
  const corners = [
    ['lower left', off, off],
    ['lower right', far, off],
    ['upper right', far, high],
    ['upper left', off, high],
  ] as const;
  const inner: CardBox = {
    xMm: (w - window[0]) / 2,
    yMm: (h - window[1]) / 2,
    widthMm: window[0],
    heightMm: window[1],
  };
  return {
    size,
    widthMm: w,
    heightMm: h,
    marks: corners.map(([corner, xMm, yMm], i) => ({
      id: FIRST_MARK[size] + i,
      corner,
      xMm,
      yMm,
      widthMm: mark,
      heightMm: mark,
    })),
    window: inner,
    greys: greyFields(w, h, mark, off),
    whites: whiteFields(inner, w, h, mark, off),
    ruler: { xMm: w / 2 - 50, yMm: off - 4, lengthMm: 100 },
  };
}

/** The card that owns a mark; undefined for a mark of none. */
export function cardOfMark(id: number): ReferenceCard | undefined {
  const size = CARD_SIZES.find((one) => id >= FIRST_MARK[one] && id < FIRST_MARK[one] + 4);
  return size && referenceCard(size);
}

/** Outer corners of a mark in the order the picture tells them: upper left, then clockwise as it lies on the card. */
export function markCorners({ xMm, yMm, widthMm, heightMm }: CardBox): Point2[] {
  return [
    { x: xMm, y: yMm + heightMm },
    { x: xMm + widthMm, y: yMm + heightMm },
    { x: xMm + widthMm, y: yMm },
    { x: xMm, y: yMm },
  ];
}

/** Steps along the lower edge and, the other way round, along the upper one: light and print are averaged. */
function greyFields(w: number, h: number, mark: number, off: number): GreyField[] {
  const side = mark * 0.62;
  const room = w - 2 * (off + mark) - 10;
  const pitch = room / GREY_STEPS.length;
  const y = off + (mark - side) / 2 + 3;
  return [0, 1].flatMap((row) =>
    GREY_STEPS.map((srgb, i) => ({
      srgb,
      xMm: off + mark + 5 + (row === 0 ? i : GREY_STEPS.length - 1 - i) * pitch + (pitch - side) / 2,
      yMm: row === 0 ? y : h - y - side,
      widthMm: side,
      heightMm: side,
    })),
  );
}

/** Share of light that a typical print of an sRGB grey throws back. */
export function reflectanceOf(srgb: number): number {
  return INK + (PAPER - INK) * srgbToLinear(srgb / 255);
}

/** Strips of bare paper about the window, cut into fields. */
function whiteFields(window: CardBox, w: number, h: number, mark: number, off: number): CardBox[] {
  const fields: CardBox[] = [];
  const side = 4;
  const [left, right] = [window.xMm, window.xMm + window.widthMm];
  const [low, high] = [window.yMm, window.yMm + window.heightMm];
  for (let y = off + mark + 6; y + side <= h - off - mark - 6; y += 9)
    for (const x of [left / 2 - side / 2, left - side - 3, right + 3, right + (w - right) / 2 - side / 2])
      fields.push({ xMm: x, yMm: y, widthMm: side, heightMm: side });
  for (let x = left; x + side <= right; x += 9)
    for (const y of [low - side / 2 - 2.2, high - side / 2 + 2.2])
      fields.push({ xMm: x, yMm: y, widthMm: side, heightMm: side / 2 });
  return fields;
}
