import { describe, expect, it } from 'vitest';
import { seededRandom, standardNormal } from '../support/index.js';
import { fitWindow } from './fit-window.js';
import { matchPiece, type MatchTarget } from './match-piece.js';
import type { MeasuredCell } from './measure-field.js';
import type { SettingJob } from './setting-search.js';
import { triedPlaces } from './tried.js';
import type { WindowCell } from './window-terms.js';

const EQUIPMENT = { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 };
const JOB: SettingJob = {
  power: { ratedW: 55 },
  motion: { kind: 'galvo', jumpMmPerS: 5000, delayS: 0 },
  ...{ topSpeedMmPerS: 600, widthMm: 38, heightMm: 22, directions: 'two-way', bound: 0.8 },
  tolerance: { powerShare: 0.05, focusShare: 0 },
};
/** ln of effect, contrast and tint of a made-up coat: the more effect, the darker and the browner. */
const effectOf = (powerW: number, speedMmPerS: number) => Math.log(powerW) - 0.6 * Math.log(speedMmPerS);
const looks = (effect: number) => ({
  contrast: 40 + 25 * (effect - 0.95),
  chroma: Math.max(0, 4 + 12 * (effect - 0.95)),
});

const random = seededRandom(3);
const cells: (WindowCell & MeasuredCell)[] = [22, 27, 33, 40, 47, 55].flatMap((powerW) =>
  [50, 80, 120, 180, 260, 360, 480].map((speedMmPerS) => {
    const effect = effectOf(powerW, speedMmPerS) + 0.05 * standardNormal(random);
    const { contrast, chroma } = looks(effect);
    return {
      ...{ powerW, speedMmPerS, intervalMm: 0.06, passes: 1 },
      outcome: effect < 0.55 ? 'under' : effect < 1.35 ? 'holds' : 'over',
      measures: { contrast: effect < 0.55 ? 5 : contrast, chroma, grain: 1, edgeUm: null },
    };
  }),
);
const fit = fitWindow({ cells, equipment: EQUIPMENT, seed: 1 });
const bare = { l: 80, a: 0, b: 2 };
const targetOf = (effect: number): MatchTarget => {
  const { contrast, chroma } = looks(effect);
  return { bare, mark: { l: bare.l - contrast, a: 0, b: chroma }, contrast, chroma, grain: 1, edgeUm: 120 };
};

describe('matching a piece', () => {
  it('finds a setting whose marks are expected to look like it', () => {
    for (const wanted of [0.85, 0.95, 1.1]) {
      const { nearest } = matchPiece(fit, JOB, { cells, target: targetOf(wanted) });
      const { powerW, speedMmPerS } = nearest!.choice;
      expect(Math.abs(effectOf(powerW, speedMmPerS) - wanted)).toBeLessThan(0.12);
      expect(nearest!.remaining.middle).toBeLessThan(6);
      expect(nearest!.remaining.low).toBeLessThanOrEqual(nearest!.remaining.middle);
      expect(nearest!.remaining.high).toBeGreaterThanOrEqual(nearest!.remaining.middle);
    }
  });

  it('offers a proven one beside it, further off where the nearest is not proven', () => {
    const { nearest, proven } = matchPiece(fit, JOB, { cells, target: targetOf(0.6) });
    expect(proven!.choice.sure).toBeGreaterThanOrEqual(0.95);
    expect(proven!.off).toBeGreaterThanOrEqual(nearest!.off);
    expect(nearest!.choice.holds).toBeGreaterThanOrEqual(0.5);
  });

  it('never leaves what was tried, and says how far off it stays where nothing tried looks like it', () => {
    const tried = triedPlaces(fit, JOB.tolerance);
    const { nearest } = matchPiece(fit, JOB, {
      cells,
      target: { ...targetOf(0.95), mark: { l: 2, a: 0, b: 0 }, contrast: 78 },
    });
    expect(tried(nearest!.choice)).toBe(true);
    expect(nearest!.remaining.low).toBeGreaterThan(5);
    expect(nearest!.off).toBeGreaterThan(5);
  });

  it('weighs only what both tell: a piece whose tint could not be read is matched by the rest', () => {
    const { nearest } = matchPiece(fit, JOB, { cells, target: { ...targetOf(0.95), chroma: null } });
    expect(nearest!.expected.contrast!.mean).toBeGreaterThan(35);
    expect(nearest!.expected.edgeUm).toBeNull();
  });

  it('answers nothing where no picture told the contrast', () => {
    const blind = cells.map((cell) => ({ ...cell, measures: null }));
    expect(matchPiece(fit, JOB, { cells: blind, target: targetOf(1) })).toEqual({ nearest: null, proven: null });
  });
});
