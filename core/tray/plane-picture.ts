import { SRGB_TO_LINEAR } from '../imaging/colour.js';
import type { Pixels } from '../imaging/picture.js';
import { pictureToCard, type CardPose } from '../target/find-card.js';
import { placesAlong, type Nine } from '../target/level-picture.js';

/** What a picture shows of the card's plane, seen from above in coarse steps; row by row from its lower left corner. */
export interface PlanePicture {
  /** Lower left corner on the card, mm. */
  readonly xMm: number;
  readonly yMm: number;
  readonly stepMm: number;
  readonly columns: number;
  readonly rows: number;
  /** ln of linear light: red, green, blue in turn; NaN beside the picture. */
  readonly ln: Float32Array;
}

/** Further than this from the card nothing is looked for, mm: its marks do not tell how the plane lies there. */
const FURTHEST_MM = 600;
const DARKEST = 0.002;
/** Samples to either side of a step's middle, each way. */
const ABOUT = 1;

/** The plane of the card as far as a picture shows it, in steps of `stepMm`. */
export function planePicture(pixels: Pixels, pose: CardPose, stepMm: number): PlanePicture {
  const box = seenOfPlane(pixels, pose);
  const apartPx = Math.max(1, Math.round(stepMm / pose.mmPerPx / (2 * ABOUT + 1)));
  const columns = Math.max(1, Math.ceil((box.x1 - box.x0) / stepMm));
  const rows = Math.max(1, Math.ceil((box.y1 - box.y0) / stepMm));
  const ln = new Float32Array(3 * columns * rows).fill(NaN);
  const along = placesAlong(pixels, pose, pose.homography as Nine);
  const places = new Float64Array(2 * columns);
  for (let row = 0; row < rows; row += 1) {
    along(places, box.x0, box.y0 + (row + 0.5) * stepMm, stepMm);
    for (let column = 0; column < columns; column += 1)
      readStep(pixels, [places[2 * column]!, places[2 * column + 1]!], apartPx, ln, 3 * (row * columns + column));
  }
  return { xMm: box.x0, yMm: box.y0, stepMm, columns, rows, ln };
}

/** Mean light about a place of the picture; nothing where that is its rim. */
function readStep(
  { width, height, data }: Pixels,
  [x, y]: readonly [number, number],
  apartPx: number,
  out: Float32Array,
  at: number,
): void {
  const [px, py] = [Math.round(x), Math.round(y)];
  const reach = ABOUT * apartPx;
  if (px <= reach || py <= reach || px >= width - reach - 1 || py >= height - reach - 1) return;
  let [r, g, b] = [0, 0, 0];
  for (let dy = -reach; dy <= reach; dy += apartPx)
    for (let dx = -reach; dx <= reach; dx += apartPx) {
      const k = 4 * ((py + dy) * width + px + dx);
      r += SRGB_TO_LINEAR[data[k]!]!;
      g += SRGB_TO_LINEAR[data[k + 1]!]!;
      b += SRGB_TO_LINEAR[data[k + 2]!]!;
    }
  const samples = (2 * ABOUT + 1) ** 2;
  out[at] = Math.log(Math.max(DARKEST, r / samples));
  out[at + 1] = Math.log(Math.max(DARKEST, g / samples));
  out[at + 2] = Math.log(Math.max(DARKEST, b / samples));
}

/** Box of what the picture shows of the plane, mm on the card. */
function seenOfPlane({ width, height }: Pixels, pose: CardPose) {
  const rim = [0, 0.25, 0.5, 0.75, 1].flatMap((t) => [
    { x: t * (width - 1), y: 0 },
    { x: t * (width - 1), y: height - 1 },
    { x: 0, y: t * (height - 1) },
    { x: width - 1, y: t * (height - 1) },
  ]);
  const seen = rim.map((at) => pictureToCard(pose, at));
  const { widthMm, heightMm } = pose.card;
  const within = (value: number, size: number) => Math.min(size + FURTHEST_MM, Math.max(-FURTHEST_MM, value));
  const [xs, ys] = [seen.map(({ x }) => within(x, widthMm)), seen.map(({ y }) => within(y, heightMm))];
  return { x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) };
}
