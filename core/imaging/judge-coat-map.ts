import type { CoatMap } from './coat-map.js';

/** What a place that is not as it should be most likely is. */
export const COAT_FAULTS = ['thin spot', 'touched', 'run', 'lump'] as const;
export type CoatFault = (typeof COAT_FAULTS)[number];

/** One such place: a rectangle round it, mm from the lower left corner of the coat, and the film in it as a multiple of a good one. */
export interface CoatPlace {
  readonly fault: CoatFault;
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly areaMm2: number;
  readonly film: number;
  /** Share of the artwork it takes. */
  readonly ofArtwork: number;
}

/** Stripes of one direction over the whole coat: what a brush leaves. */
export interface BrushMarks {
  readonly along: 'x' | 'y';
  /** Half the swing of the film from stripe to stripe, as a share of a good film. */
  readonly swing: number;
}

export interface CoatMapJudgement {
  readonly places: readonly CoatPlace[];
  readonly brush: BrushMarks | null;
  /** Share of the artwork that will come out pale: the film is thin there. */
  readonly paleShare: number;
  /** Share that may wash off: too thick, or nothing there. */
  readonly lostShare: number;
  readonly advice: 'accept' | 'touch up' | 'rinse off';
}

/** A film below this multiple of a good one marks pale, above that one keeps the heat off the part. Common practice, no source. */
export const THIN_FILM = 0.7;
const NEARLY_BARE = 0.3;
export const THICK_FILM = 1.35;
/** Faults of fewer cells are specks of dust or noise. */
const LEAST_CELLS = 3;
/** A finger leaves a place of this size, mm. Common practice, no source. */
const FINGER_MM = { low: 5, high: 22 } as const;
const LONG = 2.4;
const SWING = 0.06;
/** A share of the artwork nobody will see. */
const UNSEEN = 0.005;
const TOUCH_UP_MOST = 0.15;

/**
 * Judges a map of a coat over its artwork (a rectangle of the coat, mm): places too thin or too thick beyond what the picture’s noise
 * explains, each with its likeliest cause, brush marks, the share of the mark each costs, and what to do while it is still free.
 */
export function judgeCoatMap(
  map: CoatMap,
  artwork: { readonly xMm: number; readonly yMm: number; readonly widthMm: number; readonly heightMm: number },
): CoatMapJudgement {
  const sure = Math.max(3.5 * map.noise, 0.05);
  const low = groups(map, (film) => film < Math.min(THIN_FILM, 1 - sure));
  const high = groups(map, (film) => film > Math.max(THICK_FILM, 1 + sure));
  const inArtwork = (i: number) => {
    const x = ((i % map.columns) + 0.5) * map.cellMm;
    const y = (Math.floor(i / map.columns) + 0.5) * map.cellMm;
    return (
      x >= artwork.xMm && x <= artwork.xMm + artwork.widthMm && y >= artwork.yMm && y <= artwork.yMm + artwork.heightMm
    );
  };
  const cellsInArtwork = map.film.filter((_, i) => inArtwork(i)).length || 1;
  const placed = (cells: readonly number[], fault: CoatFault): CoatPlace => ({
    ...boxOf(map, cells),
    fault,
    areaMm2: cells.length * map.cellMm ** 2,
    film: mean(cells.map((i) => map.film[i]!)),
    ofArtwork: cells.filter(inArtwork).length / cellsInArtwork,
  });
  const places = [
    ...low.map((cells) => placed(cells, isTouch(map, cells) ? 'touched' : 'thin spot')),
    ...high.map((cells) => placed(cells, shapeOf(map, cells).long > LONG ? 'run' : 'lump')),
  ].sort((a, b) => b.ofArtwork - a.ofArtwork || b.areaMm2 - a.areaMm2);
  const share = (of: (place: CoatPlace) => boolean) =>
    places.filter(of).reduce((sum, { ofArtwork }) => sum + ofArtwork, 0);
  const paleShare = share(({ film }) => film >= NEARLY_BARE && film < 1);
  const lostShare = share(({ film }) => film < NEARLY_BARE || film > 1);
  const spoilt = new Set([...low, ...high].flat());
  const brush = brushMarks(map, (i) => inArtwork(i) && !spoilt.has(i));
  return { places, brush, paleShare, lostShare, advice: adviceOf(places, brush, paleShare + lostShare) };
}

function adviceOf(places: readonly CoatPlace[], brush: BrushMarks | null, spoilt: number): CoatMapJudgement['advice'] {
  if (spoilt <= UNSEEN && !brush) return 'accept';
  const mendable = places.every(
    ({ fault, ofArtwork }) => fault === 'thin spot' || fault === 'touched' || ofArtwork === 0,
  );
  return mendable && !brush && spoilt <= TOUCH_UP_MOST ? 'touch up' : 'rinse off';
}

/** Connected sets of cells that satisfy a test (eight neighbours), the tiny ones left out. */
function groups({ film, columns, rows }: CoatMap, test: (film: number) => boolean): number[][] {
  const seen = new Set<number>();
  const found: number[][] = [];
  for (let start = 0; start < film.length; start += 1) {
    if (seen.has(start) || !test(film[start]!)) continue;
    const group = [start];
    seen.add(start);
    for (let k = 0; k < group.length; k += 1) {
      const [x, y] = [group[k]! % columns, Math.floor(group[k]! / columns)];
      for (let ny = Math.max(0, y - 1); ny <= Math.min(rows - 1, y + 1); ny += 1) {
        for (let nx = Math.max(0, x - 1); nx <= Math.min(columns - 1, x + 1); nx += 1) {
          const next = ny * columns + nx;
          if (seen.has(next) || !test(film[next]!)) continue;
          seen.add(next);
          group.push(next);
        }
      }
    }
    if (group.length >= LEAST_CELLS) found.push(group);
  }
  return found;
}

function boxOf({ columns, cellMm }: CoatMap, cells: readonly number[]) {
  const xs = cells.map((i) => i % columns);
  const ys = cells.map((i) => Math.floor(i / columns));
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)];
  return {
    xMm: x0 * cellMm,
    yMm: y0 * cellMm,
    widthMm: (Math.max(...xs) - x0 + 1) * cellMm,
    heightMm: (Math.max(...ys) - y0 + 1) * cellMm,
  };
}

/** Length over width by second moments, and the diameter of a disc of the same area, mm. */
function shapeOf({ columns, cellMm }: CoatMap, cells: readonly number[]): { long: number; acrossMm: number } {
  const points = cells.map((i) => [i % columns, Math.floor(i / columns)] as const);
  const [mx, my] = [mean(points.map(([x]) => x)), mean(points.map(([, y]) => y))];
  // A twelfth of a cell is the moment of a cell itself: a single row of cells is not infinitely thin.
  const xx = mean(points.map(([x]) => (x - mx) ** 2)) + 1 / 12;
  const yy = mean(points.map(([, y]) => (y - my) ** 2)) + 1 / 12;
  const xy = mean(points.map(([x, y]) => (x - mx) * (y - my)));
  const half = Math.sqrt(((xx - yy) / 2) ** 2 + xy ** 2);
  const middle = (xx + yy) / 2;
  return {
    long: Math.sqrt((middle + half) / Math.max(middle - half, 1e-9)),
    acrossMm: 2 * cellMm * Math.sqrt(cells.length / Math.PI),
  };
}

/** A finger takes the coat nearly off, in a compact place away from the rim of the coat. */
function isTouch(map: CoatMap, cells: readonly number[]): boolean {
  const { long, acrossMm } = shapeOf(map, cells);
  const least = Math.min(...cells.map((i) => map.film[i]!));
  const rim = cells.some((i) => {
    const [x, y] = [i % map.columns, Math.floor(i / map.columns)];
    return x === 0 || y === 0 || x === map.columns - 1 || y === map.rows - 1;
  });
  return !rim && least < 0.45 && long < 2.2 && acrossMm >= FINGER_MM.low && acrossMm <= FINGER_MM.high;
}

/**
 * Stripes: the means of whole rows (or columns) of the artwork swing far more than cells that differ on their own would let them.
 * Places already named are left out.
 */
function brushMarks(map: CoatMap, counts: (cell: number) => boolean): BrushMarks | null {
  const { columns, rows, film } = map;
  const kept = film.map((value, i) => (counts(i) ? value : null));
  const lines = (count: number, length: number, at: (line: number, k: number) => number) =>
    Array.from({ length: count }, (_, line) => {
      const values = Array.from({ length }, (_, k) => kept[at(line, k)] ?? null).filter((value) => value !== null);
      return values.length > length / 4 ? mean(values) : null;
    }).filter((value) => value !== null);
  const across = detrended(lines(rows, columns, (y, x) => y * columns + x));
  const up = detrended(lines(columns, rows, (x, y) => y * columns + x));
  const [sx, sy] = [deviation(across), deviation(up)];
  const own = Math.max(map.noise, 0.01);
  const found = (swing: number, other: number, length: number) =>
    swing * Math.SQRT2 > SWING && swing > (4 * own) / Math.sqrt(length) && swing > 2 * other;
  if (found(sx, sy, columns)) return { along: 'x', swing: sx * Math.SQRT2 };
  if (found(sy, sx, rows)) return { along: 'y', swing: sy * Math.SQRT2 };
  return null;
}

/** Each value less the mean of those about it: what changes slowly is no stripe. */
function detrended(values: readonly number[]): number[] {
  const reach = Math.max(2, Math.round(values.length / 8));
  return values.map((value, i) => value - mean(values.slice(Math.max(0, i - reach), i + reach + 1)));
}

function deviation(values: readonly number[]): number {
  const middle = mean(values);
  return Math.sqrt(mean(values.map((value) => (value - middle) ** 2)));
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / (values.length || 1);
}
