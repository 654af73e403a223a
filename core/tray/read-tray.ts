import type { ArtworkShape } from '../artwork/shapes.js';
import { linearToLab, type Lab } from '../imaging/colour.js';
import { project, type Homography, type Point2 } from '../imaging/homography.js';
import { CoreError } from '../support/core-error.js';
import { median } from '../statistics/index.js';
import { cardToPicture, type CardPose } from '../target/find-card.js';
import { levelPicture, type LevelPicture, type ReadablePicture } from '../target/level-picture.js';
import { alignMark, type MarkOffset, type SoughtMark } from './align-mark.js';
import { blurredMask, markMask } from './expected-mark.js';
import { lightNear } from './light-near.js';
import { findPieces, type FoundPiece, type PieceSize } from './find-pieces.js';
import { bareLight, HALO_SD_MM, overlay, readMark, type MarkReading, type PiecePixels } from './read-marked-piece.js';

/** What pieces of a tray are to look like. */
export interface TrayJob extends PieceSize {
  /** What is marked on each, in the order they lie on the tray: row by row from the upper left of the picture. */
  readonly marks: readonly (readonly ArtworkShape[])[];
  /** How wide a followed stroke comes out, mm. */
  readonly lineMm: number;
  readonly tone: 'dark on light' | 'light on dark';
}

/** Why a piece of a tray is not read. */
export const TRAY_UNREADABLE = ['glare', 'no bare ground'] as const;
export type TrayUnreadable = (typeof TRAY_UNREADABLE)[number];

/** A piece of a tray. */
export interface TrayPiece {
  /** Its corners in the picture, px, from its own lower left one counter-clockwise. */
  readonly corners: readonly Point2[];
  readonly unreadable: TrayUnreadable | null;
  /** Null where it is not read, or no mark is there to be aligned. */
  readonly offset: MarkOffset | null;
  readonly reading: MarkReading | null;
}

export interface TrayReading {
  readonly pieces: readonly TrayPiece[];
  /** Things that lie there and are no piece: two that touch, a tool. */
  readonly others: number;
  readonly bare: Lab;
  readonly mmPerPx: number;
  readonly blurUm: number | null;
}

/** Pixels that pieces are straightened at are no finer than this, mm, nor than so many of the picture's. */
const FINEST_MM = 0.15;
const COARSER = 2.5;
/** 10–90 % width of a Gaussian edge over its standard deviation. */
const WIDTH_OF_SD = 2.563;
/** A mark is found where it fits what is to be there by more than this. */
const LEAST_FIT = 0.25;
const BURNT_SHARE = 0.03;
const BRIGHT_SHARE = 0.05;
const LEAST_BARE_PX = 12;

/**
 * Reads the marks of all pieces on a tray in one picture with the card: finds them, straightens each, aligns what was to be marked with what
 * is seen, and measures that. Their light is levelled by their own bare ground, taken to be of one kind; what it throws back is judged by
 * those nearest the card.
 * @throws reading.no-pieces; reading.piece-count where other than as many as there are marks lie there
 */
export function readTray(picture: ReadablePicture, job: TrayJob): TrayReading {
  const { pose } = picture;
  const found = findPieces(picture.pixels, pose, job);
  if (found.pieces.length !== job.marks.length)
    throw new CoreError(
      'reading.piece-count',
      `${found.pieces.length} ${found.pieces.length === 1 ? 'piece lies' : 'pieces lie'} there, ${job.marks.length} were looked for${found.others ? `; ${found.others} other things lie there, perhaps pieces that touch` : ''}. Lay them apart, or say which they are. The picture was kept.`,
    );
  const pxMm = Math.max(FINEST_MM, COARSER * pose.mmPerPx);
  const camera = pose.blurMm ? Math.max(pose.blurMm.x, pose.blurMm.y) / WIDTH_OF_SD : 0.6 * pxMm;
  // A pixel of the mask is a share of its whole square, and is read between its neighbours: that blurs it already.
  const cameraSd = Math.sqrt(Math.max(0, camera ** 2 - pxMm ** 2 / 4));
  const masks = maskRoom(job, pxMm, cameraSd);
  const laid = found.pieces.map((piece, i) => layPiece(picture, { piece, job, pxMm, covers: masks(job.marks[i]!) }));
  const bare = groundOf(laid, pose);
  return {
    pieces: laid.map((one) => readPieceOf(one, bare, pose)),
    others: found.others,
    bare: linearToLab(...bare),
    mmPerPx: pose.mmPerPx,
    blurUm: pose.blurMm && 1000 * Math.max(pose.blurMm.x, pose.blurMm.y),
  };
}

/** Masks of marks; pieces alike share one. */
function maskRoom(job: TrayJob, pxMm: number, cameraSd: number): (shapes: readonly ArtworkShape[]) => SoughtMark {
  const known = new Map<readonly ArtworkShape[], SoughtMark>();
  return (shapes) => {
    let covers = known.get(shapes);
    if (!covers) {
      const mask = markMask(shapes, { ...job, pxMm });
      covers = {
        ...{ mask, sharp: blurredMask(mask, cameraSd) },
        strokes: mask.strokes && blurredMask({ ...mask, cover: mask.strokes }, cameraSd),
        soft: blurredMask(mask, HALO_SD_MM),
      };
      known.set(shapes, covers);
    }
    return covers;
  };
}

interface LaidPiece {
  readonly piece: FoundPiece;
  /** Its corners on the card, mm, from its own lower left one. */
  readonly corners: readonly Point2[];
  readonly level: LevelPicture;
  readonly offset: MarkOffset;
  readonly pixels: PiecePixels;
}

interface Laying {
  readonly piece: FoundPiece;
  readonly job: TrayJob;
  readonly pxMm: number;
  readonly covers: SoughtMark;
}

/** Straightens a piece whichever way up it lies: the way in which its mark fits best. */
function layPiece(picture: ReadablePicture, { piece, job, pxMm, covers }: Laying): LaidPiece {
  const { widthMm, heightMm } = job;
  const box = { xMm: 0, yMm: 0, widthMm, heightMm, pxMm };
  const level = levelPicture(lightNear(picture, piece), pieceToCard(piece, 0, job), box);
  const found = alignMark(level, covers, waysUp(piece, job), job.tone === 'dark on light' ? 1 : -1);
  const way = (found.wayDeg * Math.PI) / 180;
  const isThere = found.fit >= LEAST_FIT;
  const [dx, dy, turn] = isThere ? [found.dxMm, found.dyMm, (found.turnDeg * Math.PI) / 180] : [0, 0, 0];
  const [c, s] = [Math.cos(way), Math.sin(way)];
  const toCard = pieceToCard(piece, found.wayDeg, job);
  return {
    ...{ piece, level, corners: CORNERS.map(([x, y]) => project(toCard, { x: x * widthMm, y: y * heightMm })) },
    pixels: overlay(level, covers, { dx, dy, turn: way + turn }),
    offset: { dxMm: c * dx + s * dy, dyMm: c * dy - s * dx, turnDeg: (180 * turn) / Math.PI, fit: found.fit },
  };
}

const CORNERS = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
] as const;

/** Turns that a piece may lie in: half about, a quarter where it is as wide as it is high, any where it is round. */
function waysUp({ round }: FoundPiece, { widthMm, heightMm }: PieceSize): number[] {
  const square = Math.abs(widthMm - heightMm) < 0.12 * Math.max(widthMm, heightMm);
  const step = square ? (round ? 10 : 90) : 180;
  return Array.from({ length: 360 / step }, (_, i) => i * step);
}

/** A piece's own mm (from its lower left corner) to the card's, turned by so much more than it was found. */
function pieceToCard({ xMm, yMm, turnDeg }: FoundPiece, byDeg: number, { widthMm, heightMm }: PieceSize): Homography {
  const turn = ((turnDeg + byDeg) * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [mx, my] = [widthMm / 2, heightMm / 2];
  return [c, -s, xMm - c * mx + s * my, s, c, yMm - s * mx - c * my, 0, 0, 1];
}

/** How far beyond the nearest a piece may lie from the card and still tell what bare ground throws back. */
const NEAR = 1.5;

/** Share of light that bare ground throws back: of the pieces that lie nearest to the card. */
type Ground = readonly [number, number, number];

function groundOf(laid: readonly LaidPiece[], { card }: CardPose): Ground {
  const told = laid.flatMap(({ piece, level, pixels }) => {
    const rgb = bareLight(level, pixels);
    if (!rgb) return [];
    const away = Math.hypot(
      Math.max(0, -piece.xMm, piece.xMm - card.widthMm),
      Math.max(0, -piece.yMm, piece.yMm - card.heightMm),
    );
    return [{ away, rgb }];
  });
  if (!told.length)
    throw new CoreError(
      'reading.no-pieces',
      'No bare ground shows on any piece beside its mark: a mark is read against it. The picture was kept.',
    );
  const nearest = Math.min(...told.map(({ away }) => away));
  const near = told.filter(({ away }) => away <= NEAR * nearest + 10);
  return [0, 1, 2].map((c) => median(near.map(({ rgb }) => rgb[c]!))) as unknown as Ground;
}

function readPieceOf({ level, pixels, offset, corners }: LaidPiece, ground: Ground, pose: CardPose): TrayPiece {
  const seen = { corners: corners.map((corner) => cardToPicture(pose, corner)) };
  const unreadable = whyNot(level, pixels);
  if (unreadable) return { ...seen, unreadable, offset: null, reading: null };
  const reading = readMark(level, pixels, ground);
  if (reading.glare > BRIGHT_SHARE) return { ...seen, unreadable: 'glare', offset: null, reading: null };
  return { ...seen, unreadable, offset: offset.fit >= LEAST_FIT ? offset : null, reading };
}

function whyNot(level: LevelPicture, { inside, cover, bare }: PiecePixels): TrayUnreadable | null {
  let [marked, burnt] = [0, 0];
  for (let k = 0; k < inside.length; k += 1) {
    if (cover[k]! < 0.3) continue;
    marked += 1;
    burnt += level.burnt[inside[k]!]!;
  }
  if (burnt > BURNT_SHARE * marked) return 'glare';
  return bare.length < LEAST_BARE_PX ? 'no bare ground' : null;
}
