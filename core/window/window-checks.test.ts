import { describe, expect, it } from 'vitest';
import { median } from '../statistics/median.js';
import { seededRandom } from '../support/random.js';
import { fitWindow, outcomeChances } from './fit-window.js';
import { fitNotes, fitNoteWords, oddCells } from './window-checks.js';
import type { WindowCell } from './window-terms.js';

const equipment = { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 };
/** A made-up coat: holds where P·v^−0.7 lies between two values, with a logistic noise. */
function cellsOf(k: number, gap: number, seed = 3): WindowCell[] {
  const random = seededRandom(seed);
  return [25, 29, 33, 38, 44, 50, 55].flatMap((powerW) =>
    [40, 60, 90, 135, 200, 300, 450].map((speedMmPerS): WindowCell => {
      const x = Math.log(powerW / 55) - 0.7 * Math.log(speedMmPerS / 200);
      const luck = random();
      const effect = x + Math.log(luck / (1 - luck)) / k;
      const outcome = effect < 0 ? 'under' : effect < gap ? 'holds' : 'over';
      return { powerW, speedMmPerS, intervalMm: 0.06, passes: 1, outcome };
    }),
  );
}
const fitOf = (cells: readonly WindowCell[]) => fitWindow({ cells, equipment, seed: 1 });

describe('cells that disagree with the others', () => {
  it('are found, and named first where they are oddest', () => {
    const cells = cellsOf(30, 0.9);
    const deep = cells.findIndex(({ powerW, speedMmPerS }) => powerW === 25 && speedMmPerS === 450);
    const wrong = cells.map((cell, i): WindowCell => (i === deep ? { ...cell, outcome: 'holds' } : cell));
    expect(oddCells(fitOf(wrong))[0]!.index).toBe(deep);
  });

  it('are asked for once: seen again, they count, and are pointed out no more', () => {
    const cells = cellsOf(30, 0.9);
    // Two that fail where all around hold: misread, unless somebody looks again.
    const clean = fitOf(cells);
    const surely = cells.map((cell, i) => ({ i, holds: outcomeChances(clean, cell).holds }));
    surely.sort((a, b) => b.holds - a.holds);
    const among = [surely[0]!.i, surely[5]!.i];
    const failing = (lookedAgain: boolean) =>
      fitOf(cells.map((cell, i) => (among.includes(i) ? { ...cell, outcome: 'under' as const, lookedAgain } : cell)));
    const [once, again] = [failing(false), failing(true)];
    const pointedOut = (fit: typeof once) => oddCells(fit).filter(({ index }) => among.includes(index)).length;
    expect(pointedOut(once)).toBeGreaterThan(0);
    expect(pointedOut(again)).toBe(0);
    // The edge is then less sharp than it seemed.
    expect(median(again.bondK)).toBeLessThan(0.85 * median(once.bondK));
  });

  it('are few where all follow their coat', () => {
    const found = [1, 2, 3, 4].map((seed) => oddCells(fitOf(cellsOf(20, 0.9, seed))).length);
    expect(found.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(4);
  });
});

describe('what is said of a fit', () => {
  it('is nothing where cells follow it', () => {
    expect(fitNotes(fitOf(cellsOf(20, 0.9)))).toEqual([]);
  });

  it.each([
    ['nothing held', cellsOf(20, 0.9).filter(({ outcome }) => outcome !== 'holds')],
    ['nothing failed', cellsOf(20, 0.9).filter(({ outcome }) => outcome === 'holds')],
    ['narrow band', cellsOf(40, 0.15)],
    ['blurred', [1, 2, 3, 4].flatMap((seed) => cellsOf(4, 1.6, seed))],
  ] as const)('tells of %s', (note, cells) => {
    const fit = fitOf(cells);
    expect(fitNotes(fit)).toContain(note);
    expect(fitNoteWords(fit, note).length).toBeGreaterThan(30);
  });

  it('tells of cells that contradict any edge', () => {
    const random = seededRandom(9);
    const mixed = cellsOf(30, 0.9).map((cell): WindowCell =>
      random() < 0.22 ? { ...cell, outcome: cell.outcome === 'holds' ? 'under' : 'holds' } : cell,
    );
    const fit = fitOf(mixed);
    expect(fitNotes(fit)).toContain('cells contradict');
    expect(fitNoteWords(fit, 'cells contradict')).toMatch(/^\d+ of 49 cells lie where they are not expected/);
  });
});
