import { describe, expect, it } from 'vitest';
import { crossSection } from './cross-section.js';
import { fitWindow, outcomeChances } from './fit-window.js';
import type { WindowCell } from './window-terms.js';

const STEEL = { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 };
const REST = { intervalMm: 0.06, passes: 1 };
const cells = [12, 17, 24, 34, 46].flatMap((powerW) =>
  [40, 70, 120, 200, 340].map((speedMmPerS): WindowCell => {
    const off = Math.log(powerW) - 0.7 * Math.log(speedMmPerS) + 0.25;
    return { ...REST, powerW, speedMmPerS, outcome: off < 0 ? 'under' : off > 0.8 ? 'over' : 'holds' };
  }),
);

describe('a cut through the window', () => {
  const fit = fitWindow({ cells, equipment: STEEL, seed: 2 });
  const along = [20, 40, 80, 160, 320, 640].map((speedMmPerS) => ({ ...REST, powerW: 34, speedMmPerS }));
  const cut = crossSection(fit, along);

  it('is the chance of the window itself, inside its own band', () => {
    cut.forEach(({ mean, low, high }, i) => {
      expect(mean).toBeCloseTo(outcomeChances(fit, along[i]!).holds, 6);
      // A few far draws may pull the mean of very small chances just beyond nine of ten.
      expect(low).toBeLessThanOrEqual(mean + 0.01);
      expect(high).toBeGreaterThanOrEqual(mean - 0.01);
    });
  });

  it('rises to where it holds and falls again, and is unsure at its edges', () => {
    const best = cut.reduce((most, one) => (one.mean > most.mean ? one : most));
    expect(best.mean).toBeGreaterThan(0.8);
    expect([cut[0]!.mean, cut.at(-1)!.mean].every((mean) => mean < 0.35)).toBe(true);
    const width = ({ low, high }: (typeof cut)[number]) => high - low;
    expect(Math.max(...cut.map(width))).toBeGreaterThan(2 * width(best));
  });
});
