import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { convexCorners } from '../support/convex-corners.js';
import { blurredMask, markMask } from './expected-mark.js';
import { trayFindings, type TrayPiece } from './index.js';
import { tightestRectangle } from './rectangle.js';

const turned = (x: number, y: number, degrees: number): readonly [number, number] => {
  const turn = (degrees * Math.PI) / 180;
  return [Math.cos(turn) * x - Math.sin(turn) * y + 7, Math.sin(turn) * x + Math.cos(turn) * y - 3];
};

describe('the tightest rectangle', () => {
  it('about any turned rectangle with places inside it is that rectangle', () => {
    const side = fc.double({ min: 5, max: 60, noNaN: true });
    const share = fc.double({ min: -0.5, max: 0.5, noNaN: true });
    fc.assert(
      fc.property(
        side,
        side,
        fc.double({ min: 0, max: 89.9, noNaN: true }),
        fc.array(fc.tuple(share, share)),
        (w, h, degrees, inside) => {
          const corners = [
            [-0.5, -0.5],
            [0.5, -0.5],
            [0.5, 0.5],
            [-0.5, 0.5],
          ] as const;
          const found = tightestRectangle([...corners, ...inside].map(([u, v]) => turned(u * w, v * h, degrees)));
          expect(found.along * found.across).toBeCloseTo(w * h, 4);
          expect([found.x, found.y]).toEqual([expect.closeTo(7, 6), expect.closeTo(-3, 6)]);
        },
      ),
    );
  });

  it('rests on the corners of the hull: of a square with its middle and the middles of its sides the four', () => {
    const places = [0, 1, 2].flatMap((x) => [0, 1, 2].map((y) => [x, y] as const));
    expect(convexCorners(places)).toEqual([
      [0, 0],
      [2, 0],
      [2, 2],
      [0, 2],
    ]);
    expect(convexCorners([[3, 4]])).toEqual([[3, 4]]);
  });
});

const BAR = [
  { as: 'marked', rule: 'nonzero', drawnMm: null, rings: [Float64Array.from([5, 2, 15, 2, 15, 8, 5, 8])] },
] as const;
const SIZE = { widthMm: 20, heightMm: 10, pxMm: 0.13, lineMm: 0.2 };

describe('what is to be marked, as a picture', () => {
  it('covers as much as is marked: a bar by its area, a followed line by its length and width', () => {
    const area = (cover: Float32Array) => cover.reduce((sum, one) => sum + one, 0) * SIZE.pxMm ** 2;
    expect(area(markMask(BAR, SIZE).cover)).toBeCloseTo(60, 0);
    const line = {
      as: 'line',
      rule: 'nonzero',
      drawnMm: null,
      rings: [Float64Array.from([2, 5.03, 18, 5.03])],
    } as const;
    const mask = markMask([line], SIZE);
    expect(area(mask.cover)).toBeGreaterThan(2.4);
    expect(area(mask.cover)).toBeLessThan(5.5);
    expect(mask.strokes).not.toBeNull();
    expect(() => markMask([{ ...line, rings: [Float64Array.from([200, 200, 210, 210])] }], SIZE)).toThrow(
      /lies on the piece/,
    );
  });

  it('is blurred as by a Gaussian: its edge follows the error function to two hundredths', () => {
    const mask = markMask(BAR, SIZE);
    const sd = 0.6;
    const blurred = blurredMask(mask, sd);
    const row = Math.round(5 / SIZE.pxMm);
    for (let column = 10; column < 80; column += 3) {
      const x = (column + 0.5) * SIZE.pxMm;
      const truth = 0.5 * (erf((x - 5) / (sd * Math.SQRT2)) - erf((x - 15) / (sd * Math.SQRT2)));
      expect(Math.abs(blurred[row * mask.columns + column]! - truth)).toBeLessThan(0.02);
    }
  });
});

/** Abramowitz & Stegun 7.1.26: to 1.5e-7. */
function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x));
  const sum = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  return Math.sign(x) * (1 - sum * Math.exp(-x * x));
}

describe('what a picture tells of pieces', () => {
  const reading = (change: object = {}) => ({
    ...{ contrast: 46, strokes: null, sd: 1, deltaE: 40, chroma: 2, parts: Array(9).fill(46), evenness: 0.98 },
    ...{ coverage: 1, halo: 0, residue: 0, glare: 0 },
    ...change,
  });
  const piece = (change: object = {}, offset: object | null = { dxMm: 0, dyMm: 0, turnDeg: 0, fit: 0.9 }): TrayPiece =>
    ({ corners: [], unreadable: null, offset, reading: reading(change) }) as never;
  const expected = { mean: 46, low: 41, high: 51 };
  const kindsOf = (one: TrayPiece, of: typeof expected | null = expected, sign: 1 | -1 = 1) =>
    trayFindings([one, piece(), piece()], of, sign)[0]!.map(({ kind }) => kind);
  const parts = (...faint: number[]) => Array.from({ length: 9 }, (_, i) => (faint.includes(i) ? 25 : 46));

  it.each([
    ['nothing of a good one', {}, []],
    ['a lost mark, and nothing else of it', { contrast: 9, evenness: 0.2, parts: parts(0) }, ['washed off whole']],
    ['a pale one', { contrast: 36, parts: Array(9).fill(36) }, ['pale all over']],
    ['one that is only just below, within its reading', { contrast: 40 }, []],
    ['a corner, its neighbours hardly', { parts: parts(8) }, ['faint in one corner']],
    ['an edge, all three of it', { parts: parts(2, 5, 8) }, ['pale along one edge']],
    ['the middle of an edge', { parts: parts(3) }, ['pale along one edge']],
    ['a hole in the middle', { parts: parts(4) }, ['patchy']],
    ['blotches', { evenness: 0.7 }, ['patchy']],
    ['strokes far paler than fills', { strokes: 20 }, ['faint strokes']],
    ['brown about the mark', { halo: 9 }, ['halo or brown']],
    ['ground that is not bare', { residue: 0.1 }, ['residue left']],
  ])('%s', (_, change, kinds) => {
    expect(kindsOf(piece(change))).toEqual(kinds);
  });

  it('held against each other where no window tells; a lighter mark by its own sign; a mark beside its place', () => {
    expect(kindsOf(piece({ contrast: 30, parts: Array(9).fill(30) }), null)).toEqual(['pale all over']);
    const light = trayFindings([piece({ contrast: -46, parts: Array(9).fill(-46) })], expected, -1);
    expect(light).toEqual([[]]);
    expect(kindsOf(piece({}, { dxMm: 1.1, dyMm: 0.9, turnDeg: 0, fit: 0.9 }))).toEqual(['out of place']);
    expect(trayFindings([{ corners: [], unreadable: 'glare', offset: null, reading: null }], expected, 1)).toEqual([
      [],
    ]);
  });
});
