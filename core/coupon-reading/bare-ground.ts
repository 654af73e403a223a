import { Matrix, QrDecomposition, solve } from 'ml-matrix';
import { linearToLab, type Lab } from '../imaging/colour.js';
import type { LevelPicture } from '../target/level-picture.js';
import { channelIn, highPass, pixelsIn, type Box } from './boxes.js';
import { median } from '../statistics/index.js';

/** Bare ground over a coupon: what the marks are compared with. */
export interface BareGround {
  /** Colour of the ground at a place, mm, with its share of green light. */
  at(x: number, y: number): Lab & { readonly y: number };
  /** Spread of the places about the fitted ground, L*. */
  readonly noise: number;
  /** Spread from pixel to pixel on bare ground, L*. */
  readonly texture: number;
}

/** Ground darker or lighter than the rest by more than this is a halo, a label or glare, L*. */
const LEAST_SPREAD = 0.6;

/**
 * The bare ground as a quadratic through places beside the cells, each channel on its own; places that stand out (halo, glare, dirt) are
 * left out.
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
  let used = places;
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
  let noise = LEAST_SPREAD;
  for (let round = 0; round < 5; round += 1) {
    // A quadratic needs places on all sides; few places get a level only.
    const many = used.length >= 18;
    const matrix = new Matrix(used.map(({ x, y }) => (many ? terms(x, y) : [1])));
    fits = leastSquares(matrix, new Matrix(used.map(({ rgb }) => rgb)))
      .transpose()
      .to2DArray();
    const off = places.map(({ x, y, rgb }) => lightOf(rgb).l - lightOf(at(x, y)).l);
    noise = 1.4826 * median(off.map(Math.abs), 0);
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
    texture: median(
      used.map(({ box }) => highPass(picture, grown(box, pxMm))),
      0,
    ),
  };
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
