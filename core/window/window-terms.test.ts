import { describe, expect, it } from 'vitest';
import { seededRandom, standardNormal } from '../support/index.js';
import { boundariesAt, fitWindow, outcomeChances } from './fit-window.js';
import { judgeSetting, type SettingJob } from './setting-search.js';
import { settingFromWindow } from './setting-from-window.js';
import { formRow, windowForm } from './window-form.js';
import { variedTerms, type WindowCell } from './window-terms.js';

const equipment = { radiusMm: 0.03, conductivity: 0.0162, diffusivity: 4.05 };
const job: SettingJob = {
  power: { ratedW: 60 },
  motion: { kind: 'galvo', jumpMmPerS: 8000, delayS: 0.0003 },
  topSpeedMmPerS: 8000,
  widthMm: 20,
  heightMm: 10,
  directions: 'two-way',
  tolerance: { powerShare: 0.05, focusShare: 0.01 },
  bound: 0.8,
};

/** A made-up metal that is best at 80 kHz: bonding by P·v^−0.6, less the square of ln f off 80. Spray noise 6 %. */
function overFrequency(seed: number, frequencies: readonly number[]): WindowCell[] {
  const random = seededRandom(seed);
  return frequencies.flatMap((frequencyKHz) =>
    [20, 28, 36, 44, 52].flatMap((powerW) =>
      [200, 350, 600, 1000].map((speedMmPerS): WindowCell => {
        const off = Math.log(frequencyKHz / 80) ** 2;
        const effect = Math.log(powerW) - 0.6 * Math.log(speedMmPerS) - 0.9 * off + 0.06 * standardNormal(random);
        const outcome = effect < -0.25 ? 'under' : effect < 0.55 ? 'holds' : 'over';
        return { powerW, speedMmPerS, intervalMm: 0.03, passes: 1, frequencyKHz, outcome };
      }),
    ),
  );
}

describe('a term that cells vary', () => {
  const fit = fitWindow({ cells: overFrequency(5, [30, 50, 80, 130, 200]), equipment, seed: 1 });

  it('enters the fit, straight and squared, with its best inside', () => {
    expect(fit.form.terms.map(({ term }) => term)).toEqual(['frequencyKHz']);
    const under = (frequencyKHz: number) =>
      outcomeChances(fit, { powerW: 30, speedMmPerS: 700, intervalMm: 0.03, passes: 1, frequencyKHz }).under;
    expect(under(30)).toBeGreaterThan(under(80));
    expect(under(200)).toBeGreaterThan(under(80));
  });

  it('may be the coats: a thicker film asks for more power, and its best may lie inside', () => {
    const cells = overFrequency(6, [80, 80, 80]).map((cell, i): WindowCell => {
      const coats = 1 + Math.floor(i / 20);
      return { ...cell, coats, outcome: coats === 3 && cell.outcome === 'holds' ? 'under' : cell.outcome };
    });
    const over = fitWindow({ cells, equipment, seed: 1 });
    expect(over.form.terms.map(({ term }) => term)).toContain('coats');
    const holds = (coats: number) => outcomeChances(over, { ...cells[0]!, powerW: 40, speedMmPerS: 400, coats }).holds;
    expect(holds(1)).toBeGreaterThan(holds(3));
    const { quickest } = settingFromWindow(over, job);
    expect([1, 2]).toContain(quickest!.coats);
  });

  it('is part of the setting to use, at a value that was tried', () => {
    const { quickest } = settingFromWindow(fit, job);
    expect([30, 50, 80, 130, 200]).toContain(quickest!.frequencyKHz);
    expect(quickest!.frequencyKHz).toBe(80);
  });

  it('keeps a value that nothing tried outside', () => {
    const point = { powerW: 36, speedMmPerS: 350, intervalMm: 0.03, passes: 1 };
    expect(judgeSetting(fit, { ...point, frequencyKHz: 80 }, job).inside).toBe(true);
    expect(judgeSetting(fit, { ...point, frequencyKHz: 400 }, job).inside).toBe(false);
    expect(() => judgeSetting(fit, point, job)).toThrow(/must be a number/);
  });

  it('is told from what stays the same', () => {
    expect(variedTerms(overFrequency(1, [80]))).toEqual([]);
    const once = { powerW: 1, speedMmPerS: 1, intervalMm: 1, passes: 1, hatches: 1, outcome: 'holds' as const };
    const crossed = { ...once, passes: 2, hatches: 2 };
    const form = windowForm([once, crossed]);
    expect(formRow(form, crossed)[5]! - formRow(form, once)[5]!).toBeCloseTo(Math.log(4));
  });
});

describe('intervals', () => {
  it('prove nothing between them', () => {
    const cells = [0.03, 0.05].flatMap((intervalMm) => overFrequency(7, [80]).map((cell) => ({ ...cell, intervalMm })));
    const fit = fitWindow({ cells, equipment, seed: 1 });
    const point = { powerW: 36, speedMmPerS: 350, passes: 1 };
    expect(judgeSetting(fit, { ...point, intervalMm: 0.03 }, job).inside).toBe(true);
    expect(judgeSetting(fit, { ...point, intervalMm: 0.04 }, job).inside).toBe(false);
  });
});

describe('cells judged by eye', () => {
  const clean = overFrequency(11, [80, 81]).map(({ frequencyKHz: _, ...cell }) => cell);
  /** The quickest, weakest cell is said to hold, which it cannot. */
  const misread = clean.map((cell): WindowCell => {
    const wrong = cell.powerW === 20 && cell.speedMmPerS === 1000;
    return wrong ? { ...cell, outcome: 'holds' } : cell;
  });
  const underAt = (cells: readonly WindowCell[]) =>
    outcomeChances(fitWindow({ cells, equipment, seed: 1 }), {
      ...{ powerW: 20, speedMmPerS: 1000, intervalMm: 0.03, passes: 1 },
    }).under;

  it('and any other that is wrong and far off hardly move the fit', () => {
    const right = underAt(clean);
    expect(underAt(misread)).toBeGreaterThan(right - 0.01);
    expect(underAt(misread.map((cell) => ({ ...cell, byEye: true })))).toBeGreaterThan(right - 0.01);
  });

  it('leave the window wider than the same cells read from pictures', () => {
    const wide = (cells: readonly WindowCell[]) => {
      const at = { powerW: 30, speedMmPerS: 400, intervalMm: 0.03, passes: 1 };
      const needs = [...boundariesAt(fitWindow({ cells, equipment, seed: 1 }), at).bondAt].sort((a, b) => a - b);
      return needs[285]! - needs[15]!;
    };
    expect(wide(clean.map((cell) => ({ ...cell, byEye: true })))).toBeGreaterThan(wide(clean));
  });
});
