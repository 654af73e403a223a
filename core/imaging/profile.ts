import type { Point2 } from './homography.js';
import { luminanceAt, type Pixels } from './picture.js';

/** Linear luminance along a line of a picture, by bilinear interpolation; NaN beyond its edge. */
export function profile(pixels: Pixels, from: Point2, to: Point2, samples: number): number[] {
  return Array.from({ length: samples }, (_, i) => {
    const t = i / (samples - 1);
    const [x, y] = [from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t];
    const [x0, y0] = [Math.floor(x), Math.floor(y)];
    if (x0 < 0 || y0 < 0 || x0 + 1 >= pixels.width || y0 + 1 >= pixels.height) return Number.NaN;
    const [fx, fy] = [x - x0, y - y0];
    return (
      luminanceAt(pixels, x0, y0) * (1 - fx) * (1 - fy) +
      luminanceAt(pixels, x0 + 1, y0) * fx * (1 - fy) +
      luminanceAt(pixels, x0, y0 + 1) * (1 - fx) * fy +
      luminanceAt(pixels, x0 + 1, y0 + 1) * fx * fy
    );
  });
}
