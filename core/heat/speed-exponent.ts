import { heatIndex, type HeatCase } from './heat-index.js';

/**
 * Local exponent q in Θ ∝ v^(−q): near 0 on copper (slowing down buys almost nothing), up to 0.5 on stainless and glass
 * at speed. Central difference over ± 5 % of speed.
 * @throws value.not-positive
 */
export function speedExponent(heat: HeatCase): number {
  const step = 1.05;
  const faster = heatIndex({ ...heat, speedMmPerS: heat.speedMmPerS * step });
  const slower = heatIndex({ ...heat, speedMmPerS: heat.speedMmPerS / step });
  return Math.max(0, Math.log(slower / faster) / (2 * Math.log(step)));
}
