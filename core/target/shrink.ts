import type { Pixels } from '../imaging/picture.js';

/** A picture shrunk by a whole factor to about some width, by the mean of its blocks; as it is where it is small already. */
export function shrunk(pixels: Pixels, widthPx: number): { small: Pixels; scale: number } {
  const scale = Math.max(1, Math.round(pixels.width / widthPx));
  if (scale === 1) return { small: pixels, scale };
  const [width, height] = [Math.floor(pixels.width / scale), Math.floor(pixels.height / scale)];
  const data = new Uint8ClampedArray(width * height * 4);
  // Two by two pixels of a large block are enough for a search.
  const step = scale >= 4 ? scale >> 1 : 1;
  const count = Math.ceil(scale / step) ** 2;
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      let [r, g, b] = [0, 0, 0];
      for (let dy = 0; dy < scale; dy += step) {
        for (let dx = 0; dx < scale; dx += step) {
          const at = 4 * ((y * scale + dy) * pixels.width + x * scale + dx);
          r += pixels.data[at]!;
          g += pixels.data[at + 1]!;
          b += pixels.data[at + 2]!;
        }
      }
      const at = 4 * (y * width + x);
      data[at] = r / count;
      data[at + 1] = g / count;
      data[at + 2] = b / count;
      data[at + 3] = 255;
    }
  }
  return { small: { width, height, data }, scale };
}
