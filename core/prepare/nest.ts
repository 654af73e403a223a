import { CoreError } from '../support/core-error.js';
import { seededRandom, type Random } from '../support/random.js';
import { requireNotNegative, requirePositive } from '../support/require.js';
import { overlap, type SheetBox } from './sheet-layout.js';

/** Pieces of one size to be laid on a sheet. */
export interface NestKind {
  readonly label: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly count: number;
  /** Kept for the coupon, not for the customer. */
  readonly test: boolean;
}

/** A measured sheet and what is to be laid on it. */
export interface NestJob {
  readonly sheet: { readonly widthMm: number; readonly heightMm: number };
  /** Between pieces, and round what must stay free: the kerf. */
  readonly gapMm: number;
  readonly marginMm: number;
  readonly keepOuts: readonly SheetBox[];
  readonly kinds: readonly NestKind[];
  readonly seed: number;
}

export interface NestPlace extends SheetBox {
  /** Index into the kinds. */
  readonly kind: number;
  readonly turned: boolean;
}

export interface NestLayout {
  readonly places: readonly NestPlace[];
  /** Pieces of each kind that found no place. */
  readonly leftOut: readonly number[];
  /** Share of the sheet that becomes pieces. */
  readonly used: number;
  /** Area laid out over the most that any layout could: all pieces, or all that is free, whichever is less. 0 to 1. */
  readonly ofBound: number;
}

/** How far a nesting has come. */
export interface NestProgress {
  readonly round: number;
  readonly rounds: number;
  readonly best: NestLayout;
}

const MOST_PIECES = 2000;
/** Orders tried: five by size, the rest shuffled a little from the best of them. */
export const NEST_ROUNDS = 8;
const SLACK = 1e-9;

/**
 * Lays rectangles of mixed sizes on a measured sheet: the largest free rectangles are kept, each piece goes where its shorter side
 * leaves least, turned where that fits better; several orders are tried and the one that lays most area is kept.
 * Source: Jylänki, “A Thousand Ways to Pack the Bin”, 2010 (maximal rectangles, best short side fit; from memory).
 * @param tell called after every order with the best so far; false ends it there
 * @throws place.sheet-too-small when not one piece fits; value.out-of-range above 2000 pieces; value.not-positive, value.negative
 */
export function nestSheet(
  job: NestJob,
  tell: (progress: NestProgress) => boolean | void = () => undefined,
): NestLayout {
  const pieces = checkedPieces(job);
  const random = seededRandom(job.seed);
  let best: NestLayout | null = null;
  let order = pieces;
  for (let round = 0; round < NEST_ROUNDS; round += 1) {
    const tried = round < ORDERS.length ? sorted(pieces, ORDERS[round]!) : shuffled(order, random);
    const layout = layOut(job, tried);
    if (!best || layout.ofBound > best.ofBound + SLACK) [best, order] = [layout, tried];
    const all = best.leftOut.every((count) => count === 0);
    if (tell({ round: round + 1, rounds: NEST_ROUNDS, best }) === false || all) break;
  }
  if (best!.places.length === 0)
    throw new CoreError('place.sheet-too-small', 'Not one of these pieces fits on the sheet with its margin.', {
      path: 'sheet',
    });
  return best!;
}

interface Piece {
  readonly kind: number;
  readonly w: number;
  readonly h: number;
}

const ORDERS: readonly ((piece: Piece) => number)[] = [
  ({ w, h }) => w * h,
  ({ w, h }) => Math.max(w, h),
  ({ w, h }) => Math.min(w, h),
  ({ w, h }) => w + h,
  ({ w, h }) => Math.abs(w - h),
];

function checkedPieces(job: NestJob): Piece[] {
  requirePositive('sheet width', job.sheet.widthMm);
  requirePositive('sheet height', job.sheet.heightMm);
  requireNotNegative('gap', job.gapMm);
  requireNotNegative('margin', job.marginMm);
  const pieces = job.kinds.flatMap(({ widthMm, heightMm, count }, kind) => {
    requirePositive('piece width', widthMm);
    requirePositive('piece height', heightMm);
    requireNotNegative('count', count);
    if (count > MOST_PIECES) throw tooMany(count);
    return Array.from({ length: count }, (): Piece => ({ kind, w: widthMm, h: heightMm }));
  });
  if (pieces.length > MOST_PIECES) throw tooMany(pieces.length);
  if (pieces.length === 0)
    throw new CoreError('value.not-positive', 'Say how many of at least one size.', { path: 'pieces' });
  return pieces;
}

function tooMany(count: number): CoreError {
  return new CoreError(
    'value.out-of-range',
    `${count} pieces are more than the ${MOST_PIECES} laid out at once. Lay them out sheet by sheet.`,
    {
      path: 'pieces',
    },
  );
}

function sorted(pieces: readonly Piece[], by: (piece: Piece) => number): Piece[] {
  return [...pieces].sort((a, b) => by(b) - by(a) || a.kind - b.kind);
}

/** Swaps of near neighbours: a tenth of the pieces move a little. */
function shuffled(pieces: readonly Piece[], random: Random): Piece[] {
  const order = [...pieces];
  for (let k = 0; k < Math.max(1, order.length / 10); k += 1) {
    const i = Math.floor(random() * order.length);
    const j = Math.min(order.length - 1, i + 1 + Math.floor(random() * 12));
    [order[i], order[j]] = [order[j]!, order[i]!];
  }
  return order;
}

/** A free rectangle: x, y, width, height; mm. */
interface Free {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** Every piece is laid with its gap at its right and upper side, on a sheet that is one gap larger; so gaps never count twice. */
function layOut(job: NestJob, pieces: readonly Piece[]): NestLayout {
  const { sheet, gapMm, marginMm, kinds } = job;
  let free: Free[] = [
    { x: marginMm, y: marginMm, w: sheet.widthMm - 2 * marginMm + gapMm, h: sheet.heightMm - 2 * marginMm + gapMm },
  ].filter(({ w, h }) => w > SLACK && h > SLACK);
  for (const box of job.keepOuts)
    free = without(free, {
      x: box.xMm - gapMm,
      y: box.yMm - gapMm,
      w: box.widthMm + 2 * gapMm,
      h: box.heightMm + 2 * gapMm,
    });
  const freeArea = Math.max(0, areaOfFree(job));
  const places: NestPlace[] = [];
  const leftOut = kinds.map(() => 0);
  // Pieces of a size that found no place need not be tried again.
  const hopeless = new Set<number>();
  for (const piece of pieces) {
    const at = hopeless.has(piece.kind) ? null : bestFit(free, piece.w + gapMm, piece.h + gapMm);
    if (!at) {
      hopeless.add(piece.kind);
      leftOut[piece.kind]! += 1;
      continue;
    }
    const [w, h] = at.turned ? [piece.h, piece.w] : [piece.w, piece.h];
    places.push({ xMm: at.x, yMm: at.y, widthMm: w, heightMm: h, kind: piece.kind, turned: at.turned });
    free = without(free, { x: at.x, y: at.y, w: w + gapMm, h: h + gapMm });
  }
  const laid = places.reduce((sum, { widthMm, heightMm }) => sum + widthMm * heightMm, 0);
  const asked = pieces.reduce((sum, { w, h }) => sum + w * h, 0);
  const bound = Math.min(asked, freeArea);
  return {
    places,
    leftOut,
    used: laid / (sheet.widthMm * sheet.heightMm),
    ofBound: bound > 0 ? Math.min(1, laid / bound) : 0,
  };
}

/** Area inside the margin less what keep-outs surely take (overlapping ones counted once, by the largest of them). */
function areaOfFree({ sheet, marginMm, keepOuts }: NestJob): number {
  const inside: SheetBox = {
    xMm: marginMm,
    yMm: marginMm,
    widthMm: sheet.widthMm - 2 * marginMm,
    heightMm: sheet.heightMm - 2 * marginMm,
  };
  const taken = keepOuts
    .filter((box, i) => overlap(box, inside) && !keepOuts.some((other, j) => j < i && overlap(box, other)))
    .reduce((sum, box) => sum + clippedArea(box, inside), 0);
  return Math.max(0, inside.widthMm) * Math.max(0, inside.heightMm) - taken;
}

function clippedArea(a: SheetBox, b: SheetBox): number {
  const w = Math.min(a.xMm + a.widthMm, b.xMm + b.widthMm) - Math.max(a.xMm, b.xMm);
  const h = Math.min(a.yMm + a.heightMm, b.yMm + b.heightMm) - Math.max(a.yMm, b.yMm);
  return Math.max(0, w) * Math.max(0, h);
}

function bestFit(free: readonly Free[], w: number, h: number): { x: number; y: number; turned: boolean } | null {
  let best: { x: number; y: number; turned: boolean } | null = null;
  let [short, long] = [Infinity, Infinity];
  const look = (room: Free, pw: number, ph: number, turned: boolean) => {
    const [dx, dy] = [room.w - pw, room.h - ph];
    if (dx < -SLACK || dy < -SLACK) return;
    const [s, l] = dx < dy ? [dx, dy] : [dy, dx];
    if (s < short - SLACK || (s < short + SLACK && l < long - SLACK)) {
      [short, long] = [s, l];
      best = { x: room.x, y: room.y, turned };
    }
  };
  for (const room of free) {
    look(room, w, h, false);
    if (w !== h) look(room, h, w, true);
  }
  return best;
}

/** The largest rectangles that are still free once a box is taken. */
function without(free: readonly Free[], box: Free): Free[] {
  const kept: Free[] = [];
  const cut: Free[] = [];
  for (const room of free) {
    const [right, top] = [room.x + room.w, room.y + room.h];
    const [boxRight, boxTop] = [box.x + box.w, box.y + box.h];
    if (box.x >= right - SLACK || boxRight <= room.x + SLACK || box.y >= top - SLACK || boxTop <= room.y + SLACK) {
      kept.push(room);
      continue;
    }
    if (box.x > room.x + SLACK) cut.push({ ...room, w: box.x - room.x });
    if (boxRight < right - SLACK) cut.push({ ...room, x: boxRight, w: right - boxRight });
    if (box.y > room.y + SLACK) cut.push({ ...room, h: box.y - room.y });
    if (boxTop < top - SLACK) cut.push({ ...room, y: boxTop, h: top - boxTop });
  }
  // What was not cut holds none of the others: only the new pieces can lie inside another one.
  const fresh = cut.filter(
    (room, i) =>
      !kept.some((other) => holds(other, room)) &&
      !cut.some((other, j) => j !== i && holds(other, room) && (j < i || !holds(room, other))),
  );
  return [...kept, ...fresh];
}

function holds(outer: Free, inner: Free): boolean {
  return (
    inner.x >= outer.x - SLACK &&
    inner.y >= outer.y - SLACK &&
    inner.x + inner.w <= outer.x + outer.w + SLACK &&
    inner.y + inner.h <= outer.y + outer.h + SLACK
  );
}
