import { describe, expect, it } from 'vitest';
import { seededRandom, standardNormal } from '../support/index.js';
import type { EarlierWindow } from './earlier-windows.js';
import { boundariesAt, fitWindow } from './fit-window.js';
import { lessonWords } from './lesson-words.js';
import type { WindowCell } from './window-terms.js';

const STEEL = { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 };
const ratios = (low: number, high: number, count: number) =>
  Array.from({ length: count }, (_, i) => low * (high / low) ** (i / (count - 1)));

/** Cells of coats whose bonding goes with P·v^−0.6, from so much effect on, with spray noise. */
function cellsOf(seed: number, columns: number, rows: number, bonds = 0.55, noise = 0.06): WindowCell[] {
  const random = seededRandom(seed);
  return ratios(20, 55, columns).flatMap((powerW) =>
    ratios(50, 500, rows).map((speedMmPerS) => {
      const effect = Math.log(powerW) - 0.6 * Math.log(speedMmPerS) + noise * standardNormal(random);
      return {
        ...{ powerW, speedMmPerS, intervalMm: 0.06, passes: 1 },
        outcome: effect < bonds ? 'under' : effect < bonds + 0.8 ? 'holds' : 'over',
      };
    }),
  );
}
const known = (count: number, bonds?: number): EarlierWindow[] =>
  Array.from({ length: count }, (_, i) => ({
    equipment: STEEL,
    fit: fitWindow({ cells: cellsOf(50 + i, 6, 8, bonds), equipment: STEEL, seed: 3, effort: 'quick' }),
  }));
const spreadOf = (values: Float64Array) => {
  const mean = values.reduce((sum, one) => sum + one, 0) / values.length;
  return { mean, sd: Math.sqrt(values.reduce((sum, one) => sum + (one - mean) ** 2, 0) / values.length) };
};
const edge = (fit: EarlierWindow['fit']) =>
  spreadOf(boundariesAt(fit, { powerW: 1, speedMmPerS: 158, intervalMm: 0.06, passes: 1 }).bondAt);

describe('what earlier windows teach', () => {
  const cells = cellsOf(7, 3, 4);
  const alone = fitWindow({ cells, equipment: STEEL, seed: 1 });

  it('narrows what is known where they are of one kind, and moves towards what they say', () => {
    const taught = fitWindow({ cells, equipment: STEEL, seed: 1, earlier: known(5) });
    expect(edge(taught).sd).toBeLessThan(edge(alone).sd);
    const truly = 0.55 + 0.6 * Math.log(158);
    expect(Math.abs(edge(taught).mean - truly)).toBeLessThan(2 * edge(taught).sd + 0.02);
    for (const { weight } of taught.lessons) {
      expect(weight).toBeGreaterThanOrEqual(0);
      expect(weight).toBeLessThanOrEqual(1);
    }
    expect(lessonWords(taught.lessons).join(' ')).toMatch(/Bonding: of what is known, .*5 windows elsewhere/);
  });

  it('leaves out what the cells here contradict, and says so', () => {
    const many = cellsOf(8, 6, 8);
    const taught = fitWindow({ cells: many, equipment: STEEL, seed: 1, earlier: known(5, 1.6) });
    const level = taught.lessons.find(({ boundary, of }) => boundary === 'bond' && of === 'level')!;
    expect(level).toMatchObject({ used: false, weight: 0 });
    expect(Math.abs(edge(taught).mean - edge(fitWindow({ cells: many, equipment: STEEL, seed: 1 })).mean)).toBeLessThan(
      0.04,
    );
    expect(lessonWords(taught.lessons).join(' ')).toContain('left out');
  });

  it('weighs less the more cells there are here', () => {
    const [few, many] = [cellsOf(9, 3, 4), cellsOf(9, 8, 10)].map((own) => {
      const { lessons } = fitWindow({ cells: own, equipment: STEEL, seed: 1, earlier: known(4) });
      return lessons.reduce((sum, { weight }) => sum + weight, 0);
    });
    expect(many).toBeLessThan(few!);
  });

  it('says of one window alone far less than of many', () => {
    const sdOf = (count: number) =>
      fitWindow({ cells, equipment: STEEL, seed: 1, earlier: known(count) }).lessons.find(
        ({ boundary, of }) => boundary === 'bond' && of === 'level',
      )!.expected.sd;
    expect(sdOf(1)).toBeGreaterThan(1.3 * sdOf(6));
  });

  it('carries the level to another spot by dose and by heat, unsurely where these differ', () => {
    const onBrass = { ...STEEL, conductivity: 0.12, diffusivity: 36 };
    const level = (equipment: typeof STEEL) =>
      fitWindow({ cells: cells.slice(0, 2), equipment, seed: 1, earlier: known(4) }).lessons.find(
        ({ boundary, of }) => boundary === 'bond' && of === 'level',
      )!.expected;
    expect(level(onBrass).mean).toBeGreaterThan(level(STEEL).mean + 0.2);
    expect(level(onBrass).sd).toBeGreaterThan(level(STEEL).sd);
  });

  it('changes nothing where there is none', () => {
    expect(fitWindow({ cells, equipment: STEEL, seed: 1, earlier: [] }).bond).toEqual(alone.bond);
    expect(lessonWords(alone.lessons)).toEqual([]);
  });
});
