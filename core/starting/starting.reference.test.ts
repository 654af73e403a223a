import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arealDose, heatIndex } from '../index.js';
import { carriedSpeeds, speedOfHeat, startingRange, type StartingBench, type StartingPoint } from './starting-range.js';
import { USUAL_SETTINGS, usualSettingsOf } from './usual-settings.js';

const STAINLESS = { conductivity: 0.0162, diffusivity: 4.05 };
const BENCH: StartingBench = {
  ...STAINLESS,
  ...{ fullW: 38, firingThresholdPercent: 8, topSpeedMmPerS: 400, radiusMm: 0.085 },
};
const point = (change: Partial<StartingPoint> = {}): StartingPoint => ({
  powerW: 39,
  speedMmPerS: { low: 150, high: 250 },
  intervalMm: 0.075,
  grade: 'usual',
  source: 'usual practice',
  ...change,
});

describe('the speed that heats as much', () => {
  it('is the one that the heat index came from', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 100, noNaN: true }),
        fc.double({ min: 1, max: 5000, noNaN: true }),
        (powerW, speedMmPerS) => {
          const heat = { ...STAINLESS, radiusMm: 0.1, powerW };
          expect(speedOfHeat(heatIndex({ ...heat, speedMmPerS }), heat) / speedMmPerS).toBeCloseTo(1, 4);
        },
      ),
      { numRuns: 30 },
    );
  });

  it('is none where even a standing spot heats less', () => {
    const heat = { ...STAINLESS, radiusMm: 0.1 };
    expect(speedOfHeat(heatIndex({ ...heat, powerW: 50, speedMmPerS: 1 }), { ...heat, powerW: 1 })).toBe(0);
  });
});

describe('a point carried to another power', () => {
  it('keeps its dose: twice the power, twice the speed; half the interval, twice again', () => {
    const at = { powerW: 78, intervalMm: 0.0375 };
    const { byDose } = carriedSpeeds(point(), BENCH, at);
    expect(byDose.low).toBeCloseTo(4 * 150, 9);
    const before = arealDose({ powerW: 39, speedMmPerS: 150, intervalMm: 0.075, passes: 1 });
    expect(arealDose({ powerW: 78, speedMmPerS: byDose.low, intervalMm: 0.0375, passes: 1 })).toBeCloseTo(before, 9);
  });

  it('keeps its heat: at speed the rise goes with power ÷ √speed, so twice the power is four times the speed', () => {
    // Asymptote of Cline & Anthony for v·w/α far above 1.
    const { byHeat } = carriedSpeeds(
      point({ speedMmPerS: { low: 2000, high: 2000 } }),
      { ...BENCH, topSpeedMmPerS: 1e5 },
      { powerW: 78, intervalMm: 0.075 },
    );
    // Not there yet at 2000 mm/s on steel: a little above four.
    expect(byHeat.low / 2000).toBeGreaterThan(3.9);
    expect(byHeat.low / 2000).toBeLessThan(4.4);
  });
});

describe('a point that held under another spot', () => {
  it('keeps its areal dose, which knows no spot, and its heat as the spot there made it', () => {
    const under = { ...STAINLESS, radiusMm: 0.07 };
    const there = { powerW: 39, speedMmPerS: { low: 200, high: 200 }, intervalMm: 0.075, under };
    const { byDose, byHeat } = carriedSpeeds(there, BENCH, { powerW: 39, intervalMm: 0.075 });
    expect(byDose.low).toBeCloseTo(200, 9);
    // The finer spot heats more at one speed: the wider one must go slower for as much.
    expect(byHeat.low).toBeLessThan(200);
    expect(heatIndex({ ...BENCH, powerW: 39, speedMmPerS: byHeat.low })).toBeCloseTo(
      heatIndex({ ...under, powerW: 39, speedMmPerS: 200 }),
      2,
    );
  });

  it('stands behind what held here, before what is said, and reaches further', () => {
    const held = point({ grade: 'carried' });
    const elsewhere = { ...held, under: { ...STAINLESS, radiusMm: 0.085 }, source: 'elsewhere' };
    const sources = (points: StartingPoint[]) => startingRange(points, BENCH).from.map(({ source }) => source);
    expect(sources([point({ grade: 'stated' }), elsewhere, held])).toEqual([held.source]);
    expect(sources([point({ grade: 'stated' }), elsewhere])).toEqual(['elsewhere']);
    const [here, there] = [startingRange([held], BENCH), startingRange([elsewhere], BENCH)];
    expect(there.speedMmPerS.from).toBeLessThan(here.speedMmPerS.from);
    expect(there.speedMmPerS.to).toBeGreaterThan(here.speedMmPerS.to);
  });
});

describe('a starting coupon', () => {
  it('holds the usual 150 to 175 mm/s of 40 W heads on stainless, and the fastest that hold', () => {
    // Common practice, no source.
    const range = startingRange([point()], BENCH);
    expect(range.powerPercent).toEqual({ from: 50, to: 100 });
    expect(range.speedMmPerS.from).toBeLessThan(100);
    expect(range.speedMmPerS.to).toBeGreaterThan(300);
    expect(range.grade).toBe('usual');
  });

  it('goes faster on a stronger head, by as much as dose and heat allow', () => {
    const weak = startingRange([point()], { ...BENCH, topSpeedMmPerS: 2000 });
    const strong = startingRange([point()], { ...BENCH, fullW: 76, topSpeedMmPerS: 2000 });
    const middle = ({ speedMmPerS: { from, to } }: typeof weak) => Math.sqrt(from * to);
    expect(middle(strong) / middle(weak)).toBeGreaterThan(1.5);
    expect(middle(strong) / middle(weak)).toBeLessThan(4.5);
  });

  it('sets power round little of it, as for glass on a strong head', () => {
    const glass = point({ powerW: 9, speedMmPerS: { low: 40, high: 400 }, intervalMm: null });
    const { powerPercent } = startingRange([glass], { ...BENCH, fullW: 78, topSpeedMmPerS: 800 });
    expect(powerPercent.from).toBeGreaterThanOrEqual(9);
    expect(powerPercent.to).toBeLessThan(40);
  });

  it('follows what was stated before what is usual, and reaches less far', () => {
    const usual = startingRange([point()], BENCH);
    const stated = startingRange([point(), point({ grade: 'stated', source: 'a note' })], BENCH);
    expect(stated.from.map(({ source }) => source)).toEqual(['a note']);
    expect(stated.speedMmPerS.from).toBeGreaterThan(usual.speedMmPerS.from);
  });

  it('stays within what the head can do, whatever was said', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 200, noNaN: true }),
        fc.double({ min: 0.5, max: 3000, noNaN: true }),
        fc.double({ min: 1, max: 20, noNaN: true }),
        fc.double({ min: 1, max: 120, noNaN: true }),
        fc.double({ min: 50, max: 8000, noNaN: true }),
        (powerW, low, ratio, fullW, topSpeedMmPerS) => {
          const bench = { ...BENCH, fullW, topSpeedMmPerS };
          let range;
          try {
            range = startingRange([point({ powerW, speedMmPerS: { low, high: low * ratio } })], bench);
          } catch (error) {
            expect((error as { code: string }).code).toBe('starting.out-of-reach');
            return;
          }
          const { powerPercent, speedMmPerS } = range;
          expect(powerPercent.from).toBeGreaterThan(8);
          expect(powerPercent.to).toBeLessThanOrEqual(100);
          expect(powerPercent.from).toBeLessThan(powerPercent.to);
          expect(speedMmPerS.from).toBeGreaterThan(0);
          expect(speedMmPerS.from).toBeLessThan(speedMmPerS.to);
          expect(speedMmPerS.to).toBeLessThanOrEqual(topSpeedMmPerS);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('spans what the head can do, as a guess, where nothing is known', () => {
    expect(startingRange([], BENCH)).toMatchObject({
      powerPercent: { from: 40, to: 100 },
      speedMmPerS: { from: 40, to: 300 },
      grade: 'guess',
      from: [],
    });
  });
});

describe('settings usual in the trade', () => {
  const stainless = { beam: 'co2', emission: 'continuous', family: 'stainless', layer: 'bare' } as const;

  it('are told by beam, compound and material', () => {
    expect(usualSettingsOf({ ...stainless, by: 'dry-film lubricant' })).toMatchObject([
      { powerW: 36, speedMmPerS: { low: 30, high: 40 } },
    ]);
    expect(usualSettingsOf({ ...stainless, by: 'nothing' })).toEqual([]);
    expect(usualSettingsOf({ ...stainless, beam: 'ultraviolet', by: 'universal' })).toEqual([]);
    expect(
      usualSettingsOf({ ...stainless, beam: 'blue', family: 'aluminium', layer: 'anodised', by: 'nothing' }),
    ).toHaveLength(1);
  });

  it('are figures that a bench can have', () => {
    for (const { powerW, speedMmPerS, intervalMm } of USUAL_SETTINGS) {
      expect(powerW > 0 && powerW <= 100 && speedMmPerS.low > 0 && speedMmPerS.high >= speedMmPerS.low).toBe(true);
      expect(intervalMm === null || (intervalMm > 0.01 && intervalMm < 0.2)).toBe(true);
    }
  });
});
