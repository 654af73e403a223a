import { describe, expect, it } from 'vitest';
import jsQR from 'jsqr';
import { readProgram } from '../../simulators/burn/index.js';
import { runTimes } from '../../simulators/burn/index.js';
import { gcodeArtwork } from './read-gcode.js';
import {
  fillTime,
  linesTime,
  markedArea,
  measureArtwork,
  programParts,
  spansOf,
  svgArtwork,
  textFaults,
  textOf,
  textShapes,
  type Artwork,
  type ProgramOptions,
  type ProgramPiece,
  type ProgramSetting,
  type TextField,
  type TextJob,
} from './index.js';

const MOTION = { kind: 'gantry', accelerationMmPerS2: 3000, rapidMmPerS: 400 } as const;
const SETTING: ProgramSetting = {
  ...{ powerPercent: 60, speedMmPerS: 80, intervalMm: 0.25, passes: 1, hatches: 1, angleDeg: 0, directions: 'two-way' },
};
const OPTIONS: ProgramOptions = {
  ...{
    title: 'Bed tags',
    motion: MOTION,
    work: 'fill',
    outlineFirst: false,
    oneByOne: false,
    fullScaleS: 1000,
    laserOn: 'M4',
  },
};
const draw = (inside: string): Artwork =>
  svgArtwork(`<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="30mm" viewBox="0 0 40 30">${inside}</svg>`, {
    ...{ unit: null, closed: 'filled', widthMm: null },
  });
const RING = draw(
  '<path fill-rule="evenodd" d="M0 10a10 10 0 1 0 20 0a10 10 0 1 0 -20 0zM4 10a6 6 0 1 0 12 0a6 6 0 1 0 -12 0z"/>',
);
const pieceAt = (number: number, xMm: number, yMm: number, more: Partial<ProgramPiece> = {}): ProgramPiece => ({
  ...{ number, name: `A-00${number}`, xMm, yMm, turnDeg: 0, shapes: RING.shapes, own: [] },
  ...more,
});
const program = (
  pieces: ProgramPiece[],
  setting: Partial<ProgramSetting> = {},
  options: Partial<ProgramOptions> = {},
) => [...programParts(pieces, { ...SETTING, ...setting }, { ...OPTIONS, ...options })].join('');
const lit = (text: string) => readProgram(text).filter(({ power }) => power > 0);
const lengthOf = (moves: readonly { x0: number; y0: number; x1: number; y1: number }[]) =>
  moves.reduce((sum, { x0, y0, x1, y1 }) => sum + Math.hypot(x1 - x0, y1 - y0), 0);

describe('a program, walked by an interpreter of its own', () => {
  it.each([0, 30, -45, 90])('burns the area of the artwork at %i°, and nothing outside it', (angleDeg) => {
    const moves = lit(program([pieceAt(1, 100, 50)], { angleDeg }));
    expect(lengthOf(moves) * 0.25).toBeCloseTo(Math.PI * (100 - 36), 0);
    for (const { x0, y0, x1, y1 } of moves)
      for (const [x, y] of [
        [x0, y0],
        [x1, y1],
      ] as const) {
        const radius = Math.hypot(x - 110, y - 60);
        expect(radius).toBeLessThan(10.01);
        expect(radius).toBeGreaterThan(5.98);
      }
    expect(new Set(moves.map(({ power, speedMmPerS }) => `${power} ${speedMmPerS}`))).toEqual(new Set(['600 80']));
  });

  it('marks at full speed only: dark run-up before, run-out after, no rapid lit', () => {
    const moves = readProgram(program([pieceAt(1, 100, 50)]));
    const timed = runTimes(moves, MOTION);
    for (const { power, from, to } of timed) if (power > 0) expect(Math.min(from, to)).toBeGreaterThan(79.9);
    expect(moves.filter(({ kind, power }) => kind === 'rapid' && power > 0)).toEqual([]);
  });

  it('is every piece at its place, turned, with what it alone carries, and ends at home', () => {
    const own = textShapes(
      { kind: 'letters', says: '', xMm: 2, yMm: 2, heightMm: 3, widthMm: null, align: 'left' },
      'A',
    );
    const text = program(
      [pieceAt(1, 0, 0), pieceAt(2, 60, 0, { turnDeg: 90 }), pieceAt(3, 120, 0, { own })],
      {},
      { work: 'both' },
    );
    expect(text.match(/\(piece \d+: A-00\d\)/g)).toEqual(['(piece 1: A-001)', '(piece 2: A-002)', '(piece 3: A-003)']);
    const parts = text
      .split(/\(piece /)
      .slice(1)
      .map((part) => lengthOf(lit(`G21\nG90\nM5\n(${part.slice(0, 3)}${part.slice(part.indexOf('\n') - 1)}`)));
    expect(parts[0]! * 0.25).toBeCloseTo(Math.PI * 64, 0);
    expect(parts[1]).toBeCloseTo(parts[0]!, 0);
    expect(parts[2]! - parts[0]!).toBeGreaterThan(5);
    const xs = lit(text).flatMap(({ x0, x1 }) => [x0, x1]);
    expect(Math.min(...xs.filter((x) => x > 25 && x < 70))).toBeGreaterThan(39.9);
    const { x1, y1 } = readProgram(text).at(-1)!;
    expect([x1, y1]).toEqual([0, 0]);
  });

  it('crosses, repeats, goes one way, follows outlines first, holds or scales power as set', () => {
    const once = lengthOf(lit(program([pieceAt(1, 0, 0)])));
    expect(lengthOf(lit(program([pieceAt(1, 0, 0)], { passes: 3 }))) / once).toBeCloseTo(3, 6);
    expect(lengthOf(lit(program([pieceAt(1, 0, 0)], { hatches: 2 }))) / once).toBeCloseTo(2, 1);
    expect(lengthOf(lit(program([pieceAt(1, 0, 0)], {}, { outlineFirst: true }))) - once).toBeCloseTo(
      2 * Math.PI * 16,
      0,
    );
    const oneWay = lit(program([pieceAt(1, 0, 0)], { directions: 'one-way' }));
    expect(oneWay.every(({ x0, x1 }) => x1 > x0)).toBe(true);
    expect(lit(program([pieceAt(1, 0, 0)], {}, { laserOn: 'M3' })).some(({ scaled }) => scaled)).toBe(false);
  });

  it('reads back as artwork of the same size', () => {
    const { widthMm } = gcodeArtwork(program([pieceAt(1, 5, 5)]), { unit: null, closed: 'followed', widthMm: null });
    expect(widthMm).toBeCloseTo(20, 1);
  });
});

describe('how long it takes', () => {
  it('is what the walked program takes, to a twentieth', () => {
    const text = program([pieceAt(1, 0, 0)]);
    const walked = runTimes(readProgram(text), MOTION).at(-1)!.endsS;
    const { swept, sweptUp } = measureArtwork(RING);
    expect(fillTime(swept, sweptUp, SETTING, MOTION) / walked).toBeGreaterThan(0.95);
    expect(fillTime(swept, sweptUp, SETTING, MOTION) / walked).toBeLessThan(1.05);
  });

  it('a galvo jumps over what is bare', () => {
    const galvo = { kind: 'galvo', jumpMmPerS: 2000, delayS: 0.0005 } as const;
    const { swept, sweptUp, filledMm2 } = measureArtwork(RING);
    const spans = spansOf(RING.shapes, { spacingMm: 0.25, angleDeg: 0 });
    const byHand = markedArea(spans) / 0.25 / 80 + spans.from.length * 0.0005;
    const bare = (swept.extentMm * swept.heightMm - filledMm2) / 0.25 / 2000;
    expect(fillTime(swept, sweptUp, SETTING, galvo)).toBeCloseTo(byHand + bare, 1);
  });

  it('lines: each from rest to rest, and the moves between', () => {
    const lines = draw('<path fill="none" stroke="black" d="M0 0H20M0 10H20"/>').shapes.flatMap(({ rings }) => rings);
    const one = 20 / 80 + 80 / 3000;
    const between = Math.hypot(20, 10) < 400 ** 2 / 3000 ? 2 * Math.sqrt(Math.hypot(20, 10) / 3000) : NaN;
    expect(linesTime(lines, SETTING, MOTION)).toBeCloseTo(2 * one + between, 6);
  });
});

const FIELD: TextField = {
  kind: 'letters',
  says: 'Bed {bed}',
  xMm: 0,
  yMm: 0,
  heightMm: 3,
  widthMm: 20,
  align: 'middle',
};
const JOB: TextJob = {
  fields: [FIELD],
  table: {
    columns: ['bed', 'name'],
    rows: [
      ['1', 'north'],
      ['2', 'south'],
      ['2', ''],
      ['a very long number', 'west'],
    ],
  },
  numbers: { from: 7, step: 2 },
  pieces: 5,
  spotMm: 0.15,
  legibleMm: 1.1,
};

describe('text that changes a piece', () => {
  it('is filled in from the table and counted up', () => {
    const says = (text: string, piece: number) => textOf({ ...FIELD, says: text }, piece, JOB.table, JOB.numbers);
    expect([0, 1].map((piece) => says('{Bed}/{name}', piece))).toEqual(['1/north', '2/south']);
    expect([0, 1, 2].map((piece) => says('N{n:3}', piece))).toEqual(['N007', 'N009', 'N011']);
    expect(() => says('{row}', 0)).toThrow(/no column of the table; it has “bed”, “name”/);
  });

  it('what would go wrong is told by piece before anything burns', () => {
    const faults = textFaults(JOB).map(({ kind, pieces, stops }) => [kind, pieces, stops]);
    expect(faults).toEqual([
      ['twice', [3], false],
      ['too long', [4], true],
    ]);
    const missing = textFaults({ ...JOB, fields: [{ ...FIELD, says: '{bed}' }] });
    expect(missing.map(({ kind, pieces }) => [kind, pieces])).toEqual([
      ['missing', [5]],
      ['twice', [3]],
      ['too long', [4]],
    ]);
    expect(textFaults({ ...JOB, pieces: 2 }).map(({ kind }) => kind)).toEqual(['left over']);
    const letters = { ...JOB, table: { columns: ['bed'], rows: [['Zoë']] }, pieces: 1 };
    expect(textFaults(letters).map(({ kind, stops }) => [kind, stops])).toEqual([['letters', true]]);
    expect(
      textFaults({ ...letters, fields: [{ ...FIELD, says: '{n}', heightMm: 0.9 }] }).map(({ kind }) => kind),
    ).toEqual(['too small']);
    const symbol = { ...FIELD, kind: 'QR' as const, says: 'https://unto.local/{n}', heightMm: 5 };
    expect(textFaults({ ...letters, fields: [symbol] }).map(({ kind }) => kind)).toEqual(['too small']);
    expect(textFaults({ ...letters, fields: [{ ...symbol, says: 'x'.repeat(5000), heightMm: 50 }] })[0]).toMatchObject({
      kind: 'unreadable',
      stops: true,
    });
  });

  it('letters stand in their room', () => {
    const box = (align: TextField['align']) => {
      const xs = textShapes({ ...FIELD, align }, 'Bed 1').flatMap(({ rings }) =>
        rings.flatMap((ring) => [...ring].filter((_, i) => i % 2 === 0)),
      );
      return [Math.min(...xs), Math.max(...xs)] as const;
    };
    expect(box('left')[0]).toBeLessThan(1);
    expect(box('right')[1]).toBeGreaterThan(18);
    expect((box('middle')[0] + box('middle')[1]) / 2).toBeCloseTo(10, 0);
  });

  it('a QR burnt by its program reads back with an independent reader (jsqr)', () => {
    const field = { ...FIELD, kind: 'QR' as const, heightMm: 21 };
    const shapes = textShapes(field, 'https://unto.local/7');
    const text = program([pieceAt(1, 0, 0, { shapes: [], own: shapes })], { intervalMm: 0.1 });
    const [side, perMm] = [250, 10];
    const grey = new Uint8ClampedArray(side * side * 4).fill(255);
    for (const { x0, y0, x1 } of lit(text))
      for (let x = Math.round((Math.min(x0, x1) + 2) * perMm); x < (Math.max(x0, x1) + 2) * perMm; x += 1)
        grey.fill(
          0,
          4 * ((side - 1 - Math.round((y0 + 2) * perMm)) * side + x),
          4 * ((side - 1 - Math.round((y0 + 2) * perMm)) * side + x) + 3,
        );
    expect(jsQR(grey, side, side)?.data).toBe('https://unto.local/7');
  });
});
