import { describe, expect, it } from 'vitest';
import { seededRandom, standardNormal } from '../support/random.js';
import { fitWindow } from './fit-window.js';
import { isMeasured, measureField, type MeasuredCell } from './measure-field.js';
import { settingFromWindow } from './setting-from-window.js';
import type { WindowCell } from './window-terms.js';

const STEEL = { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 };
const random = seededRandom(8);
/** Contrast that rises with what is laid down and levels off: 60 where much is. */
const truth = (powerW: number, speedMmPerS: number) =>
  60 / (1 + Math.exp(-3 * (Math.log(powerW) - 0.6 * Math.log(speedMmPerS) - 0.3)));
const cells: (WindowCell & MeasuredCell)[] = [12, 17, 23, 30, 38, 46].flatMap((powerW) =>
  [40, 60, 90, 135, 200, 300, 400].map((speedMmPerS) => {
    const effect = Math.log(powerW) - 0.6 * Math.log(speedMmPerS) + 0.06 * standardNormal(random);
    const outcome = effect < 0.3 ? 'under' : effect > 1.5 ? 'over' : 'holds';
    const contrast = truth(powerW, speedMmPerS) + 2 * standardNormal(random);
    const measures = { contrast, chroma: 4, grain: null, edgeUm: null };
    return { ...{ powerW, speedMmPerS, intervalMm: 0.06, passes: 1 }, outcome, measures } as const;
  }),
);
const at = (powerW: number, speedMmPerS: number) => ({ powerW, speedMmPerS, intervalMm: 0.06, passes: 1 });

describe('what pictures tell over a window', () => {
  const field = measureField(cells, 'contrast')!;

  it('is the contrast between and at the cells, with an interval that holds marks not seen', () => {
    expect(field.cells).toBe(42);
    for (const [power, speed] of [
      [26, 75],
      [42, 170],
      [20, 50],
    ] as const) {
      const { mean, low, high } = field.at(at(power, speed));
      expect(Math.abs(mean - truth(power, speed))).toBeLessThan(4);
      expect(low).toBeLessThan(truth(power, speed));
      expect(high).toBeGreaterThan(truth(power, speed));
      expect(field.mean(at(power, speed))).toBeCloseTo(mean, 9);
    }
  });

  it('widens where nothing was read, and is none of fewer than eight cells or of what no picture told', () => {
    const width = (power: number, speed: number) => field.at(at(power, speed)).high - field.at(at(power, speed)).low;
    expect(width(46, 2000)).toBeGreaterThan(1.5 * width(26, 75));
    expect(measureField(cells.slice(0, 7), 'contrast')).toBeNull();
    expect([isMeasured(cells, 'grain'), isMeasured(cells, 'chroma')]).toEqual([false, true]);
  });

  it('chooses the strongest mark among settings that are proven, and no other', () => {
    const fit = fitWindow({ cells, equipment: STEEL, seed: 1 });
    const job = {
      power: { ratedW: 50, firingThresholdPercent: 5, calibration: undefined, ratingFactor: undefined },
      motion: { kind: 'gantry', accelerationMmPerS2: 5000, rapidMmPerS: 600 },
      ...{ topSpeedMmPerS: 600, widthMm: 40, heightMm: 12, directions: 'two-way' as const, bound: 0.8 },
      tolerance: { powerShare: 0.05, focusShare: 0.02 },
    } as const;
    const { quickest, strongest } = settingFromWindow(fit, job, null, (point) => field.mean(point));
    expect(strongest!.sure).toBeGreaterThanOrEqual(0.95);
    expect(field.mean(strongest!)).toBeGreaterThan(field.mean(quickest!));
    expect(settingFromWindow(fit, job).strongest).toBeNull();
    // Of a mark that is to be light, the least dark.
    const lightest = settingFromWindow(fit, job, null, (point) => -field.mean(point)).strongest!;
    expect(field.mean(lightest)).toBeLessThan(field.mean(strongest!));
  });
});
