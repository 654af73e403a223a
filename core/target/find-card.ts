import { CoreError } from '../support/core-error.js';
import { fitHomography, project, type Homography, type Point2 } from '../imaging/homography.js';
import type { Pixels } from '../imaging/picture.js';
import { cardOfMark, markCorners, type CardMark, type ReferenceCard } from './card.js';
import { shrunk } from './shrink.js';
import { findMarks, type FoundMark } from './marks.js';
import { sharpenCorners } from './sharpen-corners.js';
import { median } from '../statistics/index.js';

/** 10–90 % width of printed edges, across and upwards, mm: a camera that moved blurs more along its way. */
export interface Blur {
  readonly x: number;
  readonly y: number;
}

/** How a card lies in a picture: card mm → picture px, with one term of lens distortion about the picture's middle. */
export interface CardPose {
  readonly card: ReferenceCard;
  /** Card mm → px before distortion. */
  readonly homography: Homography;
  /** Radial distortion: r → r(1 + k1·r²), r in half diagonals of the picture. */
  readonly k1: number;
  readonly middle: Point2;
  readonly halfDiagonalPx: number;
  /** Root mean square miss of the marks' corners, mm. */
  readonly reprojectionErrorMm: number;
  /** Size of a pixel in the middle of the window, mm. */
  readonly mmPerPx: number;
  /** Corners of the card that were not found; one may be missing. */
  readonly missing: readonly CardMark['corner'][];
  /** The camera's own blur; null where no edge could be measured. */
  readonly blurMm: Blur | null;
}

/** Widths the picture is shrunk to for the search, px: the small one finds the marks of a card that fills the picture. */
const SEARCH_PX = [640, 1280] as const;
/** A picture whose marks miss their places by more than this is not read: the card is bent, or it is a copy of a copy. */
const MOST_MISS_MM = 0.35;
const LEAST_MARKS = 3;
/** A card smaller than this in the picture tells too little, mm a pixel. */
const COARSEST_MM = 0.3;

/**
 * Finds the reference card in a picture and how it lies, whichever way up it is.
 * @throws reading.no-card for none or too little of one, reading.two-cards, reading.card-bent, reading.too-coarse
 */
export function findCard(pixels: Pixels): CardPose {
  const { card, found } = searchCard(pixels);
  const missing = card.marks.filter(({ id }) => !found.some((mark) => mark.id === id)).map(({ corner }) => corner);
  const sharp = found.map((mark) => ({ mark, ...sharpenCorners(pixels, mark.corners) }));
  const pairs = sharp.flatMap(({ mark, corners }) => {
    const places = markCorners(card.marks.find(({ id }) => id === mark.id)!);
    return places.map((place, i) => ({ place, px: corners[i]! }));
  });
  const pose = fitPose(pairs, pixels);
  if (pose.reprojectionErrorMm > MOST_MISS_MM)
    throw new CoreError(
      'reading.card-bent',
      `The card’s marks miss their places by ${pose.reprojectionErrorMm.toFixed(2)} mm: lay the card flat and photograph it from straight above. The picture was kept.`,
    );
  const mmPerPx = pixelSize(pose, card);
  if (mmPerPx > COARSEST_MM)
    throw new CoreError(
      'reading.too-coarse',
      `A pixel is ${mmPerPx.toFixed(2)} mm of the card: go nearer, or take a larger picture. The picture was kept.`,
    );
  const [x, y] = (['x', 'y'] as const).map((way) => mmPerPx * median(sharp.flatMap(({ edgePx }) => edgePx[way]))) as [
    number,
    number,
  ];
  const blurMm = Number.isNaN(x) || Number.isNaN(y) ? null : { x, y };
  return { card, missing, mmPerPx, blurMm, ...pose };
}

/** Where a place of the card lies in the picture, px. */
export function cardToPicture(
  pose: Pick<CardPose, 'homography' | 'k1' | 'middle' | 'halfDiagonalPx'>,
  place: Point2,
): Point2 {
  return distorted(project(pose.homography, place), pose);
}

/** Where a pixel lies on the card, mm. */
export function pictureToCard(pose: CardPose, at: Point2): Point2 {
  return project(inverse(pose.homography), undistorted(at, pose));
}

function searchCard(pixels: Pixels): { card: ReferenceCard; found: FoundMark[] } {
  let best: { card: ReferenceCard; found: FoundMark[] } | null = null;
  for (const width of SEARCH_PX) {
    const { small, scale } = shrunk(pixels, width);
    const marks = findMarks(small).filter(({ id }) => cardOfMark(id));
    const known = single(marks).map(({ id, corners }) => ({
      id,
      corners: corners.map((c) => ({ x: c.x * scale, y: c.y * scale })),
    }));
    refuseTwoCards(known);
    const card = known.length ? cardOfMark(known[0]!.id)! : null;
    if (card && known.length > (best?.found.length ?? 0)) best = { card, found: known };
    if (best?.found.length === 4 || small.width === pixels.width) break;
  }
  if (!best)
    throw new CoreError(
      'reading.no-card',
      'No reference card is in this picture. Lay the coupon on the printed card with all four corner marks in view. The picture was kept.',
    );
  if (best.found.length < LEAST_MARKS) {
    const gone = best.card.marks.filter(({ id }) => !best.found.some((mark) => mark.id === id));
    throw new CoreError(
      'reading.no-card',
      `Of the card’s corner marks the ${gone.map(({ corner }) => corner).join(' and the ')} are cut off or covered. Take the picture again with all four in view; this one was kept.`,
    );
  }
  return best;
}

/** The search may find a mark by its outer and its inner rim: of two in one place the larger counts. */
function single(marks: readonly FoundMark[]): FoundMark[] {
  const centre = ({ corners }: FoundMark) => ({
    x: corners.reduce((sum, { x }) => sum + x, 0) / 4,
    y: corners.reduce((sum, { y }) => sum + y, 0) / 4,
  });
  const side = ({ corners: [a, b] }: FoundMark) => Math.hypot(a!.x - b!.x, a!.y - b!.y);
  const large = [...marks].sort((a, b) => side(b) - side(a));
  return large.filter((mark, i) => {
    const at = centre(mark);
    return !large.slice(0, i).some((other) => {
      const there = centre(other);
      return other.id === mark.id && Math.hypot(at.x - there.x, at.y - there.y) < side(other) / 2;
    });
  });
}

function refuseTwoCards(marks: readonly FoundMark[]): void {
  const sizes = new Set(marks.map(({ id }) => cardOfMark(id)!.size));
  if (new Set(marks.map(({ id }) => id)).size < marks.length || sizes.size > 1)
    throw new CoreError(
      'reading.two-cards',
      'Two reference cards are in this picture. Leave one in view. The picture was kept.',
    );
}

type Lens = Pick<CardPose, 'k1' | 'middle' | 'halfDiagonalPx'>;
interface Pair {
  readonly place: Point2;
  readonly px: Point2;
}

/** Distortion stronger than this is no camera's. */
const MOST_K1 = 0.3;

/** Homography for every k1 by direct linear transformation, k1 by golden section on what is left. Source: Kiefer 1953 for the search. */
export function fitPose(
  pairs: readonly Pair[],
  { width, height }: Pick<Pixels, 'width' | 'height'>,
): Lens & Pick<CardPose, 'homography' | 'reprojectionErrorMm'> {
  const middle = { x: (width - 1) / 2, y: (height - 1) / 2 };
  const halfDiagonalPx = Math.hypot(width, height) / 2;
  const at = (k1: number) => {
    const lens = { k1, middle, halfDiagonalPx };
    const flat = pairs.map(({ px }) => undistorted(px, lens));
    const places = pairs.map(({ place }) => place);
    const homography = fitHomography(places, flat);
    const back = inverse(homography);
    const miss = flat.map((px, i) => {
      const found = project(back, px);
      return (found.x - places[i]!.x) ** 2 + (found.y - places[i]!.y) ** 2;
    });
    return {
      ...lens,
      homography,
      reprojectionErrorMm: Math.sqrt(miss.reduce((sum, value) => sum + value, 0) / miss.length),
    };
  };
  const golden = (Math.sqrt(5) - 1) / 2;
  let [low, high] = [-MOST_K1, MOST_K1];
  for (let i = 0; i < 24; i += 1) {
    const [a, b] = [high - golden * (high - low), low + golden * (high - low)];
    if (at(a).reprojectionErrorMm < at(b).reprojectionErrorMm) high = b;
    else low = a;
  }
  return at((low + high) / 2);
}

function distorted({ x, y }: Point2, { k1, middle, halfDiagonalPx }: Lens): Point2 {
  const [dx, dy] = [x - middle.x, y - middle.y];
  const stretch = 1 + (k1 * (dx * dx + dy * dy)) / halfDiagonalPx ** 2;
  return { x: middle.x + dx * stretch, y: middle.y + dy * stretch };
}

/** Inverse of distorted, by fixed-point steps; distortion is small, so eight are plenty. */
function undistorted({ x, y }: Point2, { k1, middle, halfDiagonalPx }: Lens): Point2 {
  const [dx, dy] = [x - middle.x, y - middle.y];
  let [ux, uy] = [dx, dy];
  for (let i = 0; i < 8; i += 1) {
    const stretch = 1 + (k1 * (ux * ux + uy * uy)) / halfDiagonalPx ** 2;
    [ux, uy] = [dx / stretch, dy / stretch];
  }
  return { x: middle.x + ux, y: middle.y + uy };
}

/** Inverse of a 3 × 3 map by its cofactors; scale does not matter to a projective map. */
export function inverse(h: Homography): Homography {
  const [a, b, c, d, e, f, g, i, j] = h as [number, number, number, number, number, number, number, number, number];
  return [
    e * j - f * i,
    c * i - b * j,
    b * f - c * e,
    f * g - d * j,
    a * j - c * g,
    c * d - a * f,
    d * i - e * g,
    b * g - a * i,
    a * e - b * d,
  ];
}

function pixelSize(pose: Lens & Pick<CardPose, 'homography'>, { window }: ReferenceCard): number {
  const centre = { x: window.xMm + window.widthMm / 2, y: window.yMm + window.heightMm / 2 };
  const a = cardToPicture(pose, { x: centre.x - 5, y: centre.y });
  const b = cardToPicture(pose, { x: centre.x + 5, y: centre.y });
  return 10 / Math.hypot(a.x - b.x, a.y - b.y);
}
