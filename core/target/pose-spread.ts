import { seededRandom, standardNormal } from '../support/random.js';
import type { Point2 } from '../imaging/homography.js';
import type { Pixels } from '../imaging/picture.js';
import { markCorners } from './card.js';
import { cardToPicture, fitPose, pictureToCard, type CardPose } from './find-card.js';

/** So many times the corners are drawn anew, and the least that one is missed by along either side, px. */
const DRAWS = 20;
const LEAST_PX = 0.05;
/** Unknowns that the corners of the marks tell: eight of the homography, one of the lens. */
const UNKNOWNS = 9;
const SEED = 11;

/**
 * How far off places may be told that lie beside the card: its marks are found to a fraction of a pixel, and what that leaves grows with the
 * distance. Standard deviation of each, mm, by drawing the marks' corners anew about where they were found (parametric bootstrap; Efron 1979).
 */
export function poseSpread(
  pose: CardPose,
  pixels: Pick<Pixels, 'width' | 'height'>,
  places: readonly Point2[],
): number[] {
  const marks = pose.card.marks.filter(({ corner }) => !pose.missing.includes(corner)).flatMap(markCorners);
  const told = 2 * marks.length;
  const missPx =
    (pose.reprojectionErrorMm / pose.mmPerPx / Math.SQRT2) * Math.sqrt(told / Math.max(1, told - UNKNOWNS));
  const sd = Math.max(LEAST_PX, missPx);
  const random = seededRandom(SEED);
  const about = (px: Point2): Point2 => ({
    x: px.x + sd * standardNormal(random),
    y: px.y + sd * standardNormal(random),
  });
  const seen = places.map((place) => cardToPicture(pose, place));
  const off = places.map(() => 0);
  for (let draw = 0; draw < DRAWS; draw += 1) {
    const pairs = marks.map((place) => ({ place, px: about(cardToPicture(pose, place)) }));
    const other = { ...pose, ...fitPose(pairs, pixels) };
    seen.forEach((px, i) => {
      const { x, y } = pictureToCard(other, px);
      off[i]! += (x - places[i]!.x) ** 2 + (y - places[i]!.y) ** 2;
    });
  }
  return off.map((sum) => Math.sqrt(sum / DRAWS / 2));
}
