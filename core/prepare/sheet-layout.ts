import { CoreError } from '../support/core-error.js';
import { requireNotNegative, requirePositive } from '../support/require.js';

/** A rectangle on the sheet from its lower left corner, mm. */
export interface SheetBox {
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** A sheet as measured, and what is to be cut from it or laid on it. */
export interface SheetJob {
  readonly sheet: { readonly widthMm: number; readonly heightMm: number };
  readonly piece: { readonly widthMm: number; readonly heightMm: number };
  /** Between pieces: the kerf, or the bridge of a jig. */
  readonly gapMm: number;
  readonly marginMm: number;
  /** Places nothing may lie on: holes, clamps, scratches. */
  readonly keepOuts: readonly SheetBox[];
}

export interface SheetLayout {
  readonly places: readonly SheetBox[];
  readonly columns: number;
  readonly rows: number;
  /** Pieces lie turned by a quarter. */
  readonly turned: boolean;
  /** Places that keep-outs took. */
  readonly lost: number;
  /** Share of the sheet that becomes pieces. */
  readonly used: number;
}

const SLACK = 1e-9;
/** More places than anyone lays out on one sheet. */
const MOST_PLACES = 5000;

/**
 * How many pieces a measured sheet really gives: rows and columns with gap and margin, upright or turned, whichever gives more,
 * without those that meet a keep-out. Pieces never overlap nor leave the sheet.
 * @throws place.sheet-too-small when not one piece fits; value.out-of-range above 5000 pieces; value.not-positive, value.negative
 * @example a 300 × 200 mm sheet, 38 × 22 mm pieces, 1 mm kerf, 5 mm margin: 7 × 8 = 56 upright
 */
export function layoutSheet(job: SheetJob): SheetLayout {
  requirePositive('sheet width', job.sheet.widthMm);
  requirePositive('sheet height', job.sheet.heightMm);
  requirePositive('piece width', job.piece.widthMm);
  requirePositive('piece height', job.piece.heightMm);
  requireNotNegative('gap', job.gapMm);
  requireNotNegative('margin', job.marginMm);
  const upright = grid(job, false);
  const turned = grid(job, true);
  const best = turned.places.length > upright.places.length ? turned : upright;
  if (best.columns * best.rows === 0)
    throw new CoreError(
      'place.sheet-too-small',
      `Not one piece of ${job.piece.widthMm} × ${job.piece.heightMm} mm fits on ${job.sheet.widthMm} × ${job.sheet.heightMm} mm with ${job.marginMm} mm of margin.`,
      { path: 'sheet' },
    );
  return best;
}

function grid(job: SheetJob, turned: boolean): SheetLayout {
  const { sheet, gapMm, marginMm } = job;
  const [w, h] = turned ? [job.piece.heightMm, job.piece.widthMm] : [job.piece.widthMm, job.piece.heightMm];
  const fit = (room: number, size: number) =>
    Math.max(0, Math.floor((room - 2 * marginMm + gapMm) / (size + gapMm) + SLACK));
  const [columns, rows] = [fit(sheet.widthMm, w), fit(sheet.heightMm, h)];
  if (columns * rows > MOST_PLACES)
    throw new CoreError(
      'value.out-of-range',
      `That would be ${columns * rows} pieces; at most ${MOST_PLACES} are laid out. Are the sizes in mm?`,
      { path: 'piece' },
    );
  const all = Array.from({ length: columns * rows }, (_, k): SheetBox => ({
    xMm: marginMm + (k % columns) * (w + gapMm),
    yMm: marginMm + Math.floor(k / columns) * (h + gapMm),
    widthMm: w,
    heightMm: h,
  }));
  const places = all.filter((place) => !job.keepOuts.some((box) => overlap(place, box)));
  return {
    places,
    columns,
    rows,
    turned,
    lost: all.length - places.length,
    used: (places.length * w * h) / (sheet.widthMm * sheet.heightMm),
  };
}

/** Whether two boxes share more than an edge. */
export function overlap(a: SheetBox, b: SheetBox): boolean {
  return (
    a.xMm < b.xMm + b.widthMm - SLACK &&
    b.xMm < a.xMm + a.widthMm - SLACK &&
    a.yMm < b.yMm + b.heightMm - SLACK &&
    b.yMm < a.yMm + a.heightMm - SLACK
  );
}
