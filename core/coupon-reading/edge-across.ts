import { edgeWidth } from '../imaging/edge-width.js';
import { between, type LevelPicture } from '../target/level-picture.js';

const EDGE_LINES = 24;
/** Where the camera blurs an edge over as much as is asked of a mark's, mm, what is left after taking it off tells the camera. */
const EDGE_TELLS_MM = 0.35;

/** A stretch of an edge: where it begins, how it runs, and the direction across it (of length 1), mm. */
export interface EdgeStretch {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  readonly nx: number;
  readonly ny: number;
}

/**
 * 10–90 % width of an edge over a stretch of it, the camera's blur across it taken off in quadrature, mm; null where no edge shows, or the
 * camera blurs it too much to tell.
 * @param reach how far to either side it is looked at, mm
 */
export function edgeAcross(
  picture: LevelPicture,
  { x, y, dx, dy, nx, ny }: EdgeStretch,
  reach: number,
  cameraMm: number,
): number | null {
  if (cameraMm > EDGE_TELLS_MM) return null;
  const samples = Math.max(9, Math.round((2 * reach) / (picture.pxMm / 2)));
  const sum = new Float64Array(samples);
  for (let k = 0; k < EDGE_LINES; k += 1) {
    const t = 0.15 + (0.7 * k) / (EDGE_LINES - 1);
    for (let i = 0; i < samples; i += 1) {
      const d = -reach + (2 * reach * i) / (samples - 1);
      sum[i]! += luminanceIn(picture, x + dx * t + nx * d, y + dy * t + ny * d) / EDGE_LINES;
    }
  }
  const width = edgeWidth([...sum]);
  if (width === null) return null;
  return Math.sqrt(Math.max(0, ((width / (samples - 1)) * 2 * reach) ** 2 - cameraMm ** 2));
}

/** Green light at a place, by bilinear interpolation; the edge of the picture goes on beyond it. */
export function luminanceIn(picture: LevelPicture, x: number, y: number): number {
  return between(picture, x, y, (i) => picture.rgb[3 * i + 1]!);
}
