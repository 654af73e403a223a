import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readLooseTable } from './loose-table.js';

describe('a table from wherever', () => {
  it.each([
    ['a\tb\n1\t2', '\t'],
    ['a;b\n1,5;2', ';'],
    ['a,b\n1,2', ','],
    ['a|b\n1|2', '|'],
  ])('%j is parted by %j', (text, delimiter) => {
    const table = readLooseTable(text);
    expect(table.delimiter).toBe(delimiter);
    expect(table.header).toEqual(['a', 'b']);
    expect(table.columns).toBe(2);
  });

  it('has no heading where its first row holds numbers, and lines of unlike length', () => {
    const table = readLooseTable('brass;90;200\n\nsteel;80\nglass;20;10;chipped\n');
    expect(table.header).toBeNull();
    expect(table.rows.map(({ cells }) => cells.length)).toEqual([3, 2, 4]);
    expect(table.rows.map(({ line }) => line)).toEqual([1, 3, 4]);
  });

  it('keeps quoted separators and line ends inside a cell', () => {
    expect(readLooseTable('what,power\n"tags, 2nd lot",90\n').rows[0]!.cells).toEqual(['tags, 2nd lot', '90']);
  });

  it('refuses what holds nothing, or too much', () => {
    expect(() => readLooseTable(' \n\n')).toThrow(/no row/);
    expect(() => readLooseTable(`${','.repeat(80)}x\n1,2`)).toThrow(/at most 60/);
  });

  it('reads or refuses any text, and never breaks', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), (text) => {
        try {
          expect(readLooseTable(text).rows.length).toBeGreaterThan(0);
        } catch (error) {
          expect((error as Error).message).not.toBe('');
          expect((error as { code?: string }).code).toMatch(/^csv\./);
        }
      }),
    );
  });
});
