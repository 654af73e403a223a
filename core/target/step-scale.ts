import { linearToSrgb } from '../imaging/colour.js';

/** Steps of the printed scale, from paper white on, and how far apart they are in lightness, L*. */
export const SCALE_STEPS = 11;
export const SCALE_STEP_L = 8;
const WHITE_L = 95;

/** 8-bit sRGB grey of a lightness: inverse of CIE 15 and IEC 61966-2-1. */
function greyOf(l: number): number {
  const f = (l + 16) / 116;
  const y = f > 6 / 29 ? f ** 3 : (108 / 841) * (f - 4 / 29);
  return Math.round(255 * linearToSrgb(y));
}

/** Contrast of a mark so many steps darker (or lighter) than its ground, L*. By eye it is good to about one step. */
export function contrastOfSteps(steps: number): number {
  return steps * SCALE_STEP_L;
}

/** The step scale as SVG at true size in mm: a strip to lay beside a coupon and hold its cells against. */
export function stepScaleSvg(): string {
  const [w, h] = [15, 26];
  const fields = Array.from({ length: SCALE_STEPS }, (_, i) => {
    const grey = greyOf(WHITE_L - i * SCALE_STEP_L);
    return `<rect x="${8 + i * w}" y="14" width="${w}" height="${h}" fill="rgb(${grey},${grey},${grey})"/><text x="${8 + (i + 0.5) * w}" y="46" text-anchor="middle" font-size="5" font-family="Helvetica, sans-serif">${i}</text>`;
  });
  const width = 16 + SCALE_STEPS * w;
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" version="1.1" width="${width}mm" height="56mm" viewBox="0 0 ${width} 56">
<title>Unto step scale</title>
<rect width="${width}" height="56" fill="#fff"/>
<text x="8" y="9" font-size="4" font-family="Helvetica, sans-serif">Unto step scale · find the step that the bare ground is like, then the one a cell is like; enter the difference</text>
${fields.join('\n')}
</svg>
`;
}
