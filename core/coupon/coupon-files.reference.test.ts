import gcodeParser from 'gcode-parser';
import jsqr from 'jsqr';
import fc from 'fast-check';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import type { RowMotion } from '../time/raster.js';
import {
  burnOrder,
  cellLines,
  cellSizeAdvice,
  cellsCsv,
  couponDxf,
  couponGcode,
  couponSvg,
  layoutCoupon,
  PLAIN_DESIGN,
  predictCells,
  readEmbeddedDesign,
  type CouponDesign,
} from './index.js';
import { qrModules } from '../lettering/index.js';

const LIMITS = {
  bed: { widthMm: 700, heightMm: 500 },
  topSpeedMmPerS: 600,
  firingThresholdPercent: 7,
  frequencyKHz: { low: 20, high: 100 },
  pulseNs: { low: 20, high: 200 },
};
const MOTION: RowMotion = { kind: 'gantry', accelerationMmPerS2: 5000, rapidMmPerS: 600 };
const OPTIONS = { motion: MOTION, fullScaleS: 1000, laserOn: 'M3' as const };
const BENCH = {
  power: { ratedW: 55 },
  motion: MOTION,
  spotXMm: 0.16,
  spotYMm: 0.16,
  conductivity: 0.0162,
  diffusivity: 4.05,
};

function design(change: Partial<CouponDesign> = {}): CouponDesign {
  return {
    ...PLAIN_DESIGN,
    code: 'K-204',
    axes: {
      x: { parameter: 'power', spacing: 'linear', from: 50, to: 90, count: 3 },
      y: { parameter: 'speed', spacing: 'log', from: 100, to: 400, count: 2 },
    },
    fixed: { powerPercent: 80, speedMmPerS: 150, intervalMm: 0.5, frequencyKHz: null, pulseNs: null },
    cell: { widthMm: 5, heightMm: 4 },
    gapMm: 1,
    marginMm: 3,
    fill: 'filled',
    lineSpacingMm: 1,
    hatchAngleDeg: 0,
    directions: 'two-way',
    labels: { at: 'edges', heightMm: 1.8, powerPercent: 90, speedMmPerS: 60 },
    blank: { widthMm: 70, heightMm: 60 },
    ...change,
  };
}

describe('QR symbols', () => {
  it('are read by an independent reader, jsQR, as modules and as they stand in the SVG', async () => {
    for (const text of ['K-001', 'K-204', 'K-98765']) {
      const dark = qrModules(text);
      const [scale, quiet] = [6, 4];
      const side = (dark.length + 2 * quiet) * scale;
      const data = new Uint8ClampedArray(side * side * 4).fill(255);
      for (let y = 0; y < side; y += 1)
        for (let x = 0; x < side; x += 1)
          if (dark[Math.floor(y / scale) - quiet]?.[Math.floor(x / scale) - quiet])
            data.fill(0, 4 * (y * side + x), 4 * (y * side + x) + 3);
      const read = jsqr(data, side, side);
      expect(read?.data).toBe(text);
    }
    const svg = couponSvg(layoutCoupon(design(), LIMITS));
    const { data, info } = await sharp(Buffer.from(svg), { density: 220 })
      .flatten({ background: '#fff' })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const pixels = new Uint8ClampedArray(data.buffer, data.byteOffset, data.length);
    expect(jsqr(pixels, info.width, info.height)?.data).toBe('K-204');
  }, 20_000);

  it('stand only where they fit with their quiet zone', () => {
    expect(layoutCoupon(design(), LIMITS).qr).not.toBeNull();
    expect(layoutCoupon(design({ blank: { widthMm: 30, heightMm: 22 } }), LIMITS).qr).toBeNull();
  });
});

describe('programs', () => {
  /** Words of a program as the package gcode-parser understands it, line by line. */
  const parsed = (text: string) => gcodeParser.parseStringSync(text).map(({ words }) => words);

  it('are read by an independent parser, gcode-parser, word for word; only the common subset is used', () => {
    const lines = parsed(couponGcode(layoutCoupon(design(), LIMITS), OPTIONS));
    const codes = new Set(
      lines.flatMap((words) => words.filter(([l]) => 'GM'.includes(l)).map(([l, n]) => `${l}${n}`)),
    );
    expect([...codes].sort()).toEqual(['G0', 'G1', 'G21', 'G90', 'G91', 'M3', 'M5']);
    const letters = new Set(lines.flat().map(([letter]) => letter));
    expect([...letters].sort()).toEqual(['F', 'G', 'M', 'S', 'X', 'Y']);
  });

  it('go where the layout says: every cell is entered at its corner, and the head never leaves the blank while it fires', () => {
    const layout = layoutCoupon(design({ hatches: 2, anchors: true, bareStrip: true }), LIMITS);
    let [x, y, relative, motion, power] = [0, 0, false, 0, 0];
    const fired: [number, number][] = [];
    for (const words of parsed(couponGcode(layout, OPTIONS))) {
      const target: Record<string, number> = {};
      for (const [letter, value] of words) {
        if (letter === 'G' && value <= 1) motion = value;
        else if (letter === 'G' && value >= 90) relative = value === 91;
        else if (letter === 'S') power = value;
        else if (letter === 'M' && value === 5) power = 0;
        else target[letter] = value;
      }
      if (target['X'] === undefined && target['Y'] === undefined) continue;
      x = relative ? x + (target['X'] ?? 0) : (target['X'] ?? x);
      y = relative ? y + (target['Y'] ?? 0) : (target['Y'] ?? y);
      if (motion === 1 && power > 0) fired.push([x, y]);
    }
    const { blank } = layout.design;
    for (const [px, py] of fired) {
      expect(px).toBeGreaterThan(-0.001);
      expect(py).toBeGreaterThan(-0.001);
      expect(px).toBeLessThan(blank.widthMm + 0.001);
      expect(py).toBeLessThan(blank.heightMm + 0.001);
    }
    for (const cell of layout.cells) {
      const inside = fired.some(
        ([px, py]) =>
          px >= cell.xMm - 1e-3 && px <= cell.xMm + 5.001 && py >= cell.yMm - 1e-3 && py <= cell.yMm + 4.001,
      );
      expect(inside, `cell ${cell.index + 1}`).toBe(true);
    }
  });

  it('stop where a person must set something, once for each setting, and say what', () => {
    const layout = layoutCoupon(
      design({
        axes: {
          x: { parameter: 'power', spacing: 'list', values: [50, 90] },
          y: { parameter: 'focus', spacing: 'list', values: [-0.5, 0, 0.5] },
        },
        order: 'shuffled',
      }),
      LIMITS,
    );
    const text = couponGcode(layout, OPTIONS);
    expect(text.match(/^M0$/gm)).toHaveLength(3);
    expect(text).toMatch(/\(set focus offset -0\.5 mm, then go on\)\nM0/);
  });

  it('of what is left of a broken run leave out labels and the cells that are burnt', () => {
    const text = couponGcode(layoutCoupon(design(), LIMITS), { ...OPTIONS, only: [4, 5] });
    expect(text.match(/\(cell \d+/g)).toEqual(['(cell 5', '(cell 6']);
    expect(text).not.toMatch(/\((label|corner marks|QR)/);
  });
});

describe('what a coupon can vary', () => {
  it('marks what the head cannot reach, with its reason, and leaves it out of the order', () => {
    const layout = layoutCoupon(
      design({
        axes: {
          x: { parameter: 'power', spacing: 'list', values: [5, 50] },
          y: { parameter: 'frequency', spacing: 'list', values: [10, 50] },
        },
      }),
      LIMITS,
    );
    expect(layout.cells.map(({ unreachableBecause }) => unreachableBecause)).toEqual([
      'does not fire below 7 %',
      'runs from 20 to 100 kHz',
      'does not fire below 7 %',
      null,
    ]);
    expect(burnOrder(layout).map(({ index }) => index)).toEqual([3]);
    expect(predictCells(layout, BENCH)[1]!.doseJPerMm2).toBeNull();
  });

  it.each([
    [{ x: { parameter: 'coats', spacing: 'list', values: [1, 2] } }, /only change from block to block/],
    [{ block: { parameter: 'passes', spacing: 'list', values: [1, 2.5] } }, /whole numbers from 1 to 99/],
    [{ block: { parameter: 'compound', spacing: 'list', values: [1, 2] } }, /Name 2 compounds/],
    [{ y: { parameter: 'focus', spacing: 'log', from: -1, to: 1, count: 3 } }, /must be above 0/],
  ] as const)('refuses %j', (axes, message) => {
    const plan = design();
    expect(() => layoutCoupon({ ...plan, axes: { ...plan.axes, ...axes } as never }, LIMITS)).toThrow(message);
  });

  it('refuses a frequency on a head that has none to set', () => {
    const plan = design({ fixed: { ...design().fixed, frequencyKHz: 50 } });
    expect(() => layoutCoupon(plan, { ...LIMITS, frequencyKHz: undefined })).toThrow(/no frequency to set/);
  });

  it('crosses a hatch with as many lines again at a right angle, and counts them in the dose', () => {
    const one = cellLines(design(), { intervalMm: 0.5, angleDeg: 0, hatches: 1 });
    const two = cellLines(design(), { intervalMm: 0.5, angleDeg: 0, hatches: 2 });
    expect([one.length, two.length]).toEqual([8, 18]);
    expect(two.slice(8).every(({ x0, x1 }) => Math.abs(x0 - x1) < 1e-9)).toBe(true);
    const dose = (hatches: 1 | 2) => predictCells(layoutCoupon(design({ hatches }), LIMITS), BENCH)[0]!.doseJPerMm2!;
    expect(dose(2)).toBeCloseTo(2 * dose(1), 9);
  });

  it('says when cells are too small for interval or spot, or larger than they need be', () => {
    const about = (widthMm: number, heightMm: number, widestIntervalMm = 0.1) =>
      cellSizeAdvice({ fill: 'filled', cell: { widthMm, heightMm } }, { spotMm: 0.16, widestIntervalMm });
    expect(about(5, 4)).toBe('');
    expect(about(5, 1)).toMatch(/10 rows[\s\S]*2\.0 mm high/);
    expect(about(2, 4)).toMatch(/2\.4 mm wide/);
    expect(about(10, 8)).toMatch(/80 mm²/);
  });

  it('cuts artwork off at the edges of its cells', () => {
    const artwork = {
      name: 'leaf.svg',
      strokes: [
        [
          [-3, 2],
          [20, 2],
        ] as const,
        [
          [1, 1],
          [2, 3],
          [4, 9],
        ] as const,
      ],
    };
    const lines = cellLines(design({ fill: 'artwork', artwork }), { intervalMm: 0.5, angleDeg: 0, hatches: 1 });
    expect(lines[0]).toEqual({ x0: 0, y0: 2, x1: 5, y1: 2 });
    for (const { x0, y0, x1, y1 } of lines)
      for (const [x, y] of [
        [x0, y0],
        [x1, y1],
      ] as const)
        expect(x >= -1e-9 && x <= 5 + 1e-9 && y >= -1e-9 && y <= 4 + 1e-9).toBe(true);
  });

  it('repeats the middle setting in corners and centre, and every row on the uncoated strip', () => {
    const { cells } = layoutCoupon(design({ anchors: true, bareStrip: true }), LIMITS);
    const anchors = cells.filter(({ role }) => role === 'anchor');
    expect(anchors).toHaveLength(5);
    expect(new Set(anchors.map(({ powerPercent, speedMmPerS }) => `${powerPercent} ${speedMmPerS}`)).size).toBe(1);
    expect(cells.filter(({ role }) => role === 'bare').map(({ speedMmPerS }) => speedMmPerS)).toEqual([100, 400]);
  });

  it('shuffles every cell into place once, the same for the same seed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (orderSeed) => {
        const order = () =>
          burnOrder(layoutCoupon(design({ order: 'shuffled', orderSeed }), LIMITS)).map((c) => c.index);
        expect(order()).toEqual(order());
        expect([...order()].sort()).toEqual([0, 1, 2, 3, 4, 5]);
      }),
      { numRuns: 20 },
    );
  });

  it('comes back whole from SVG, DXF, G-code and CSV', () => {
    const plan = design({
      anchors: true,
      bareStrip: true,
      order: 'shuffled',
      orderSeed: 42,
      artwork: {
        name: 'a (b)',
        strokes: Array.from({ length: 40 }, (_, i) => [[i / 7, 0] as const, [i / 7, 3] as const]),
      },
    });
    const layout = layoutCoupon(plan, LIMITS);
    const files = [
      couponSvg(layout),
      couponDxf(layout),
      couponGcode(layout, OPTIONS),
      cellsCsv(layout, predictCells(layout, BENCH), []),
    ];
    for (const file of files) expect(readEmbeddedDesign(file)).toEqual(plan);
    // R12: sections in order, group codes and values in turn, nothing longer than 255 characters.
    const dxf = files[1]!.split('\r\n');
    expect(dxf.filter((_, i) => i % 2 === 0).every((code) => code === '' || /^\d+$/.test(code))).toBe(true);
    expect(Math.max(...dxf.map((line) => line.length))).toBeLessThan(256);
    expect(dxf.slice(-3)).toEqual(['0', 'EOF', '']);
  });
});
