import fc from 'fast-check';
import gcodeParser from 'gcode-parser';
import { describe, expect, it } from 'vitest';
import { outlineGcode, outlineStrokes } from '../place/outline.js';
import type { RowMotion } from '../time/raster.js';
import {
  burnOrder,
  couponGcode,
  layoutCoupon,
  PLAIN_DESIGN,
  readEmbeddedDesign,
  type CouponDesign,
  type CouponLayout,
} from './index.js';
import { labelStrokes, moduleRects } from '../lettering/index.js';

/**
 * Walks a program word by word as RS-274/NGC has it (NIST 6556, 2000: F and S before tool and spindle words, those before motion), and
 * tells every move with whether the beam was on. It knows nothing of who wrote the program.
 */
interface Move {
  readonly rapid: boolean;
  readonly lit: boolean;
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly line: string;
}
function walk(program: string): Move[] {
  const moves: Move[] = [];
  let [x, y, s, on, absolute, motion] = [0, 0, 0, false, true, 0];
  for (const { line, words } of gcodeParser.parseStringSync(program)) {
    const value = (letter: string) => words.find(([found]) => found === letter)?.[1];
    s = value('S') ?? s;
    for (const [letter, code] of words) {
      if (letter === 'M' && (code === 3 || code === 4)) on = true;
      if (letter === 'M' && code === 5) on = false;
      if (letter === 'G' && code === 90) absolute = true;
      if (letter === 'G' && code === 91) absolute = false;
      if (letter === 'G' && (code === 0 || code === 1)) motion = code;
    }
    const [dx, dy] = [value('X'), value('Y')];
    if (dx === undefined && dy === undefined) continue;
    const to = absolute ? ([dx ?? x, dy ?? y] as const) : ([x + (dx ?? 0), y + (dy ?? 0)] as const);
    moves.push({ rapid: motion === 0, lit: on && s > 0, from: [x, y], to, line });
    [x, y] = to;
  }
  return moves;
}

const LIMITS = {
  bed: { widthMm: 700, heightMm: 500 },
  topSpeedMmPerS: 600,
  firingThresholdPercent: 7,
  frequencyKHz: { low: 20, high: 100 },
  pulseNs: { low: 20, high: 200 },
};
const GANTRY: RowMotion = { kind: 'gantry', accelerationMmPerS2: 5000, rapidMmPerS: 600 };
const GALVO: RowMotion = { kind: 'galvo', jumpMmPerS: 7000, delayS: 0.0004 };
const HASH_MARK = [
  [
    [0, 0],
    [4, 3],
  ],
  [
    [0, 3],
    [4, 0],
  ],
] as const;

/** Designs of every fill, order and hatch, on both kinds of head, with constant and scaled power. */
const programs = fc
  .record({
    fill: fc.constantFrom('filled', 'lines', 'artwork'),
    directions: fc.constantFrom('one-way', 'two-way'),
    hatchAngleDeg: fc.constantFrom(0, 30, -45, 90),
    hatches: fc.constantFrom(1, 2),
    passes: fc.integer({ min: 1, max: 3 }),
    at: fc.constantFrom('edges', 'each'),
    order: fc.constantFrom('as read', 'shuffled'),
    bareStrip: fc.boolean(),
    anchors: fc.boolean(),
    block: fc.constantFrom(undefined, 'focus', 'frequency', 'interval'),
    motion: fc.constantFrom(GANTRY, GALVO),
    laserOn: fc.constantFrom('M3', 'M4'),
  })
  .map(({ at, block, motion, laserOn, fill, ...rest }) => {
    const design = {
      ...PLAIN_DESIGN,
      ...rest,
      code: 'K-204',
      fill,
      artwork: fill === 'artwork' ? { name: 'cross', strokes: HASH_MARK } : null,
      axes: {
        x: { parameter: 'power', spacing: 'linear', from: 50, to: 90, count: 2 },
        y: { parameter: 'speed', spacing: 'log', from: 100, to: 400, count: 2 },
        ...(block
          ? {
              block: {
                parameter: block,
                spacing: 'list',
                values: block === 'focus' ? [-0.5, 0.5] : block === 'frequency' ? [40, 80] : [0.4, 0.6],
              },
            }
          : {}),
      },
      fixed: {
        powerPercent: 80,
        speedMmPerS: 150,
        intervalMm: 0.5,
        frequencyKHz: block === 'frequency' ? 50 : null,
        pulseNs: null,
      },
      cell: { widthMm: 5, heightMm: 4 },
      gapMm: 1,
      marginMm: 3,
      lineSpacingMm: 1,
      labels: { at, heightMm: 1.8, powerPercent: 90, speedMmPerS: 60 },
      blank: { widthMm: 90, heightMm: 70 },
    } as unknown as CouponDesign;
    const layout = layoutCoupon(design, LIMITS);
    return { layout, options: { motion, laserOn, fullScaleS: 1000 } as const };
  });

type Box = readonly [left: number, low: number, right: number, high: number];

/** Where a coupon may be burnt: its cells, its letters, its corner marks, the dark squares of its symbol. */
function boxesOf(layout: CouponLayout): Box[] {
  const { cell } = layout.design;
  const around = (strokes: readonly (readonly (readonly [number, number])[])[]): Box[] =>
    strokes.map((stroke) => {
      const [xs, ys] = [stroke.map(([x]) => x), stroke.map(([, y]) => y)];
      return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
    });
  return [
    ...burnOrder(layout).map(({ xMm, yMm }): Box => [xMm, yMm, xMm + cell.widthMm, yMm + cell.heightMm]),
    ...around(layout.labels.flatMap((label) => labelStrokes(label))),
    ...around(layout.frameStrokes),
    ...(layout.qr ? moduleRects(layout.qr) : []).map(({ xMm, yMm, widthMm, heightMm }): Box => [
      xMm,
      yMm,
      xMm + widthMm,
      yMm + heightMm,
    ]),
  ];
}
const inside = ([left, low, right, high]: Box, [x, y]: readonly [number, number], by = 0.002) =>
  x >= left - by && x <= right + by && y >= low - by && y <= high + by;

describe('the beam in a program', () => {
  it('is dark on every rapid move, on any head, in any fill, whatever the controller does with rapids', () => {
    fc.assert(
      fc.property(programs, ({ layout, options }) => {
        const lit = walk(couponGcode(layout, options)).filter((move) => move.rapid && move.lit);
        expect(lit.map(({ line }) => line)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  it('is on only inside what is to be marked, and there it is on', () => {
    fc.assert(
      fc.property(programs, ({ layout, options }) => {
        const boxes = boxesOf(layout);
        const lit = walk(couponGcode(layout, options)).filter((move) => move.lit);
        const stray = lit.filter(({ from, to }) => !boxes.some((box) => inside(box, from) && inside(box, to)));
        expect(stray.map(({ line }) => line)).toEqual([]);
        const cells = burnOrder(layout).map(({ xMm, yMm }): Box => {
          const { widthMm, heightMm } = layout.design.cell;
          return [xMm, yMm, xMm + widthMm, yMm + heightMm];
        });
        const burnt = cells.filter((box) => lit.some(({ from, to }) => inside(box, from) && inside(box, to)));
        expect(burnt).toHaveLength(cells.length);
      }),
      { numRuns: 60 },
    );
  });

  it('stays dark between the cells that a broken-off run left out', () => {
    fc.assert(
      fc.property(programs, fc.integer({ min: 0, max: 3 }), ({ layout, options }, only) => {
        const cell = layout.cells[only]!;
        const { widthMm, heightMm } = layout.design.cell;
        const box: Box = [cell.xMm, cell.yMm, cell.xMm + widthMm, cell.yMm + heightMm];
        for (const move of walk(couponGcode(layout, { ...options, only: [only] })))
          if (move.lit) expect([move.rapid, inside(box, move.from), inside(box, move.to)]).toEqual([false, true, true]);
      }),
      { numRuns: 30 },
    );
  });

  it('ends dark, and every line is one that a controller takes: comments under 256 characters', () => {
    fc.assert(
      fc.property(programs, ({ layout, options }) => {
        const program = couponGcode(layout, options);
        expect(Math.max(...program.split('\n').map((line) => line.length))).toBeLessThan(256);
        expect(program.trimEnd().split('\n').slice(-4)).toContain('M5');
        expect(readEmbeddedDesign(program)).toEqual(JSON.parse(JSON.stringify(layout.design)));
      }),
      { numRuns: 30 },
    );
  });
});

describe('a trial outline', () => {
  it('is lit only along its own strokes', () => {
    const outline = {
      widthMm: 38,
      heightMm: 22,
      roomMm: 1,
      powerPercent: 10,
      speedMmPerS: 50,
      atXMm: 5,
      atYMm: 5,
    } as never;
    const strokes = outlineStrokes(outline);
    const ends = strokes.flat().map((point) => point.map((part) => part.toFixed(3)).join());
    const moves = walk(outlineGcode(outline, 1000));
    expect(moves.filter(({ rapid, lit }) => rapid && lit)).toEqual([]);
    for (const { lit, from, to } of moves)
      if (lit) for (const at of [from, to]) expect(ends).toContain(at.map((part) => part.toFixed(3)).join());
    expect(moves.some(({ lit }) => lit)).toBe(true);
  });
});
