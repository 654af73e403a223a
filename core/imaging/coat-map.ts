import { CoreError } from '../support/core-error.js';
import { flattenLight, type Flattened } from './flatten.js';
import type { Straightened } from './picture.js';
import { median, robustSpread } from '../statistics/index.js';

/** What a coat is read against. Luminances are linear, 0 to 1. */
export interface CoatReference {
  readonly bare: number | null;
  /** A place known to be well coated; the middle of the picture’s own cells where null. */
  readonly good: number | null;
  /** Whether the ground is light or dark: stands in for the bare luminance where none was read. */
  readonly ground: 'light' | 'dark' | 'clear';
}

/** A coat seen from above: its film as a multiple of a good one, row by row from the lower left corner. */
export interface CoatMap {
  readonly columns: number;
  readonly rows: number;
  readonly cellMm: number;
  readonly film: readonly number[];
  /** Spread of the film from cell to cell that the picture alone makes. */
  readonly noise: number;
  /** Whether the bare luminance was read, or taken as usual for such a ground. */
  readonly bareRead: boolean;
  /** What uneven light was judged by. */
  readonly lightFrom: Flattened['from'];
}

/** How a film hides what is under it: share hidden = 1 − exp(−k·film), film 1 being a good one. Common practice, no source. */
const HIDING = 1.6;
/** Bare grounds that nobody read, linear luminance. Common practice, no source. */
const USUAL_BARE = { light: 0.55, dark: 0.03 } as const;
/** Bare and coated must differ by this much of the brighter one. */
const LEAST_CONTRAST = 0.12;
const MOST_FILM = 3;

/**
 * Film over a straightened picture of a dry, unfired coat: uneven light is taken off, then each cell stands between bare (0) and
 * well coated (1) by how much of the ground it hides.
 * @throws reading.no-contrast when bare and coated look alike, or a clear ground has no bare place read
 */
export function coatMap(straight: Straightened, reference: CoatReference): CoatMap {
  const { columns, rows, cellMm } = straight;
  const { flat, from } = flattenLight(straight);
  const bare = reference.bare ?? (reference.ground === 'clear' ? null : USUAL_BARE[reference.ground]);
  if (bare === null)
    throw new CoreError(
      'reading.no-contrast',
      'On clear glass a bare place must be pointed at: put the bare mark on uncoated glass.',
    );
  const good = reference.good ?? median(flat);
  if (Math.abs(good - bare) < LEAST_CONTRAST * Math.max(good, bare))
    throw new CoreError(
      'reading.no-contrast',
      'Bare and coated look alike in this picture. Light it from the side, and see that the marks lie on bare and on well-coated places.',
    );
  const film = Array.from(flat, (value) => filmOf((value - bare) / (good - bare)));
  return {
    columns,
    rows,
    cellMm,
    film,
    noise: noiseOf(film, columns),
    bareRead: reference.bare !== null,
    lightFrom: from,
  };
}

/** Film of a share hidden, a good film hiding a share of 1. Rounded to what a picture can tell. */
function filmOf(hidden: number): number {
  const whole = 1 - Math.exp(-HIDING);
  const left = 1 - Math.max(0, hidden) * whole;
  const film = left <= Math.exp(-HIDING * MOST_FILM) ? MOST_FILM : -Math.log(left) / HIDING;
  return Number(film.toFixed(3));
}

/** Spread between neighbours in a row, by their median difference: slow changes and the few faults do not count. */
function noiseOf(film: readonly number[], columns: number): number {
  const steps = film.flatMap((value, i) => ((i + 1) % columns === 0 ? [] : [film[i + 1]! - value]));
  return robustSpread(steps) / Math.SQRT2;
}
