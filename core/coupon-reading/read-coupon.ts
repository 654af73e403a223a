import { readCardLight } from '../target/card-light.js';
import { TYPICAL_PRINT, type CardPrint, type CardPrints } from '../target/card-print.js';
import { cardToPicture, findCard, pictureToCard, type Blur, type CardPose } from '../target/find-card.js';
import { levelPicture, ON_CARD, type LevelPicture, type ReadablePicture } from '../target/level-picture.js';
import type { CouponFrame, CouponLayout } from '../coupon/layout.js';
import { project, requireConvex, type Homography, type Point2 } from '../imaging/homography.js';
import { linearToSrgb } from '../imaging/colour.js';
import type { Pixels } from '../imaging/picture.js';
import { CoreError } from '../support/core-error.js';
import { columnTexture } from './boxes.js';
import { findCoupon, poseFromCorners } from './find-coupon.js';
import { measureCells, type CouponMeasures } from './measure-cells.js';
import { readCode, type ReadCode } from './read-code.js';
import { median } from '../statistics/index.js';

/** A coupon read from a picture. */
export interface CouponPictureReading extends CouponMeasures {
  readonly card: CardPose['card']['size'];
  /** What was taken for the print of the card. */
  readonly print: CardPrint;
  readonly missing: CardPose['missing'];
  readonly reprojectionErrorMm: number;
  readonly mmPerPx: number;
  /** The camera's own blur, 10–90 %, in the direction where it is the worse, µm; null where no printed edge could be measured. */
  readonly blurUm: number | null;
  /** Brightest over darkest light in the window. */
  readonly unevenness: number;
  /** Outer corners of the corner marks in the picture, px, from the coupon's lower left one counter-clockwise. */
  readonly corners: readonly Point2[];
  /** False where the corners are a guess that somebody must put right: the cells are then not measured. */
  readonly sure: boolean;
  readonly code: ReadCode;
  /** The coupon straight from above, for showing. */
  readonly picture: LevelPicture;
}

/** Finest pixel a coupon is straightened at, mm: finer than any spot that marks by a compound. */
const FINEST_MM = 0.1;
/** Share of the gap between cells that an edge may be blurred over, and the gap it is read as at least. */
const MOST_BLUR = 0.75;
const LEAST_GAP_MM = 0.6;
/** So many fields of bare paper tell the camera's noise. */
const NOISE_FIELDS = 16;

/**
 * Finds the card in a picture and levels light and tone by it.
 * @param printOf what is known of the shop's cards, by size: a typical print where nothing is
 * @throws reading.* with what is wrong with the picture
 */
export function openCardPicture(pixels: Pixels, printOf: CardPrints = {}): ReadablePicture {
  const pose = findCard(pixels);
  const print = printOf[pose.card.size] ?? TYPICAL_PRINT;
  return { pixels, pose, print, light: readCardLight(pixels, pose, print) };
}

/**
 * Reads a coupon on the card: finds it by its corner marks (or by the corners given, px), checks its code, measures every cell.
 * @throws reading.no-coupon for a coupon designed without corner marks; reading.blurred; reading.other-coupon when its code is
 * another's; reading.points for corners that cross
 */
export function readCoupon(
  picture: ReadablePicture,
  layout: CouponLayout,
  corners: readonly Point2[] | null = null,
): CouponPictureReading {
  const framed = requireFrame(layout);
  const { pose, light } = picture;
  if (corners) requireConvex(corners);
  const found = corners
    ? poseFromCorners(
        framed.frame,
        corners.map((corner) => pictureToCard(pose, corner)),
      )
    : findCoupon(picture, framed);
  const { blank } = layout.design;
  const blur = pose.blurMm && blurOnCoupon(pose.blurMm, found.toCard);
  if (found.sure && blur) refuseBlur(blur, layout);
  const pxMm = Math.max(FINEST_MM, pose.mmPerPx);
  const level = levelPicture(picture, found.toCard, { xMm: 0, yMm: 0, ...blank, pxMm });
  const code = readCode(level, layout);
  if (found.sure && !code.agrees)
    throw new CoreError(
      'reading.other-coupon',
      `This is a picture of ${code.text}, not of ${layout.design.code}. It was kept; bring the picture of this coupon.`,
    );
  return {
    card: pose.card.size,
    print: picture.print,
    missing: pose.missing,
    reprojectionErrorMm: pose.reprojectionErrorMm,
    mmPerPx: pose.mmPerPx,
    blurUm: blur && 1000 * Math.max(blur.x, blur.y),
    unevenness: light.unevenness,
    corners: found.corners.map((corner) => cardToPicture(pose, corner)),
    sure: found.sure,
    code,
    picture: level,
    ...(found.sure
      ? measureCells(level, layout, { blurMm: blur, noise: paperNoise(picture, pxMm) })
      : { cells: [], noise: 0, edgeFloorUm: 0 }),
  };
}

/** Blur along the coupon's own axes, which may lie turned on the card. */
function blurOnCoupon({ x, y }: Blur, toCard: Homography): Blur {
  const [at, right] = [project(toCard, { x: 0, y: 0 }), project(toCard, { x: 1, y: 0 })];
  const turn = Math.atan2(right.y - at.y, right.x - at.x);
  const along = (angle: number) => Math.hypot(x * Math.cos(angle), y * Math.sin(angle));
  return { x: along(turn), y: along(turn + Math.PI / 2) };
}

/** Blur that carries a mark into the middle of the gap beside it leaves no bare ground to measure against. */
function refuseBlur(blur: Blur, { design }: CouponLayout): void {
  if (blur.x <= MOST_BLUR * Math.max(design.gapMm, LEAST_GAP_MM)) return;
  throw new CoreError(
    'reading.blurred',
    `The camera moved or is out of focus: edges are ${blur.x.toFixed(1)} mm wide, and the cells stand ${design.gapMm.toFixed(1)} mm apart. Take the picture again with the camera held still; this one was kept.`,
  );
}

/** Spread from pixel to pixel on the card’s bare paper, which has no texture of its own: the camera’s noise at this size of pixel, L*. */
function paperNoise(picture: ReadablePicture, pxMm: number): number {
  const fields = picture.pose.card.whites.filter(({ heightMm }) => heightMm >= 4);
  const few = fields.filter((_, i) => i % Math.ceil(fields.length / NOISE_FIELDS) === 0);
  const found = few.flatMap((box) => {
    const level = levelPicture(picture, ON_CARD, { ...box, pxMm });
    const noise = columnTexture(level, { x0: 0.5, y0: 0.5, x1: box.widthMm - 0.5, y1: box.heightMm - 0.5 });
    return noise === null ? [] : [noise];
  });
  return median(found, 0);
}

function requireFrame(layout: CouponLayout): CouponLayout & { readonly frame: CouponFrame } {
  const { frame } = layout;
  if (!frame)
    throw new CoreError(
      'reading.no-coupon',
      'This coupon was designed without corner marks, so that a picture of it cannot be read. Enter its cells by eye.',
    );
  return { ...layout, frame };
}

/** A levelled picture as sRGB bytes with its first row on top, for showing. */
export function levelBytes({ columns, rows, rgb }: LevelPicture): Pixels {
  const data = new Uint8ClampedArray(columns * rows * 4);
  for (let row = 0; row < rows; row += 1) {
    for (let column = 0; column < columns; column += 1) {
      const from = 3 * ((rows - 1 - row) * columns + column);
      const to = 4 * (row * columns + column);
      for (let k = 0; k < 3; k += 1) data[to + k] = SHOWN[Math.min(4095, (rgb[from + k]! * 4095 + 0.5) | 0)]!;
      data[to + 3] = 255;
    }
  }
  return { width: columns, height: rows, data };
}

/** Shares of light to bytes, by table. */
const SHOWN = Uint8Array.from({ length: 4096 }, (_, i) => Math.round(255 * linearToSrgb(i / 4095)));
