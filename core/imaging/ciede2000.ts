import type { Lab } from './colour.js';

const RADIANS = Math.PI / 180;
const TO_25_7 = 25 ** 7;

/**
 * Colour difference ΔE₀₀ of two CIE L*a*b* colours, with all parametric factors 1. Symmetric; 0 for the same colour.
 * Source: CIE 142-2001 as written out by Sharma, Wu & Dalal, Color Res. Appl. 30, 2005.
 * @example ciede2000({ l: 50, a: 2.6772, b: -79.7751 }, { l: 50, a: 0, b: -82.7485 }) // 2.0425
 */
export function ciede2000(one: Lab, other: Lab): number {
  const meanChroma = (Math.hypot(one.a, one.b) + Math.hypot(other.a, other.b)) / 2;
  const stretch = 1 + 0.5 * (1 - Math.sqrt(meanChroma ** 7 / (meanChroma ** 7 + TO_25_7)));
  const [p, q] = [polar(one, stretch), polar(other, stretch)];
  const dL = other.l - one.l;
  const dC = q.chroma - p.chroma;
  const dH = 2 * Math.sqrt(p.chroma * q.chroma) * Math.sin((hueStep(p, q) / 2) * RADIANS);
  const l = (one.l + other.l) / 2;
  const c = (p.chroma + q.chroma) / 2;
  const h = meanHue(p, q);
  const t =
    1 -
    0.17 * Math.cos((h - 30) * RADIANS) +
    0.24 * Math.cos(2 * h * RADIANS) +
    0.32 * Math.cos((3 * h + 6) * RADIANS) -
    0.2 * Math.cos((4 * h - 63) * RADIANS);
  const sL = 1 + (0.015 * (l - 50) ** 2) / Math.sqrt(20 + (l - 50) ** 2);
  const sC = 1 + 0.045 * c;
  const sH = 1 + 0.015 * c * t;
  const turn = 30 * Math.exp(-(((h - 275) / 25) ** 2));
  const rT = -2 * Math.sqrt(c ** 7 / (c ** 7 + TO_25_7)) * Math.sin(2 * turn * RADIANS);
  return Math.sqrt((dL / sL) ** 2 + (dC / sC) ** 2 + (dH / sH) ** 2 + rT * (dC / sC) * (dH / sH));
}

/** Chroma and hue (degrees, 0 to 360; 0 where there is no chroma) with a* stretched for near-neutral colours. */
interface Polar {
  readonly chroma: number;
  readonly hue: number;
}

function polar({ a, b }: Lab, stretch: number): Polar {
  const [x, y] = [a * stretch, b];
  const hue = x === 0 && y === 0 ? 0 : Math.atan2(y, x) / RADIANS;
  return { chroma: Math.hypot(x, y), hue: hue < 0 ? hue + 360 : hue };
}

/** Step from one hue to the other the short way round, degrees; 0 where either has no chroma. */
function hueStep(p: Polar, q: Polar): number {
  if (p.chroma * q.chroma === 0) return 0;
  const step = q.hue - p.hue;
  return step > 180 ? step - 360 : step < -180 ? step + 360 : step;
}

function meanHue(p: Polar, q: Polar): number {
  const sum = p.hue + q.hue;
  if (p.chroma * q.chroma === 0) return sum;
  if (Math.abs(p.hue - q.hue) <= 180) return sum / 2;
  return sum < 360 ? (sum + 360) / 2 : (sum - 360) / 2;
}
