import type { PlanePoint } from '../place/fit-circle.js';
import type { Pixels } from '../imaging/picture.js';
import { CoreError } from '../support/core-error.js';
import type { CardPose } from '../target/find-card.js';
import { poseSpread } from '../target/pose-spread.js';
import { placesAlong, product, type Nine } from '../target/level-picture.js';
import { findPieces, type PieceSize } from './find-pieces.js';

/** How the card lies in the machine: turned by so much (degrees counter-clockwise), its lower left corner there, mm. */
export interface CardOnMachine {
  readonly turnDegrees: number;
  readonly zero: PlanePoint;
}

/** A piece on the bed: its lower left corner on the machine, mm, and how it is turned about that, degrees counter-clockwise. */
export interface BedPiece extends PlanePoint {
  readonly turnDeg: number;
}

/** The bed from straight above, its first row on top, at so many mm a pixel from its lower left corner on the machine. */
export interface BedPicture {
  readonly pixels: Pixels;
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly pieces: readonly BedPiece[];
  /** How far off the middle of each may be told by the card, mm: nine of ten lie nearer; the longest of them. */
  readonly spreadMm: number;
  readonly others: number;
}

/** Pixels the longer side is straightened to, and room about what lies there, mm. */
const LONGER_PX = 1500;
const ROOM_MM = 25;
/** Of a distance in the plane whose parts are normal, nine of ten are shorter than so many of their deviations. */
const NINE_OF_TEN = Math.sqrt(2 * Math.log(10));
/** Pieces are to be marked where they are found: looked for in finer steps than for reading, mm. */
const FINE_MM = 0.5;

/**
 * The bed in the machine's own mm, with the pieces of one size found on it; none where none stands out.
 * A picture shows what lies in the card's plane: thick pieces want their card raised to their top.
 */
export function bedPicture(pixels: Pixels, pose: CardPose, card: CardOnMachine, size: PieceSize): BedPicture {
  const found = foundOn(pixels, pose, size);
  const turn = (card.turnDegrees * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const onMachine = (x: number, y: number): PlanePoint => ({
    xMm: card.zero.xMm + c * x - s * y,
    yMm: card.zero.yMm + s * x + c * y,
  });
  const pieces = found.pieces.map(({ xMm, yMm, turnDeg }) =>
    cornerOf(onMachine(xMm, yMm), turnedLeast(turnDeg + card.turnDegrees), size),
  );
  const { widthMm, heightMm } = pose.card;
  const corners = [onMachine(0, 0), onMachine(widthMm, 0), onMachine(widthMm, heightMm), onMachine(0, heightMm)];
  const seen = [...corners, ...pieces.flatMap((piece) => bedCorners(piece, size))];
  const box = boxAbout(seen);
  const { x, y } = { x: card.zero.xMm, y: card.zero.yMm };
  const toCard: Nine = [c, s, -c * x - s * y, -s, c, s * x - c * y, 0, 0, 1];
  const middles = found.pieces.map(({ xMm, yMm }) => ({ x: xMm, y: yMm }));
  const spreadMm = NINE_OF_TEN * Math.max(0, ...poseSpread(pose, pixels, middles));
  return { ...box, spreadMm, pixels: straight(pixels, pose, toCard, box), pieces, others: found.others };
}

function foundOn(pixels: Pixels, pose: CardPose, size: PieceSize) {
  try {
    return findPieces(pixels, pose, size, FINE_MM);
  } catch (error) {
    if (error instanceof CoreError && error.code === 'reading.no-pieces') return { pieces: [], others: 0 };
    throw error;
  }
}

/** A turn of a piece that may as well lie half about: the lesser one. */
const turnedLeast = (degrees: number) => {
  const turn = ((degrees % 180) + 180) % 180;
  return turn > 90 ? turn - 180 : turn;
};

/** A piece by its middle and turn as it is told: by its lower left corner. */
function cornerOf({ xMm, yMm }: PlanePoint, turnDeg: number, { widthMm, heightMm }: PieceSize): BedPiece {
  const turn = (turnDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return {
    xMm: xMm - (c * widthMm) / 2 + (s * heightMm) / 2,
    yMm: yMm - (s * widthMm) / 2 - (c * heightMm) / 2,
    turnDeg,
  };
}

/** Corners of a piece on the machine, from its own lower left one counter-clockwise. */
export function bedCorners({ xMm, yMm, turnDeg }: BedPiece, { widthMm, heightMm }: PieceSize): PlanePoint[] {
  const turn = (turnDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return [
    [0, 0],
    [widthMm, 0],
    [widthMm, heightMm],
    [0, heightMm],
  ].map(([u, v]) => ({ xMm: xMm + c * u! - s * v!, yMm: yMm + s * u! + c * v! }));
}

function boxAbout(points: readonly PlanePoint[]) {
  const [xs, ys] = [points.map(({ xMm }) => xMm), points.map(({ yMm }) => yMm)];
  const [x0, y0] = [Math.min(...xs) - ROOM_MM, Math.min(...ys) - ROOM_MM];
  return { xMm: x0, yMm: y0, widthMm: Math.max(...xs) + ROOM_MM - x0, heightMm: Math.max(...ys) + ROOM_MM - y0 };
}

function straight(
  source: Pixels,
  pose: CardPose,
  toCard: Nine,
  box: { readonly xMm: number; readonly yMm: number; readonly widthMm: number; readonly heightMm: number },
): Pixels {
  const pxMm = Math.max(box.widthMm, box.heightMm) / LONGER_PX;
  const [width, height] = [Math.round(box.widthMm / pxMm), Math.round(box.heightMm / pxMm)];
  const data = new Uint8ClampedArray(4 * width * height);
  const along = placesAlong(source, pose, product(pose.homography, toCard));
  const places = new Float64Array(2 * width);
  for (let row = 0; row < height; row += 1) {
    along(places, box.xMm, box.yMm + (height - 1 - row + 0.5) * pxMm, pxMm);
    for (let column = 0; column < width; column += 1) {
      const from = 4 * (Math.round(places[2 * column + 1]!) * source.width + Math.round(places[2 * column]!));
      const to = 4 * (row * width + column);
      for (let k = 0; k < 4; k += 1) data[to + k] = source.data[from + k]!;
    }
  }
  return { width, height, data };
}
