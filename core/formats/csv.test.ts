import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { decodeTable, readCsv, writeCsv, writeCsvRows } from './csv.js';

const cells = (text: string, column: string) => readCsv(text).rows.map(({ cells: row }) => row[column]);

describe('tables come back as they were written', () => {
  it('whatever their cells hold', () => {
    const name = fc.string({ minLength: 1, maxLength: 8 }).map((text) => `c${text.replaceAll(/[\0\s'=+\-@]/g, '')}`);
    const table = fc
      .tuple(
        fc.uniqueArray(name, { minLength: 1, maxLength: 5 }),
        fc.array(fc.array(fc.string(), { minLength: 5, maxLength: 5 }), { maxLength: 6 }),
      )
      .map(([columns, rows]) => ({
        columns,
        rows: rows.map((row) => Object.fromEntries(columns.map((column, i) => [column, row[i]!.replaceAll('\0', '')]))),
      }));
    fc.assert(
      fc.property(table, ({ columns, rows }) => {
        const back = readCsv(writeCsv(columns, rows), columns);
        expect(back.rows.map(({ cells: row }) => row)).toEqual(
          // A row of several empty cells is written as commas, one of a single empty cell as a blank line.
          rows,
        );
      }),
    );
  });

  it('an empty single cell is a row', () => {
    expect(writeCsv(['lot'], [{ lot: 'K7' }, { lot: '' }, { lot: null }, { lot: 'K8' }])).toBe(
      'lot\r\nK7\r\n\r\n\r\nK8\r\n',
    );
    expect(cells('lot\r\nK7\r\n\r\n\r\nK8\r\n', 'lot')).toEqual(['K7', '', '', 'K8']);
  });

  it('a blank line between rows of several cells is none', () => {
    expect(cells('a,b\r\n1,2\r\n\r\n3,4\r\n\r\n', 'a')).toEqual(['1', '3']);
  });

  it('is written in pieces as it is written whole', () => {
    const rows = [
      { a: 1, b: '=sum' },
      { a: null, b: ' "x" ' },
    ];
    expect(writeCsv(['a', 'b'], []) + rows.map((row) => writeCsvRows(['a', 'b'], [row])).join('')).toBe(
      writeCsv(['a', 'b'], rows),
    );
  });
});

describe('tables from elsewhere', () => {
  it('may end their lines as they like, each another way', () => {
    expect(cells('a,b\r\n1,2\n3,4\r5,6', 'b')).toEqual(['2', '4', '6']);
    expect(readCsv('a,b\n1,2\r\n3,4\n').rows.map(({ line }) => line)).toEqual([2, 3]);
  });

  it('a doubled heading is refused by its name', () => {
    expect(() => readCsv('id,power, power \r\n1,2,3\r\n')).toThrow(/column “power” twice/);
  });

  // RFC 3629 forbids overlong forms, surrogates and what lies beyond U+10FFFF.
  it.each([
    ['overlong slash', [0xc0, 0xaf]],
    ['overlong of three bytes', [0xe0, 0x80, 0xaf]],
    ['a surrogate', [0xed, 0xa0, 0x80]],
    ['beyond the last character', [0xf4, 0x90, 0x80, 0x80]],
    ['cut short', [0xe2, 0x82]],
  ])('bytes that are not UTF-8 are told by their line: %s', (_, bytes) => {
    const table = Uint8Array.from([...new TextEncoder().encode('a\n1\n'), ...bytes, 10, 49]);
    expect(() => decodeTable(table)).toThrow(/Line 3 holds a character that is not UTF-8/);
  });

  it('refuses a heading that is none, at once', () => {
    const begun = performance.now();
    for (const heading of ['['.repeat(50_000), Array.from({ length: 20_000 }, (_, i) => `c${i}`).join(',')])
      expect(() => readCsv(`${heading}\r\n1\r\n`, [])).toThrow(
        /at most 500 columns are read, each named by at most 200/,
      );
    expect(performance.now() - begun).toBeLessThan(3000);
  });
});
