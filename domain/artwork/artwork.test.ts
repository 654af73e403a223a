import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boxOf, svgArtwork, type Artwork, type ProgramOptions, type SheetBox } from '@unto/core';
import type { LayoutEntries } from '@unto/contract';
import {
  artworkFacts,
  artworkKindOf,
  drawingOf,
  faultsOf,
  layoutMeasure,
  markedNumbers,
  numbersText,
  pieceName,
  pieceNumbers,
  piecePreview,
  pieceSeconds,
  programPieces,
  programText,
  ownShapes,
  readArtwork,
  sharedShapes,
  sweptMark,
  textsOn,
} from './index.js';

const bytes = (text: string) => new TextEncoder().encode(text);
const SAID = { unit: null, closed: 'filled', widthMm: null, darker: 128 } as const;
const SVG =
  '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="30mm" viewBox="0 0 40 30"><rect x="5" y="5" width="12" height="10"/></svg>';
const artwork = svgArtwork(SVG, SAID);
const ENTRIES: LayoutEntries = {
  ...{ artworkId: 'a', xMm: 3, yMm: 2, turnDeg: 0, work: 'both', outlineFirst: false, numberFrom: 1, numberStep: 1 },
  fields: [
    { kind: 'letters', says: 'Bed {bed}', xMm: 3, yMm: 14, heightMm: 3, widthMm: 30, align: 'left' },
    { kind: 'QR', says: '{n:3}', xMm: 20, yMm: 2, heightMm: 9, widthMm: null, align: 'left' },
  ],
  table: {
    columns: ['Bed', 'row'],
    rows: [
      ['1', 'a'],
      ['12', 'a'],
      ['3', 'b'],
    ],
  },
};

/** The box of everything on the first piece. */
const layoutBox = (entries: LayoutEntries, of: Artwork | null) =>
  boxOf([...sharedShapes(entries, of), ...ownShapes(entries, 1)]);

describe('what kind of artwork a file is, by what is in it', () => {
  it.each([
    ['<svg xmlns="http://www.w3.org/2000/svg"/>', 'SVG'],
    ['\uFEFF<?xml version="1.0"?>\n<!-- drawn -->\n<svg/>', 'SVG'],
    ['<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "svg11.dtd"><svg:svg xmlns:svg="x"/>', 'SVG'],
    ['<?xml version="1.0"?><html><body>no drawing</body></html>', null],
    ['0\nSECTION\n2\nHEADER\n', 'DXF'],
    ['  0\r\nSECTION\r\n  2\r\nENTITIES\r\n', 'DXF'],
    ['999\nmade somewhere\n0\nSECTION\n2\nENTITIES\n', 'DXF'],
    ['G21\nG90\nM5\n', 'G-code'],
    ['(a program)\nG0 X1 Y2\n', 'G-code'],
    ['; a program\n\nM3 S100\n', 'G-code'],
    ['bed,name\n1,north\n', null],
    ['hello', null],
    ['', null],
    ['\0\0\0\0', null],
  ])('%j is %s', (text, kind) => expect(artworkKindOf(bytes(text))).toBe(kind));

  it('pictures by their first bytes; a PDF is none', () => {
    expect(artworkKindOf(Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d]))).toBe('picture');
    expect(artworkKindOf(Uint8Array.from([0xff, 0xd8, 0xff, 0xe0]))).toBe('picture');
    expect(artworkKindOf(bytes('%PDF-1.7'))).toBeNull();
  });
});

describe('a picture', () => {
  const grey = Uint8Array.from([10, 200, 10, 200, 200, 200]);
  const picture = { width: 3, height: 2, grey, dotsPerInch: 25.4 };

  it('is marked where it is darker than said, at the size it says or is given', () => {
    const read = (said: object, own: object = {}) =>
      artworkFacts({ kind: 'picture', content: { ...picture, ...own }, entered: { ...SAID, ...said } }).measure;
    expect(read({}).filledMm2).toBeCloseTo(2, 6);
    expect(read({ darker: 250 }).filledMm2).toBeCloseTo(6, 6);
    expect(read({ widthMm: 6 })).toMatchObject({ widthMm: 6, filledMm2: expect.closeTo(8, 6) });
    expect(() => read({}, { dotsPerInch: null })).toThrow(/how large it is/);
    expect(read({ widthMm: 3 }, { dotsPerInch: null }).widthMm).toBeCloseTo(3, 9);
    expect(() => read({ darker: 5 })).toThrow(/Nothing/);
  });
});

it('a file with a byte order mark is read like one without', () => {
  const read = readArtwork({ kind: 'SVG', content: bytes(`\uFEFF${SVG}`), entered: SAID });
  expect([read.widthMm, read.heightMm]).toEqual([expect.closeTo(12, 6), expect.closeTo(10, 6)]);
});

it('is drawn as paths of our own, y down, to a hundredth', () => {
  expect(drawingOf(artwork).paths).toEqual([{ as: 'marked', evenodd: null, d: 'M0 0L12 0L12 10L0 10L0 0Z' }]);
});

describe('numbers of pieces', () => {
  it.each([
    ['7', [7]],
    ['3, 7-9', [3, 7, 8, 9]],
    ['25-27,31,26', [25, 26, 27, 31]],
    ['9-7', null],
    ['0', null],
    ['', null],
    ['seven', null],
    ['1-', null],
    ['3,,4', null],
  ])('“%s” are %j', (text, numbers) => expect(pieceNumbers(text)).toEqual(numbers));

  it('said and read again are the same (property)', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 2000 }), { minLength: 1, maxLength: 60 }), (numbers) => {
        expect(pieceNumbers(numbersText(numbers))).toEqual(numbers);
      }),
    );
    expect(numbersText([25, 26, 27, 31])).toBe('25-27,31');
  });

  it('of a run: as said, else from 1 on', () => {
    expect(markedNumbers({ numbers: '4-5, 2', pieces: 3 })).toEqual([4, 5, 2]);
    expect(markedNumbers({ pieces: 3 })).toEqual([1, 2, 3]);
    expect(markedNumbers({ numbers: null, pieces: 2 })).toEqual([1, 2]);
  });
});

describe('what is on a piece', () => {
  it('is called by its texts, each once', () => {
    expect(textsOn(ENTRIES, 2)).toEqual(['Bed 12', '002']);
    expect(pieceName(ENTRIES, 2)).toBe('Bed 12 · 002');
    expect(pieceName({ ...ENTRIES, fields: [ENTRIES.fields[0]!, ENTRIES.fields[0]!] }, 1)).toBe('Bed 1');
    expect(pieceName({ ...ENTRIES, fields: [] }, 1)).toBe('');
  });

  it('takes the box of artwork and texts together, measured on the piece that carries most', () => {
    const box = layoutBox(ENTRIES, artwork)!;
    expect([box.xMm, box.yMm]).toEqual([3, 2]);
    expect(box.xMm + box.widthMm).toBeCloseTo(29, 1);
    const short = layoutMeasure({ ...ENTRIES, table: { ...ENTRIES.table, rows: [['1']] } }, artwork, 1);
    expect(layoutMeasure(ENTRIES, artwork, 3).linesMm).toBeGreaterThan(short.linesMm);
    expect(layoutBox({ ...ENTRIES, fields: [] }, null)).toBeNull();
    expect(() => layoutMeasure({ ...ENTRIES, fields: [] }, null, 1)).toThrow(/Nothing/);
  });

  it('turned by a quarter it stands as wide as it was high', () => {
    const { widthMm, heightMm } = layoutBox({ ...ENTRIES, fields: [], turnDeg: 90 }, artwork)!;
    expect([widthMm, heightMm]).toEqual([expect.closeTo(10, 6), expect.closeTo(12, 6)]);
  });

  it('is looked at piece by piece, with what is wrong anywhere', () => {
    const job = { pieces: 4, spotMm: 0.15, intervalMm: 0.08, pieceHeightMm: 28 };
    const preview = piecePreview(ENTRIES, { ...job, piece: 3 });
    expect(preview.names).toEqual(['Bed 1 · 001', 'Bed 12 · 002', 'Bed 3 · 003', 'Bed  · 004']);
    expect(preview.paths.map(({ as }) => as)).toEqual(['line', 'marked']);
    const broken = { ...ENTRIES, fields: [{ ...ENTRIES.fields[1]!, says: 'x'.repeat(5000) }] };
    expect(piecePreview(broken, { ...job, piece: 1 })).toMatchObject({
      paths: [],
      faults: [{ kind: 'unreadable', stops: true }],
    });
    const letters = { ...ENTRIES, fields: [{ ...ENTRIES.fields[0]!, says: '{bed}' }] };
    expect(faultsOf(letters, job).map(({ kind, pieces }) => [kind, pieces])).toEqual([['missing', [4]]]);
  });

  it('takes longer with more on it, with outlines first, and less where only lines are followed', () => {
    const setting = {
      powerPercent: 80,
      speedMmPerS: 100,
      intervalMm: 0.1,
      passes: 1,
      hatches: 1,
      angleDeg: 0,
      directions: 'two-way',
    } as const;
    const motion = { kind: 'gantry', accelerationMmPerS2: 3000, rapidMmPerS: 400 } as const;
    const seconds = (change: Partial<LayoutEntries> = {}) =>
      pieceSeconds({ ...ENTRIES, ...change }, artwork, { pieces: 3, setting, motion });
    expect(seconds({ fields: [] })).toBeLessThan(seconds());
    expect(seconds({ outlineFirst: true })).toBeGreaterThan(seconds());
    expect(seconds({ work: 'lines' })).toBeLessThan(seconds({ work: 'fill' }));
  });
});

describe('pieces of a program', () => {
  const places: SheetBox[] = [0, 1, 2, 3].map((i) => ({ xMm: 5 + 40 * i, yMm: 5, widthMm: 38, heightMm: 22 }));
  const job = { entries: ENTRIES, artwork, count: 6, places, asked: {} };
  const numbers = (asked: object, change: object = {}) =>
    programPieces({ ...job, asked, ...change }).map(({ number, xMm }) => [number, xMm]);

  it('fill the places of the jig, load by load, each again where it lay', () => {
    expect(numbers({})).toEqual([
      [1, 5],
      [2, 45],
      [3, 85],
      [4, 125],
    ]);
    expect(numbers({ from: 5 })).toEqual([
      [5, 5],
      [6, 45],
    ]);
    expect(numbers({ pieces: '2,4' })).toEqual([
      [2, 45],
      [4, 125],
    ]);
    expect(() => numbers({ pieces: '4-5' })).toThrow(/not of one load/);
    expect(() => numbers({ pieces: '7' })).toThrow(/pieces 1 to 6/);
    expect(() => numbers({ from: 9 })).toThrow(/pieces 1 to 6/);
  });

  it('without a jig lie one after the other at the same place; the program stops between, a drawing is of one', () => {
    expect(numbers({ pieces: '2,6' }, { places: null })).toEqual([
      [2, 0],
      [6, 0],
    ]);
    const setting = {
      powerPercent: 80,
      speedMmPerS: 100,
      intervalMm: 0.2,
      passes: 1,
      hatches: 1,
      angleDeg: 0,
      directions: 'two-way',
    } as const;
    const options: ProgramOptions = {
      ...{ title: 'Tags', work: 'both', outlineFirst: false, oneByOne: true, fullScaleS: 1000, laserOn: 'M4' },
      motion: { kind: 'gantry', accelerationMmPerS2: 3000, rapidMmPerS: 400 },
    };
    const pieces = programPieces({ ...job, places: null, asked: { pieces: '2,3' } });
    const text = (format: 'gcode' | 'svg', of = pieces) =>
      [...programText(of, { format, setting, options, words: '80 %' })].join('');
    expect(text('gcode').match(/M0\n/g)).toHaveLength(1);
    expect(text('gcode')).toContain('(lay in piece 3, then go on)');
    expect(() => text('svg')).toThrow(/a drawing is of one piece/);
    expect(text('svg', pieces.slice(0, 1))).toContain('<title>2 Bed 12 · 002</title>');
  });

  it('alike share one object, so that they are worked out once', () => {
    const [one, two] = programPieces(job);
    expect(one!.shapes).toBe(two!.shapes);
    expect(one!.own).not.toBe(two!.own);
  });
});

it('a mark with artwork is timed by its rows, one without by itself', () => {
  const mark = { markWidthMm: 38, markHeightMm: 22 };
  expect(sweptMark(mark)).toEqual({ widthMm: 38, heightMm: 22 });
  expect(sweptMark({ ...mark, sweptWidthMm: 30, sweptHeightMm: 5 })).toEqual({ widthMm: 30, heightMm: 5 });
});
