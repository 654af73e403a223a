import { ciede2000 } from '../imaging/ciede2000.js';
import { linearToLab, type Lab } from '../imaging/colour.js';
import type { Point2 } from '../imaging/homography.js';
import { median } from '../statistics/index.js';
import { CoreError } from '../support/core-error.js';
import { pictureToCard } from '../target/find-card.js';
import { levelPicture, ON_CARD, type LevelPicture, type ReadablePicture } from '../target/level-picture.js';
import { highPass, pixelsIn, type Box } from './boxes.js';
import { edgeAcross, luminanceIn } from './edge-across.js';
import { chromaOf, COLOURED, evennessOf, lightnessOf, meanColour, SOLID } from './patch.js';

/** A mark on any piece, read from a picture with the card in it. Lightness, contrast and grain in L*, colours in CIELAB (D65). */
export interface PieceReading {
  readonly mark: Lab;
  readonly bare: Lab;
  /** Positive where the mark is darker than bare ground. */
  readonly contrast: number;
  /** ΔE₀₀ between mark and bare ground. */
  readonly deltaE: number;
  /** Null where a coloured ground shows through a mark that is not solid. */
  readonly chroma: number | null;
  readonly grain: number;
  /** 10–90 % width of the edge between the two spots, the camera's blur taken off, µm; null where none could be told. */
  readonly edgeUm: number | null;
}

/** Where a piece is read. */
export interface PieceSpots {
  /** A spot that is all mark and one of bare ground beside it, px of the picture. */
  readonly mark: Point2;
  readonly bare: Point2;
  /** Side of the square that is read at each, mm. */
  readonly sizeMm: number;
}

/** Finest pixel a piece is straightened at, mm, and room about the spots. */
const FINEST_MM = 0.05;
const ROOM_MM = 1.5;
const LEAST_PIXELS = 25;
const BURNT_SHARE = 0.02;
/** Less contrast than this tells no mark, L*. */
const LEAST_CONTRAST = 3;
/** Further apart than this two spots do not share their light, mm. */
const FURTHEST_MM = 60;

/**
 * Reads a mark on any piece that lies on the card or beside it in its plane: colour, contrast, tint and grain of a spot of it against bare
 * ground, and the edge between.
 * @throws reading.points for spots that are too near or too far from one another; reading.outside for too small a spot;
 * reading.glare where either is burnt out; reading.no-contrast where the two look alike
 */
export function readPiece(picture: ReadablePicture, { mark, bare, sizeMm }: PieceSpots): PieceReading {
  const { pose } = picture;
  const [on, off] = [pictureToCard(pose, mark), pictureToCard(pose, bare)];
  const apart = Math.hypot(on.x - off.x, on.y - off.y);
  if (!(apart > sizeMm && apart < FURTHEST_MM))
    throw new CoreError(
      'reading.points',
      `The two spots lie ${apart.toFixed(1)} mm apart: put one on the mark and one on bare ground near it, not over one another.`,
    );
  const room = ROOM_MM + sizeMm;
  const [left, low] = [Math.min(on.x, off.x) - room, Math.min(on.y, off.y) - room];
  const pxMm = Math.max(FINEST_MM, pose.mmPerPx);
  const level = levelPicture(picture, ON_CARD, {
    ...{ xMm: left, yMm: low, pxMm },
    widthMm: Math.abs(on.x - off.x) + 2 * room,
    heightMm: Math.abs(on.y - off.y) + 2 * room,
  });
  const here = ({ x, y }: Point2) => ({ x: x - left, y: y - low });
  const blurMm = pose.blurMm ? Math.max(pose.blurMm.x, pose.blurMm.y) : 2 * pxMm;
  return readSpots(level, { on: here(on), off: here(off), sizeMm, blurMm });
}

interface Spots {
  readonly on: Point2;
  readonly off: Point2;
  readonly sizeMm: number;
  readonly blurMm: number;
}

function readSpots(level: LevelPicture, { on, off, sizeMm, blurMm }: Spots): PieceReading {
  const [marked, ground] = [boxAbout(on, sizeMm), boxAbout(off, sizeMm)];
  const [pixels, around] = [readable(level, marked, 'mark'), readable(level, ground, 'bare ground')];
  const [mark, bare] = [colourOf(level, pixels), colourOf(level, around)];
  const contrast = bare.l - mark.l;
  const deltaE = ciede2000(mark, bare);
  if (deltaE < LEAST_CONTRAST)
    throw new CoreError('reading.no-contrast', 'The two spots look alike: put one on the mark and one on bare ground.');
  const values = lightnessOf(level, pixels);
  const sorted = Float32Array.from(values).sort();
  const grain = Math.sqrt(Math.max(0, highPass(level, marked) ** 2 - highPass(level, ground) ** 2));
  const solid = evennessOf(level, pixels, median(values, 0), contrast || 1) > SOLID.evenness && grain < SOLID.grain;
  const own = Math.hypot(bare.a, bare.b) < COLOURED || solid;
  return {
    ...{ mark, bare, contrast, deltaE, grain },
    chroma: own ? chromaOf(level, pixels, sorted, contrast > 0) : null,
    edgeUm: edgeBetween(level, on, off, blurMm),
  };
}

const boxAbout = ({ x, y }: Point2, sizeMm: number): Box => ({
  ...{ x0: x - sizeMm / 2, x1: x + sizeMm / 2 },
  ...{ y0: y - sizeMm / 2, y1: y + sizeMm / 2 },
});

function readable(level: LevelPicture, box: Box, what: string): Int32Array {
  const pixels = pixelsIn(level, box);
  if (pixels.length < LEAST_PIXELS)
    throw new CoreError(
      'reading.outside',
      `The spot on the ${what} is too small for this picture: take a larger one, or come nearer with the camera.`,
    );
  let burnt = 0;
  for (const i of pixels) burnt += level.burnt[i]!;
  if (burnt > BURNT_SHARE * pixels.length)
    throw new CoreError('reading.glare', `The spot on the ${what} is burnt out by glare. Turn the piece or the lamp.`);
  return pixels;
}

function colourOf(level: LevelPicture, pixels: Int32Array): Lab {
  const [r, g, b] = meanColour(level, pixels);
  return linearToLab(r, g, b);
}

/** Steps along the line between the spots, and along the edge, mm. */
const STEP_MM = 0.05;
const STRETCH_MM = 0.6;
const REACH_MM = 0.5;

/** Width of the edge where the line between two spots crosses it, across the edge and not along that line, µm. */
function edgeBetween(level: LevelPicture, on: Point2, off: Point2, blurMm: number): number | null {
  const length = Math.hypot(off.x - on.x, off.y - on.y);
  const steps = Math.ceil(length / STEP_MM);
  const at = (i: number) => ({
    x: on.x + ((off.x - on.x) * i) / steps,
    y: on.y + ((off.y - on.y) * i) / steps,
  });
  const light = (place: Point2) => luminanceIn(level, place.x, place.y);
  const half = (light(on) + light(off)) / 2;
  const beyond = (i: number) => light(at(i)) > half;
  const first = beyond(0);
  let crossing = 0;
  // From bare ground inwards: holes in the mark are none of its edge.
  for (let i = steps; i > 0 && !crossing; i -= 1) if (beyond(i) !== first && beyond(i - 1) === first) crossing = i;
  if (!crossing) return null;
  const { x, y } = at(crossing);
  const slope = {
    x: light({ x: x + 0.2, y }) - light({ x: x - 0.2, y }),
    y: light({ x, y: y + 0.2 }) - light({ x, y: y - 0.2 }),
  };
  const steep = Math.hypot(slope.x, slope.y);
  if (steep < 1e-6) return null;
  const [nx, ny] = [slope.x / steep, slope.y / steep];
  const [dx, dy] = [-ny * STRETCH_MM, nx * STRETCH_MM];
  const width = edgeAcross(level, { x: x - dx / 2, y: y - dy / 2, dx, dy, nx, ny }, REACH_MM, blurMm);
  return width === null ? null : 1000 * width;
}
