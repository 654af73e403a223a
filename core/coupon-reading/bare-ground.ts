import { Matrix, QrDecomposition, solve } from 'ml-matrix';
import { linearToLab, type Lab } from '../imaging/colour.js';
import type { LevelPicture } from '../target/level-picture.js';
import { channelIn, highPass, pixelsIn, type Box } from './boxes.js';
import { median, robustSpread } from '../statistics/index.js';
import { seededRandom } from '../support/random.js';

/** Bare ground over a coupon: what the marks are compared with. */
export interface BareGround {
  /** Colour of the ground at a place, mm, with its share of green light. */
  at(x: number, y: number): Lab & { readonly y: number };
  /** Spread of the places about the fitted ground, L*. */
  readonly noise: number;
  /** The same without the places that stand out, L*. */
  readonly spread: number;
  /** Spread from pixel to pixel on bare ground, L*. */
  readonly texture: number;
}

/** Ground darker or lighter than the rest by more than this is a halo, a label or glare, L*. */
const LEAST_SPREAD = 0.6;
/** A quadratic has six terms; fewer places get a level only. */
const TERMS = 6;
const MANY = 18;
/** Draws of six places: with 45 % of them in glare, six clean ones come up once in 36. */
const DRAWS = 240;

/**
 * The bare ground as a quadratic through places beside the cells, each channel on its own. Places that stand out (halo, glare, dirt) are
 * left out: nearly half may, since it starts from the surface that the better half lies on (least median of squares, Rousseeuw, J. Am.
 * Stat. Assoc. 79, 871, 1984).
 */
export function fitBareGround(picture: LevelPicture, boxes: readonly Box[]): BareGround {
  const { columns, rows, pxMm } = picture;
  const [w, h] = [columns * pxMm, rows * pxMm];
  const terms = (x: number, y: number) => {
    const [u, v] = [(2 * x) / w - 1, (2 * y) / h - 1];
    return [1, u, v, u * u, u * v, v * v];
  };
  const places = boxes.flatMap((box) => {
    const pixels = pixelsIn(picture, box);
    if (pixels.length < 4) return [];
    const channel = (k: number) => median(channelIn(picture, pixels, k), 0);
    return [{ box, x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2, rgb: [channel(0), channel(1), channel(2)] }];
  });
  const lightOf = (rgb: readonly number[]) => linearToLab(rgb[0]!, rgb[1]!, rgb[2]!);
  const clean = cleanStart(
    places.map(({ x, y }) => terms(x, y)),
    places.map(({ rgb }) => rgb[1]!),
  );
  let used = clean.map((i) => places[i]!);
  let fits: number[][] = [[0], [0], [0]];
  const at = (x: number, y: number) => {
    const own = terms(x, y);
    return fits.map((fit) =>
      Math.max(
        0,
        fit.reduce((sum, value, i) => sum + value * own[i]!, 0),
      ),
    );
  };
  const offOf = ({ x, y, rgb }: (typeof places)[number]) => lightOf(rgb).l - lightOf(at(x, y)).l;
  let noise = LEAST_SPREAD;
  for (let round = 0; round < 5; round += 1) {
    // A quadratic needs places on all sides; few places get a level only.
    const many = used.length >= MANY;
    const matrix = new Matrix(used.map(({ x, y }) => (many ? terms(x, y) : [1])));
    fits = leastSquares(matrix, new Matrix(used.map(({ rgb }) => rgb)))
      .transpose()
      .to2DArray();
    const off = places.map(offOf);
    noise = robustSpread(off);
    const limit = 2.8 * Math.max(noise, LEAST_SPREAD / 2);
    const next = places.filter((_, i) => Math.abs(off[i]!) <= limit);
    if (next.length < 4) break;
    used = next;
  }
  return {
    at: (x, y) => {
      const rgb = at(x, y);
      return { ...lightOf(rgb), y: rgb[1]! };
    },
    noise: Math.max(noise, 0.3),
    spread: Math.max(0.25, robustSpread(used.map(offOf))),
    texture: median(
      used.map(({ box }) => highPass(picture, grown(box, pxMm))),
      0,
    ),
  };
}

/** Indices of the better half of some places: those nearest to the surface whose median miss is the least of all drawn. */
function cleanStart(terms: readonly (readonly number[])[], light: readonly number[]): number[] {
  const all = light.map((_, i) => i);
  if (light.length < MANY) return all;
  const random = seededRandom(light.length);
  let [best, least] = [light.map(() => 0), Infinity];
  for (let draw = 0; draw < DRAWS; draw += 1) {
    const some = Array.from({ length: TERMS }, () => Math.floor(random() * light.length));
    const matrix = new Matrix(some.map((i) => [...terms[i]!]));
    const qr = new QrDecomposition(matrix);
    if (new Set(some).size < TERMS || !qr.isFullRank()) continue;
    const fit = qr.solve(Matrix.columnVector(some.map((i) => light[i]!))).to1DArray();
    const miss = light.map((value, i) => Math.abs(value - terms[i]!.reduce((sum, term, k) => sum + term * fit[k]!, 0)));
    const middle = median(miss);
    if (middle < least) [best, least] = [miss, middle];
  }
  const limit = 2.5 * robustSpread(best);
  return all.filter((i) => best[i]! <= limit);
}

/** By QR, which is quick; by singular values where the places lie too much in a line for it. */
function leastSquares(matrix: Matrix, wanted: Matrix): Matrix {
  const qr = new QrDecomposition(matrix);
  return qr.isFullRank() ? qr.solve(wanted) : solve(matrix, wanted, true);
}

/** At least a few pixels each way, so that differences between neighbours can be taken. */
function grown({ x0, y0, x1, y1 }: Box, pxMm: number): Box {
  const least = 4 * pxMm;
  const [mx, w] = [(x0 + x1) / 2, Math.max(least, x1 - x0)];
  return { x0: mx - w / 2, x1: mx + w / 2, y0, y1 };
}
