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
  /** A jig’s own raster instead of the closest one; the pieces stay upright. */
  readonly jig?: JigRaster | undefined;
  /** Places kept for test pieces: the last ones. */
  readonly testPlaces?: number | undefined;
}

/** The raster of a jig, mm: where its first place lies, how far apart the next ones, and what every second row is shifted by. */
export interface JigRaster {
  readonly firstXMm: number;
  readonly firstYMm: number;
  readonly pitchXMm: number;
  readonly pitchYMm: number;
  readonly shiftMm: number;
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
  /** How many of the places, the last ones, are for test pieces. */
  readonly test: number;
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
  if (job.jig) return jigLayout(job, job.jig);
  const upright = grid(job, false);
  const turned = grid(job, true);
  const best = turned.places.length > upright.places.length ? turned : upright;
  if (best.columns * best.rows === 0) throw tooSmall(job);
  return best;
}

function tooSmall(job: SheetJob): CoreError {
  return new CoreError(
    'place.sheet-too-small',
    `Not one piece of ${job.piece.widthMm} × ${job.piece.heightMm} mm fits on ${job.sheet.widthMm} × ${job.sheet.heightMm} mm with ${job.marginMm} mm of margin.`,
    { path: 'sheet' },
  );
}

function grid(job: SheetJob, turned: boolean): SheetLayout {
  const { sheet, gapMm, marginMm } = job;
  const [w, h] = turned ? [job.piece.heightMm, job.piece.widthMm] : [job.piece.widthMm, job.piece.heightMm];
  const fit = (room: number, size: number) =>
    Math.max(0, Math.floor((room - 2 * marginMm + gapMm) / (size + gapMm) + SLACK));
  const [columns, rows] = [fit(sheet.widthMm, w), fit(sheet.heightMm, h)];
  requireFew(columns * rows);
  const all = Array.from({ length: columns * rows }, (_, k): SheetBox => ({
    xMm: marginMm + (k % columns) * (w + gapMm),
    yMm: marginMm + Math.floor(k / columns) * (h + gapMm),
    widthMm: w,
    heightMm: h,
  }));
  return laidOut(job, all, { columns, rows, turned });
}

/** A jig's raster: places that leave the sheet's margin or meet a keep-out are lost. */
function jigLayout(job: SheetJob, jig: JigRaster): SheetLayout {
  const { sheet, piece, marginMm } = job;
  const near = (pitch: number, size: number, name: string) => {
    if (requirePositive(name, pitch) < size - SLACK)
      throw new CoreError(
        'value.out-of-range',
        `${name} of ${pitch} mm is less than the piece, ${size} mm: places would overlap.`,
        {
          path: 'jig',
        },
      );
  };
  near(jig.pitchXMm, piece.widthMm, 'Pitch across');
  near(jig.pitchYMm, piece.heightMm, 'Pitch up');
  const count = (room: number, first: number, size: number, pitch: number) =>
    Math.max(0, Math.floor((room - marginMm - first - size) / pitch + SLACK) + 1);
  const columns = count(sheet.widthMm, requireNotNegative('first place', jig.firstXMm), piece.widthMm, jig.pitchXMm);
  const rows = count(sheet.heightMm, requireNotNegative('first place', jig.firstYMm), piece.heightMm, jig.pitchYMm);
  requireFew(columns * rows);
  if (columns * rows === 0) throw tooSmall(job);
  const all = Array.from({ length: columns * rows }, (_, k): SheetBox => {
    const row = Math.floor(k / columns);
    return {
      xMm: jig.firstXMm + (k % columns) * jig.pitchXMm + (row % 2) * jig.shiftMm,
      yMm: jig.firstYMm + row * jig.pitchYMm,
      ...piece,
    };
  });
  return laidOut(job, all, { columns, rows, turned: false });
}

function requireFew(count: number): void {
  if (count > MOST_PLACES)
    throw new CoreError(
      'value.out-of-range',
      `That would be ${count} pieces; at most ${MOST_PLACES} are laid out. Are the sizes in mm?`,
      { path: 'piece' },
    );
}

function laidOut(
  job: SheetJob,
  all: readonly SheetBox[],
  shape: { columns: number; rows: number; turned: boolean },
): SheetLayout {
  const { sheet, marginMm } = job;
  const inside = ({ xMm, yMm, widthMm, heightMm }: SheetBox) =>
    xMm >= marginMm - SLACK &&
    yMm >= marginMm - SLACK &&
    xMm + widthMm <= sheet.widthMm - marginMm + SLACK &&
    yMm + heightMm <= sheet.heightMm - marginMm + SLACK;
  const places = all.filter((place) => inside(place) && !job.keepOuts.some((box) => overlap(place, box)));
  const area = places.reduce((sum, { widthMm, heightMm }) => sum + widthMm * heightMm, 0);
  return {
    ...shape,
    places,
    lost: all.length - places.length,
    used: area / (sheet.widthMm * sheet.heightMm),
    test: Math.min(places.length, requireNotNegative('test places', job.testPlaces ?? 0)),
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
