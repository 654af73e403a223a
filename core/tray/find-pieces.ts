import { CoreError } from '../support/core-error.js';
import type { Pixels } from '../imaging/picture.js';
import { cardToPicture, type CardPose } from '../target/find-card.js';
import { tightestRectangle, type Rectangle } from './rectangle.js';
import { planePicture, type PlanePicture } from './plane-picture.js';
import { standsOut } from './stands-out.js';

/** A piece found on the tray: its middle on the card's plane, mm, how its width lies (degrees counter-clockwise), and whether it is round. */
export interface FoundPiece {
  readonly xMm: number;
  readonly yMm: number;
  readonly turnDeg: number;
  readonly round: boolean;
}

export interface PieceSize {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** What lies on the tray. */
export interface FoundOnTray {
  /** In the order they are read: row by row from the upper left of the picture. */
  readonly pieces: readonly FoundPiece[];
  /** Things of a piece's size and more that are none: pieces that touch, tools. */
  readonly others: number;
}

/** Steps a piece's shorter side is looked at in, and the finest and coarsest of them, mm. */
const STEPS = 16;
const FINEST_MM = 0.5;
const COARSEST_MM = 2;
/** A side may be off by such a share and so much, mm: the rim shines, and throws a shadow. */
const OFF = { share: 0.08, mm: 1.5 } as const;
/** Less of its rectangle than this is a round piece's. */
const ROUND = { least: 0.7, most: 0.88 } as const;
/** Of a piece's size: smaller things are not told. */
const THING = 0.3;

/**
 * Finds pieces of one size that lie apart on a plain tray in the plane of the card.
 * @param coarsestMm steps that it is looked at in: finer ones tell better where a piece lies, and take longer
 * @throws reading.no-pieces where none of that size stands out
 */
export function findPieces(pixels: Pixels, pose: CardPose, size: PieceSize, coarsestMm = COARSEST_MM): FoundOnTray {
  const short = Math.min(size.widthMm, size.heightMm);
  const stepMm = Math.min(coarsestMm, Math.max(FINEST_MM, short / STEPS));
  const plane = planePicture(pixels, pose, stepMm);
  const least = (THING * size.widthMm * size.heightMm) / stepMm ** 2;
  const things = standsOut(plane, pose.card, least).map((cells) => ({
    cells,
    rectangle: tightestRectangle(cornersOf(plane, cells)),
  }));
  const found = things.flatMap(({ cells, rectangle }) => {
    const piece = pieceIn(rectangle, cells.length * stepMm ** 2, size);
    return piece ? [piece] : [];
  });
  if (!found.length)
    throw new CoreError(
      'reading.no-pieces',
      `No piece of ${size.widthMm.toFixed(0)} × ${size.heightMm.toFixed(0)} mm stands out from the tray${things.length ? `; ${things.length} other things do` : ''}. Lay them apart on something plain, lighter or darker than they are, flat beside the card. The picture was kept.`,
    );
  return { pieces: inReadingOrder(found, pose, size), others: things.length - found.length };
}

/** Corners of every cell, mm on the card. */
function cornersOf({ xMm, yMm, stepMm, columns }: PlanePicture, cells: readonly number[]) {
  return cells.flatMap((i) => {
    const [x, y] = [xMm + (i % columns) * stepMm, yMm + Math.floor(i / columns) * stepMm];
    return [
      [x, y],
      [x + stepMm, y],
      [x, y + stepMm],
      [x + stepMm, y + stepMm],
    ] as (readonly [number, number])[];
  });
}

function pieceIn(rectangle: Rectangle, areaMm2: number, { widthMm, heightMm }: PieceSize): FoundPiece | null {
  const { x, y, turnDeg, along, across } = rectangle;
  const fits = (seen: number, wanted: number) => Math.abs(seen - wanted) <= OFF.share * wanted + OFF.mm;
  const full = areaMm2 / (along * across);
  const at = { xMm: x, yMm: y, round: full > ROUND.least && full < ROUND.most };
  if (full < ROUND.least) return null;
  const straight = Math.abs(along - widthMm) + Math.abs(across - heightMm);
  const turned = Math.abs(along - heightMm) + Math.abs(across - widthMm);
  if (straight <= turned) return fits(along, widthMm) && fits(across, heightMm) ? { ...at, turnDeg } : null;
  return fits(along, heightMm) && fits(across, widthMm) ? { ...at, turnDeg: turnDeg + 90 } : null;
}

/** Row by row as the picture shows them: those whose middles are less than half a piece apart in height are of one row. */
function inReadingOrder(pieces: readonly FoundPiece[], pose: CardPose, { widthMm, heightMm }: PieceSize): FoundPiece[] {
  const seen = pieces
    .map((piece) => ({ piece, at: cardToPicture(pose, { x: piece.xMm, y: piece.yMm }) }))
    .sort((a, b) => a.at.y - b.at.y);
  const near = (0.5 * Math.min(widthMm, heightMm)) / pose.mmPerPx;
  const rows: (typeof seen)[] = [];
  for (const one of seen) {
    const row = rows.at(-1);
    if (row && one.at.y - row.at(-1)!.at.y < near) row.push(one);
    else rows.push([one]);
  }
  return rows.flatMap((row) => row.sort((a, b) => a.at.x - b.at.x).map(({ piece }) => piece));
}
