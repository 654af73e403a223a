import { CoreError } from '../support/core-error.js';
import { requirePositive } from '../support/require.js';
import { luminance, SRGB_TO_LINEAR } from './colour.js';
import { fitHomography, project, requireConvex, type Homography, type Point2 } from './homography.js';

/** Pixels of a picture, RGBA, 8 bits each, from its upper left corner. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

/** A round patch of a picture, px. */
export interface Patch extends Point2 {
  readonly radius: number;
}

/** Mean linear luminance of a patch, 0 to 1. @throws reading.outside when none of it lies in the picture */
export function patchLuminance(pixels: Pixels, patch: Patch): number {
  const radius = requirePositive('radius', patch.radius);
  let [sum, count] = [0, 0];
  for (let y = Math.ceil(patch.y - radius); y <= patch.y + radius; y += 1) {
    for (let x = Math.ceil(patch.x - radius); x <= patch.x + radius; x += 1) {
      if (x < 0 || y < 0 || x >= pixels.width || y >= pixels.height) continue;
      if ((x - patch.x) ** 2 + (y - patch.y) ** 2 > radius ** 2) continue;
      sum += luminanceAt(pixels, x, y);
      count += 1;
    }
  }
  if (count === 0) throw new CoreError('reading.outside', 'That spot lies outside the picture.');
  return sum / count;
}

/** Relative luminance (0 to 1) of a pixel inside the picture. Source: IEC 61966-2-1. */
export function luminanceAt({ width, data }: Pixels, x: number, y: number): number {
  const at = 4 * (y * width + x);
  return luminance(SRGB_TO_LINEAR[data[at]!]!, SRGB_TO_LINEAR[data[at + 1]!]!, SRGB_TO_LINEAR[data[at + 2]!]!);
}

/** A part seen straight from above: mean linear luminance of square cells, row by row from its lower left corner (y up). */
export interface Straightened {
  readonly columns: number;
  readonly rows: number;
  readonly cellMm: number;
  readonly luminance: Float64Array;
  /** What lies about the part, for telling uneven light from an uneven part; null where the picture ends too soon. */
  readonly around: Surround | null;
}

/** Cells round a part: their places as shares of its width and height (0 to 1 is the part itself), and their luminance. */
export interface Surround {
  readonly places: readonly Point2[];
  readonly luminance: Float64Array;
}

/** Samples across a cell, each way. */
const SAMPLES = 4;
/** The surround begins this far off the part and is this wide, as shares of the part’s shorter side. */
const SURROUND = { off: 0.05, wide: 0.14 } as const;
const LEAST_AROUND = 60;

/**
 * Straightens a rectangle of a part out of a picture by its four corners, from the lower left one counter-clockwise as it lies on the
 * part (upper left in a picture being y down).
 * @param part size of the rectangle and of a cell, mm
 * @throws reading.points when the corners cross or lie in a line
 */
export function straighten(
  pixels: Pixels,
  corners: readonly [Point2, Point2, Point2, Point2],
  part: { readonly widthMm: number; readonly heightMm: number; readonly cellMm: number },
): Straightened {
  requireConvex(corners);
  const { widthMm, heightMm } = part;
  const cellMm = requirePositive('cell', part.cellMm);
  const columns = Math.max(1, Math.floor(requirePositive('width', widthMm) / cellMm));
  const rows = Math.max(1, Math.floor(requirePositive('height', heightMm) / cellMm));
  const on = [
    { x: 0, y: 0 },
    { x: widthMm, y: 0 },
    { x: widthMm, y: heightMm },
    { x: 0, y: heightMm },
  ];
  const h = fitHomography(on, corners);
  const cell = (column: number, row: number) => {
    let sum = 0;
    for (let k = 0; k < SAMPLES * SAMPLES; k += 1) {
      const x = (column + ((k % SAMPLES) + 0.5) / SAMPLES) * cellMm;
      const y = (row + (Math.floor(k / SAMPLES) + 0.5) / SAMPLES) * cellMm;
      sum += sampled(pixels, project(h, { x, y }));
    }
    return sum / (SAMPLES * SAMPLES);
  };
  const luminance = Float64Array.from({ length: columns * rows }, (_, i) => cell(i % columns, Math.floor(i / columns)));
  return { columns, rows, cellMm, luminance, around: surround(pixels, cell, h, { columns, rows, cellMm }) };
}

function surround(
  pixels: Pixels,
  cell: (column: number, row: number) => number,
  h: Homography,
  { columns, rows, cellMm }: { columns: number; rows: number; cellMm: number },
): Surround | null {
  const short = Math.min(columns, rows);
  const [off, far] = [Math.ceil(SURROUND.off * short) + 1, Math.ceil((SURROUND.off + SURROUND.wide) * short) + 2];
  const places: Point2[] = [];
  const values: number[] = [];
  for (let row = -far; row < rows + far; row += 1) {
    for (let column = -far; column < columns + far; column += 1) {
      if (column >= -off && column < columns + off && row >= -off && row < rows + off) continue;
      const at = project(h, { x: (column + 0.5) * cellMm, y: (row + 0.5) * cellMm });
      if (at.x < 1 || at.y < 1 || at.x > pixels.width - 2 || at.y > pixels.height - 2) continue;
      places.push({ x: (column + 0.5) / columns, y: (row + 0.5) / rows });
      values.push(cell(column, row));
    }
  }
  return places.length < LEAST_AROUND ? null : { places, luminance: Float64Array.from(values) };
}

/** Samples beyond the picture’s edge read as the edge. */
function sampled(pixels: Pixels, { x, y }: Point2): number {
  const clamp = (value: number, most: number) => Math.min(most, Math.max(0, Math.round(value)));
  return luminanceAt(pixels, clamp(x, pixels.width - 1), clamp(y, pixels.height - 1));
}
