import { requireNotNegative, requirePositive } from '../support/require.js';

/** What the heat index depends on. Radius is the 1/e² spot radius; conductivity W/(mm·K); diffusivity mm²/s. */
export interface HeatCase {
  readonly powerW: number;
  readonly speedMmPerS: number;
  readonly radiusMm: number;
  readonly conductivity: number;
  readonly diffusivity: number;
}

/** Nodes and weights of 8-point Gauss-Legendre quadrature on [−1, 1] (Abramowitz & Stegun table 25.4). */
const NODES = [0.1834346424956498, 0.525532409916329, 0.7966664774136267, 0.9602898564975363];
const WEIGHTS = [0.362683783378362, 0.3137066458778873, 0.2223810344533745, 0.1012285362903763];
const PANELS = 12;

/**
 * Heat index Θ in K per unit absorbed fraction: peak surface rise of a half-space under a moving Gaussian spot
 * (Cline & Anthony 1977, written for the 1/e² radius):
 *
 *   Θ = max over x of (√2 P/(π^{3/2} k w)) ∫₀^{π/2} exp(−2 (x + v t)²/(w²(1+u²))) dφ,  u = tan φ,  t = u² w²/(8α)
 *
 * An index for ordering settings and carrying them over, never a temperature: what the coat absorbs is fitted, not predicted.
 * At rest it is exactly P/(√(2π) k w). Quadrature error is below 1e-6 of the value for v·w/α up to 5000.
 * @throws value.not-positive; value.negative for a negative speed
 * @example heatIndex({ powerW: 1, speedMmPerS: 150, radiusMm: 0.1, conductivity: 0.0162, diffusivity: 4.05 }) // 157.5
 */
export function heatIndex(heat: HeatCase): number {
  return peakRise(checked(heat), { integrandFactor: () => 1, lastU: Infinity });
}

/**
 * Factor ≥ 1 by which a thin sheet with a bare back runs hotter than a half-space heated for the same time, at
 * most `historyS` seconds (the time of a row). Images of the source at 2nL (method of images for a slab,
 * Carslaw & Jaeger 1959, §10.2; Gaussian source on the face).
 * @param sheet thickness in mm and history in s, both above 0
 * @throws value.not-positive
 */
export function thinSheetFactor(heat: HeatCase, sheet: { thicknessMm: number; historyS: number }): number {
  const known = checked(heat);
  const thickness = requirePositive('thicknessMm', sheet.thicknessMm) / known.radiusMm;
  const history = requirePositive('historyS', sheet.historyS);
  const lastU = Math.sqrt((8 * known.diffusivity * history) / known.radiusMm ** 2);
  const halfSpace = peakRise(known, { integrandFactor: () => 1, lastU });
  const slab = peakRise(known, { integrandFactor: (u) => imageSum(8 * (thickness / u) ** 2), lastU });
  return Math.max(1, slab / halfSpace);
}

/** 1 + 2 Σ exp(−n² a): what the images of a source in both faces add. Poisson's dual sum serves small a. */
function imageSum(a: number): number {
  if (!(a < 700)) return 1;
  const dual = a < 1;
  const decay = dual ? Math.PI ** 2 / a : a;
  let sum = 1;
  for (let n = 1; n <= 8; n += 1) {
    const term = 2 * Math.exp(-n * n * decay);
    sum += term;
    if (term < 1e-15) break;
  }
  return dual ? sum * Math.sqrt(Math.PI / a) : sum;
}

interface Quadrature {
  readonly integrandFactor: (u: number) => number;
  readonly lastU: number;
}

function checked(heat: HeatCase): HeatCase {
  requirePositive('power', heat.powerW);
  requireNotNegative('speed', heat.speedMmPerS);
  requirePositive('radiusMm', heat.radiusMm);
  requirePositive('conductivity', heat.conductivity);
  requirePositive('diffusivity', heat.diffusivity);
  return heat;
}

/** Works in units of the radius: x/w and the Péclet number v·w/α are all that is left. */
function peakRise(heat: HeatCase, quadrature: Quadrature): number {
  const scale = (Math.SQRT2 * heat.powerW) / (Math.PI ** 1.5 * heat.conductivity * heat.radiusMm);
  const peclet = (heat.speedMmPerS * heat.radiusMm) / heat.diffusivity;
  if (peclet === 0) return scale * integral(0, 0, quadrature);
  // The hottest point trails the spot by less than two radii at any speed.
  return scale * maximise((x) => integral(x, peclet, quadrature), -2, 0);
}

function integral(x: number, peclet: number, { integrandFactor, lastU }: Quadrature): number {
  const end = lastU === Infinity ? Math.PI / 2 : Math.atan(lastU);
  let sum = 0;
  for (let panel = 0; panel < PANELS; panel += 1) {
    // Panels crowd towards φ = 0, where fast beams have all their heat.
    const from = (panel / PANELS) ** 3;
    const to = ((panel + 1) / PANELS) ** 3;
    const half = (to - from) / 2;
    for (let i = 0; i < NODES.length; i += 1) {
      for (const side of [-1, 1]) {
        const u = Math.tan(end * (from + half * (1 + side * NODES[i]!)));
        const offset = x + (peclet * u * u) / 8;
        sum += WEIGHTS[i]! * half * end * integrandFactor(u) * Math.exp((-2 * offset * offset) / (1 + u * u));
      }
    }
  }
  return sum;
}

/** Largest value of a single-humped function on [low, high] (golden section; 1e-5 in x leaves about 1e-10 in the value). */
function maximise(f: (x: number) => number, low: number, high: number): number {
  const ratio = (Math.sqrt(5) - 1) / 2;
  let a = low;
  let b = high;
  let left = b - ratio * (b - a);
  let right = a + ratio * (b - a);
  let atLeft = f(left);
  let atRight = f(right);
  while (b - a > 1e-5) {
    if (atLeft > atRight) {
      b = right;
      [right, atRight] = [left, atLeft];
      left = b - ratio * (b - a);
      atLeft = f(left);
    } else {
      a = left;
      [left, atLeft] = [right, atRight];
      right = a + ratio * (b - a);
      atRight = f(right);
    }
  }
  return Math.max(atLeft, atRight);
}
