import type { Artwork, ArtworkShape } from './shapes.js';
import { spansOf, type Spans } from './spans.js';

/** What rows of a hatch at 0° come to, whatever their interval: enough for the time of a fill. */
export interface SweptRows {
  /** Height that rows which mark anything take up, mm. */
  readonly heightMm: number;
  /** From the first mark of a row to its last, on the mean of those rows, mm. */
  readonly extentMm: number;
  /** Spans a row, on the mean. */
  readonly spansPerRow: number;
  /** Share of the extent that is marked. */
  readonly markedShare: number;
}

/** The narrowest place of something, mm, and where on the artwork. */
export interface Narrowest {
  readonly mm: number;
  readonly xMm: number;
  readonly yMm: number;
}

export interface ArtworkMeasure {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Marked by fills, mm². */
  readonly filledMm2: number;
  /** Of the box. */
  readonly filledShare: number;
  readonly swept: SweptRows;
  /** The same of rows that run up. */
  readonly sweptUp: SweptRows;
  /** Followed as lines: their length in mm, and how many. */
  readonly linesMm: number;
  readonly lines: number;
  /** Of what is filled; null where nothing is, or nowhere two edges face each other. */
  readonly smallestStroke: Narrowest | null;
  /** Of what is left bare between two fills. */
  readonly smallestGap: Narrowest | null;
  /** Outlines that are filled though the file leaves them open. */
  readonly openFills: number;
  readonly corners: number;
}

/** Rows an artwork is measured on: fine enough for letters, and never more than so many. */
const FINEST_MM = 0.02;
const MOST_ROWS = 2500;
/** Two edges face each other where their directions differ by less than this, as the sine of 10°. */
const FACING = 0.17;
/** An edge that leans further than this is measured better by the rows across: sine of 49°. */
const TOO_FLAT = 0.75;

/**
 * Measures an artwork as it is marked: areas by rows (midpoint rule), narrowest stroke and gap where two edges face each other, by rows
 * in both directions, the distance square to the edges. Tips of wedges are none: their edges do not face.
 */
export function measureArtwork(artwork: Artwork): ArtworkMeasure {
  const { shapes, widthMm, heightMm } = artwork;
  const fine = (mm: number) => Math.max(FINEST_MM, mm / MOST_ROWS);
  const along = spansOf(shapes, { spacingMm: fine(heightMm), angleDeg: 0 });
  const across = spansOf(shapes, { spacingMm: fine(widthMm), angleDeg: 90 });
  const filledMm2 = markedArea(along);
  const lines = shapes.filter(({ as }) => as === 'line').flatMap(({ rings }) => rings);
  const box = widthMm * heightMm;
  return {
    ...{ widthMm, heightMm, filledMm2, filledShare: box > 0 ? Math.min(1, filledMm2 / box) : 0 },
    swept: sweptRows(along),
    sweptUp: sweptRows(across),
    linesMm: lines.reduce((sum, ring) => sum + ringLength(ring), 0),
    lines: lines.length,
    smallestStroke: narrower(narrowest(along, 'stroke', 0), narrowest(across, 'stroke', 90)),
    smallestGap: narrower(narrowest(along, 'gap', 0), narrowest(across, 'gap', 90)),
    openFills: shapes.reduce((sum, shape) => sum + openRings(shape), 0),
    corners: shapes.reduce((sum, { rings }) => sum + rings.reduce((n, ring) => n + ring.length / 2, 0), 0),
  };
}

/** Area of spans, mm². */
export function markedArea({ from, to, spacingMm }: Spans): number {
  return from.reduce((sum, at, i) => sum + (to[i]! - at), 0) * spacingMm;
}

/** Length of a line along its corners, mm. */
export function ringLength(ring: Float64Array): number {
  let length = 0;
  for (let i = 2; i < ring.length; i += 2) length += Math.hypot(ring[i]! - ring[i - 2]!, ring[i + 1]! - ring[i - 1]!);
  return length;
}

/** What rows come to, those without a mark left out. */
export function sweptRows({ start, from, to, rows, spacingMm }: Spans): SweptRows {
  let [marked, extent, spans] = [0, 0, 0];
  for (let row = 0; row < rows; row += 1) {
    const [first, past] = [start[row]!, start[row + 1]!];
    if (past === first) continue;
    marked += 1;
    spans += past - first;
    extent += to[past - 1]! - from[first]!;
  }
  const filled = from.reduce((sum, at, i) => sum + (to[i]! - at), 0);
  return {
    heightMm: marked * spacingMm,
    extentMm: marked ? extent / marked : 0,
    spansPerRow: marked ? spans / marked : 0,
    markedShare: extent > 0 ? Math.min(1, filled / extent) : 0,
  };
}

function narrowest(spans: Spans, of: 'stroke' | 'gap', angleDeg: number): Narrowest | null {
  const { start, from, to, fromLean, toLean, rows, firstMm, spacingMm } = spans;
  let least = Infinity;
  let at: readonly [number, number] = [0, 0];
  for (let row = 0; row < rows; row += 1) {
    for (let k = start[row]!; k < start[row + 1]!; k += 1) {
      const gap = of === 'gap';
      if (gap && k + 1 === start[row + 1]!) continue;
      const [left, right] = gap ? [to[k]!, from[k + 1]!] : [from[k]!, to[k]!];
      const [a, b] = gap ? [toLean[k]!, fromLean[k + 1]!] : [fromLean[k]!, toLean[k]!];
      if (Math.abs(a - b) > FACING || Math.abs(a) > TOO_FLAT || Math.abs(b) > TOO_FLAT) continue;
      const wide = (right - left) * Math.sqrt(1 - ((a + b) / 2) ** 2);
      if (wide < least) [least, at] = [wide, [(left + right) / 2, firstMm + row * spacingMm]];
    }
  }
  if (least === Infinity) return null;
  // Rows at 90° run up: along them is y, across them −x.
  return angleDeg === 0 ? { mm: least, xMm: at[0], yMm: at[1] } : { mm: least, xMm: -at[1], yMm: at[0] };
}

function narrower(a: Narrowest | null, b: Narrowest | null): Narrowest | null {
  return !a || (b && b.mm < a.mm) ? b : a;
}

/** Rings of a fill that do not end where they began; a gap less than a hundredth of a mm is none. */
function openRings({ as, rings }: ArtworkShape): number {
  if (as !== 'marked') return 0;
  const open = (r: Float64Array) => Math.hypot(r[0]! - r[r.length - 2]!, r[1]! - r[r.length - 1]!) > 0.01;
  return rings.filter((ring) => ring.length >= 6 && open(ring)).length;
}
