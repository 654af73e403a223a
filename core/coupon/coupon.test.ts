import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CSV_LIMIT_BYTES, decodeTable } from '../formats/csv.js';
import { CoreError } from '../support/core-error.js';
import type { UnitReading } from '../units/registry.js';
import { rasterTime, type RowMotion } from '../time/raster.js';
import { cellsCsv, readCellsCsv, type CellOutcomes } from './cells-csv.js';
import { axisValues, PLAIN_DESIGN, type CouponDesign } from './design.js';
import { readEmbeddedDesign } from './embed.js';
import { couponGcode } from './gcode.js';
import { hatchLines } from './hatch.js';
import { labelStrokes, textWidth } from '../lettering/label-strokes.js';
import { layoutCoupon } from './layout.js';
import { outcomeFromWords } from './outcomes.js';
import { predictCells, widestRunUp } from './predict.js';
import { couponRunTime } from './run-time.js';
import { settingWords } from '../setting/setting-words.js';
import { couponSvg } from './svg.js';

const LIMITS = { bed: { widthMm: 700, heightMm: 500 }, topSpeedMmPerS: 600, firingThresholdPercent: 7 };
const MOTION: RowMotion = { kind: 'gantry', accelerationMmPerS2: 5000, rapidMmPerS: 600 };
const BENCH = {
  power: { ratedW: 55 },
  motion: MOTION,
  spotXMm: 0.16,
  spotYMm: 0.16,
  conductivity: 0.0162,
  diffusivity: 4.05,
};

/** A coupon of three powers by two speeds; a test names only what matters to it. */
function design(change: Partial<CouponDesign> = {}): CouponDesign {
  return {
    ...PLAIN_DESIGN,
    code: 'K-031',
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
    labels: { at: 'edges', heightMm: 1.8, powerPercent: 60, speedMmPerS: 80 },
    blank: { widthMm: 70, heightMm: 60 },
    ...change,
  };
}
const square = (count: number, mm: number): Partial<CouponDesign> => ({
  axes: {
    x: { parameter: 'power', spacing: 'linear', from: 10, to: 100, count },
    y: { parameter: 'speed', spacing: 'linear', from: 10, to: 600, count },
  },
  cell: { widthMm: mm, heightMm: mm },
});

describe('axes', () => {
  it('are linear, by equal ratios, or listed', () => {
    expect(axisValues({ parameter: 'power', spacing: 'linear', from: 50, to: 90, count: 3 })).toEqual([50, 70, 90]);
    expect(axisValues({ parameter: 'speed', spacing: 'log', from: 100, to: 400, count: 3 })).toEqual([100, 200, 400]);
    expect(axisValues({ parameter: 'interval', spacing: 'list', values: [0.08, 0.05] })).toEqual([0.08, 0.05]);
    expect(axisValues({ parameter: 'power', spacing: 'log', from: 60, to: 0, count: 1 })).toEqual([60]);
  });

  it.each([
    [{ parameter: 'power', spacing: 'list', values: [] }, /lists no value/],
    [{ parameter: 'power', spacing: 'list', values: [5, 5] }, /twice/],
    [{ parameter: 'speed', spacing: 'log', from: 0, to: 4, count: 3 }, /above 0/],
    [{ parameter: 'speed', spacing: 'linear', from: 4, to: 4, count: 3 }, /one step, or two ends/],
    [{ parameter: 'speed', spacing: 'linear', from: 4, to: 5, count: 0 }, /one step or more/],
  ] as const)('refuses %j', (axis, message) => expect(() => axisValues(axis as never)).toThrow(message));
});

describe('layout', () => {
  it('places cells in reading order, power across, speed down, on the blank', () => {
    const { cells } = layoutCoupon(design(), LIMITS);
    expect(cells.map(({ powerPercent, speedMmPerS }) => [powerPercent, speedMmPerS])).toEqual([
      [50, 100],
      [70, 100],
      [90, 100],
      [50, 400],
      [70, 400],
      [90, 400],
    ]);
    expect(cells[0]!.yMm).toBeGreaterThan(cells[3]!.yMm);
  });

  it('keeps every cell and label on the blank and no two cells over each other', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 1, max: 6 }),
        fc.boolean(),
        fc.boolean(),
        fc.constantFrom('grid', undefined),
        (columns, rows, blocks, each, captions) => {
          const plan = design({
            axes: {
              x: { parameter: 'power', spacing: 'linear', from: 20, to: 100, count: columns },
              y: { parameter: 'speed', spacing: 'linear', from: 100, to: 600, count: rows },
              ...(blocks
                ? { block: { parameter: 'interval', spacing: 'list', values: [0.05, 0.1, 0.2] } as const }
                : {}),
            },
            blank: { widthMm: 140, heightMm: 220 },
            labels: { at: each ? 'each' : 'edges', captions, heightMm: 1.8, powerPercent: 60, speedMmPerS: 80 },
          });
          const { cells, labels } = layoutCoupon(plan, LIMITS);
          expect(cells).toHaveLength(columns * rows * (blocks ? 3 : 1));
          for (const cell of cells) {
            expect(cell.xMm).toBeGreaterThanOrEqual(0);
            expect(cell.yMm).toBeGreaterThanOrEqual(0);
            expect(cell.xMm + 5).toBeLessThanOrEqual(140 + 1e-9);
            expect(cell.yMm + 4).toBeLessThanOrEqual(220 + 1e-9);
          }
          for (const label of labels) {
            expect(label.xMm).toBeGreaterThanOrEqual(-1e-9);
            expect(label.xMm + textWidth(label.text, label.heightMm)).toBeLessThanOrEqual(140);
          }
          const overlapping = cells.some((a, i) =>
            cells.slice(i + 1).some((b) => Math.abs(a.xMm - b.xMm) < 5 - 1e-9 && Math.abs(a.yMm - b.yMm) < 4 - 1e-9),
          );
          expect(overlapping).toBe(false);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('calls a cell by its column and row, whose values stand at the edges; what was burnt before keeps its words', () => {
    const labels = { at: 'each', heightMm: 1.8, powerPercent: 60, speedMmPerS: 80 } as const;
    const texts = (captions: 'grid' | undefined, columns = 2) =>
      layoutCoupon(
        design({ ...square(columns, 5), blank: { widthMm: 300, heightMm: 300 }, labels: { ...labels, captions } }),
        LIMITS,
      ).labels.map(({ text }) => text);
    const named = texts('grid');
    // Behind the name a rule as long as the cell.
    for (const name of ['A1', 'B1', 'A2', 'B2'])
      expect(named.some((text) => new RegExp(`^${name}-+$`).test(text))).toBe(true);
    expect(named.filter((text) => /^[AB] \d|^[12] \d/.test(text))).toHaveLength(4);
    expect(texts(undefined).some((text) => text.includes('/'))).toBe(true);
    expect(texts('grid', 28).some((text) => text.startsWith('AB28'))).toBe(true);
  });

  it('takes 1 × 1 and 40 × 40', () => {
    expect(layoutCoupon(design(square(1, 5)), LIMITS).cells).toHaveLength(1);
    const large = layoutCoupon(
      design({ ...square(40, 2), gapMm: 0.5, blank: { widthMm: 120, heightMm: 120 } }),
      LIMITS,
    );
    expect(large.cells).toHaveLength(1600);
    expect(couponRunTime(large, MOTION)).toBeGreaterThan(0);
  });

  it('says how much room it needs when the blank or the bed is too small', () => {
    expect(() => layoutCoupon(design({ blank: { widthMm: 20, heightMm: 60 } }), LIMITS)).toThrow(
      /needs 2\d\.\d × \d+\.\d mm; the blank is 20 × 60 mm/,
    );
    expect(() => layoutCoupon(design({ blank: { widthMm: 701, heightMm: 60 } }), LIMITS)).toThrow(
      /larger than the bed/,
    );
    expect(() =>
      layoutCoupon(
        design({ ...square(8, 1), labels: { at: 'each', heightMm: 1.8, powerPercent: 60, speedMmPerS: 80 } }),
        LIMITS,
      ),
    ).toThrow(/too small to read/);
  });

  it.each([
    [
      {
        axes: {
          x: { parameter: 'power', spacing: 'list', values: [50, 101] },
          y: { parameter: 'speed', spacing: 'list', values: [100] },
        },
      },
      /power must lie between 0 and 100/,
    ],
    [
      {
        axes: {
          x: { parameter: 'power', spacing: 'list', values: [50] },
          y: { parameter: 'speed', spacing: 'list', values: [700] },
        },
      },
      /faster than this head runs, 600 mm\/s/,
    ],
    [
      {
        axes: {
          x: { parameter: 'power', spacing: 'list', values: [50] },
          y: { parameter: 'power', spacing: 'list', values: [60] },
        },
      },
      /something else/,
    ],
    [
      { fixed: { powerPercent: 80, speedMmPerS: 150, intervalMm: 0, frequencyKHz: null, pulseNs: null } },
      /interval must be above 0/,
    ],
    [{ passes: 0 }, /Passes/],
    [square(70, 1), /at most 4000/],
    [{ fill: 'lines', lineSpacingMm: 5e-5 }, /thousand rows; at most 500 thousand/],
    [{ hatchAngleDeg: 120 }, /hatch angle/],
    [{ cell: { widthMm: Number.NaN, heightMm: 4 } }, /cell width must be a number/],
  ] as const)('refuses %j', (change, message) =>
    expect(() => layoutCoupon(design(change as never), LIMITS)).toThrow(message),
  );

  it('marks cells that the head cannot fire', () => {
    const axes = {
      x: { parameter: 'power', spacing: 'list', values: [5, 50] },
      y: { parameter: 'speed', spacing: 'list', values: [100] },
    } as const;
    const layout = layoutCoupon(design({ axes }), LIMITS);
    expect(layout.cells.map(({ reachable }) => reachable)).toEqual([false, true]);
    expect(predictCells(layout, { ...BENCH, power: { ratedW: 55, firingThresholdPercent: 7 } })[0]).toEqual({
      powerW: 0,
      doseJPerMm2: null,
      heatIndexK: null,
    });
  });
});

describe('hatch', () => {
  it('fills a rectangle at 0° with full lines, half an interval from the edges', () => {
    const lines = hatchLines({ widthMm: 5, heightMm: 4 }, { intervalMm: 0.5, angleDeg: 0, directions: 'one-way' });
    expect(lines).toHaveLength(8);
    lines.forEach((line) => expect([line.x0, line.x1]).toEqual([0, 5]));
    expect(lines[0]!.y0).toBeCloseTo(0.25, 9);
  });

  it('stays inside and covers the area at any angle', () => {
    fc.assert(
      fc.property(fc.integer({ min: -90, max: 90 }), (angleDeg) => {
        const lines = hatchLines({ widthMm: 5, heightMm: 4 }, { intervalMm: 0.05, angleDeg, directions: 'two-way' });
        const length = lines.reduce((sum, { x0, y0, x1, y1 }) => sum + Math.hypot(x1 - x0, y1 - y0), 0);
        expect(length * 0.05).toBeGreaterThan(20 * 0.985);
        expect(length * 0.05).toBeLessThan(20 * 1.015);
        for (const { x0, y0, x1, y1 } of lines) {
          for (const x of [x0, x1]) expect(x > -1e-9 && x < 5 + 1e-9).toBe(true);
          for (const y of [y0, y1]) expect(y > -1e-9 && y < 4 + 1e-9).toBe(true);
        }
      }),
    );
  });

  it('turns every second line round when it marks both ways', () => {
    const [first, second] = hatchLines(
      { widthMm: 5, heightMm: 4 },
      { intervalMm: 1, angleDeg: 0, directions: 'two-way' },
    );
    expect(first!.x0).toBe(0);
    expect(second!.x0).toBe(5);
  });
});

/** Runs G-code by the RS-274 grammar, independent of the writer: words, modal groups, absolute and relative moves. */
function runGcode(program: string) {
  const burns: { x0: number; y0: number; x1: number; y1: number; s: number; feed: number }[] = [];
  let [x, y, s, feed, laser, relative, motion] = [0, 0, 0, 0, false, false, 0];
  for (const line of program.split('\n')) {
    const words = [...line.replace(/\([^)]*\)/g, '').matchAll(/([A-Z])(-?\d*\.?\d+)/g)].map(
      ([, letter, value]) => [letter!, Number(value)] as const,
    );
    let target: { x?: number; y?: number } = {};
    for (const [letter, value] of words) {
      if (letter === 'G' && (value === 0 || value === 1)) motion = value;
      else if (letter === 'G' && value === 90) relative = false;
      else if (letter === 'G' && value === 91) relative = true;
      else if (letter === 'G') expect(value).toBe(21);
      else if (letter === 'M') laser = value === 3 || value === 4;
      else if (letter === 'S') s = value;
      else if (letter === 'F') feed = value;
      else if (letter === 'X') target = { ...target, x: relative ? x + value : value };
      else if (letter === 'Y') target = { ...target, y: relative ? y + value : value };
      else throw new Error(`unknown word ${letter}`);
    }
    if (target.x === undefined && target.y === undefined) continue;
    const to = { x: target.x ?? x, y: target.y ?? y };
    if (motion === 1 && laser && s > 0) burns.push({ x0: x, y0: y, x1: to.x, y1: to.y, s, feed });
    [x, y] = [to.x, to.y];
  }
  return { burns, x, y, laser };
}

describe('G-code', () => {
  const options = { motion: MOTION, fullScaleS: 1000, laserOn: 'M3' as const };

  it.each([0, 30, 90, -45])('burns exactly the hatch of every cell at %i°', (hatchAngleDeg) => {
    const plan = design({ hatchAngleDeg, passes: 2 });
    const layout = layoutCoupon(plan, LIMITS);
    const { burns, laser } = runGcode(couponGcode(layout, options));
    expect(laser).toBe(false);
    for (const cell of layout.cells) {
      const inside = burns.filter(({ x0, y0, x1, y1 }) => {
        const [mx, my] = [(x0 + x1) / 2 - cell.xMm, (y0 + y1) / 2 - cell.yMm];
        return mx > 0 && mx < 5 && my > 0 && my < 4;
      });
      const expected = hatchLines(plan.cell, {
        intervalMm: cell.intervalMm,
        angleDeg: hatchAngleDeg,
        directions: 'two-way',
      });
      expect(inside).toHaveLength(expected.length * 2);
      inside.forEach((burn, i) => {
        const line = expected[i % expected.length]!;
        expect(burn.x0 - cell.xMm).toBeCloseTo(line.x0, 3);
        expect(burn.y1 - cell.yMm).toBeCloseTo(line.y1, 3);
        expect(burn.s).toBeCloseTo(cell.powerPercent * 10, 2);
        expect(burn.feed).toBeCloseTo(cell.speedMmPerS * 60, 1);
      });
    }
  });

  it('does not drift over 200 lines of an interval that has no short decimal', () => {
    const plan = design({
      ...square(1, 15),
      fixed: { powerPercent: 80, speedMmPerS: 150, intervalMm: 25.4 / 340, frequencyKHz: null, pulseNs: null },
    });
    const layout = layoutCoupon(plan, LIMITS);
    const { burns } = runGcode(couponGcode(layout, options));
    const last = burns.filter(({ x0, x1 }) => Math.abs(x1 - x0) > 14).at(-1)!;
    const expected = hatchLines(plan.cell, { intervalMm: 25.4 / 340, angleDeg: 0, directions: 'two-way' }).at(-1)!;
    expect(last.y0 - layout.cells[0]!.yMm).toBeCloseTo(expected.y0, 3);
  });

  it('starts its run-up outside the cell, on the bed’s side of the overscan', () => {
    expect(widestRunUp(layoutCoupon(design(), LIMITS), MOTION)).toBeCloseTo(400 ** 2 / 10_000, 9);
    const galvo = couponGcode(layoutCoupon(design(), LIMITS), {
      ...options,
      motion: { kind: 'galvo', jumpMmPerS: 5000, delayS: 0.001 },
    });
    expect(galvo).not.toMatch(/G1 [XY]\S* S0/);
    expect(couponGcode(layoutCoupon(design(), LIMITS), options)).toMatch(/G1 X-?\d+ S0/);
  });

  it('leaves out what the head cannot fire', () => {
    const axes = {
      x: { parameter: 'power', spacing: 'list', values: [5] },
      y: { parameter: 'speed', spacing: 'list', values: [100] },
    } as const;
    const { burns } = runGcode(couponGcode(layoutCoupon(design({ axes }), LIMITS), options));
    expect(burns.every(({ s }) => s === 600)).toBe(true);
  });

  it('carries its design, as does the SVG', () => {
    const plan = design({ code: 'K-031 (two)' });
    const layout = layoutCoupon(plan, LIMITS);
    expect(readEmbeddedDesign(couponGcode(layout, options))).toEqual(plan);
    expect(readEmbeddedDesign(couponSvg(layout))).toEqual(plan);
    expect(() => readEmbeddedDesign('G21\nG90')).toThrow(/carries no coupon design/);
    expect(() => readEmbeddedDesign('(design unto-design:%7Bbroken)')).toThrow(/damaged/);
  });
});

describe('SVG', () => {
  it('is at true size with a group a cell', () => {
    const svg = couponSvg(layoutCoupon(design(), LIMITS));
    expect(svg).toContain('width="70mm" height="60mm" viewBox="0 0 70 60"');
    expect(svg.match(/<g id="cell-\d+"/g)).toHaveLength(6);
    expect(svg).toContain('data-power-percent="70" data-speed-mm-per-s="400"');
  });

  it('draws line cells as strokes and escapes the code', () => {
    const svg = couponSvg(layoutCoupon(design({ fill: 'lines', code: 'A<b>' }), LIMITS));
    expect(svg.match(/fill="none" d="M/g)!.length).toBeGreaterThanOrEqual(6);
    expect(svg).not.toContain('<b>');
  });
});

describe('figures of a coupon', () => {
  it('gives dose and heat index per cell, no dose for line cells', () => {
    const [first] = predictCells(layoutCoupon(design(), LIMITS), BENCH);
    expect(first!.powerW).toBe(27.5);
    expect(first!.doseJPerMm2).toBeCloseTo(27.5 / (100 * 0.5), 9);
    expect(first!.heatIndexK).toBeGreaterThan(0);
    expect(predictCells(layoutCoupon(design({ fill: 'lines' }), LIMITS), BENCH)[0]!.doseJPerMm2).toBeNull();
  });

  it('runs at least as long as its cells alone', () => {
    const layout = layoutCoupon(design(), LIMITS);
    const cells = layout.cells.reduce(
      (sum, cell) =>
        sum +
        rasterTime(
          { widthMm: 5, heightMm: 4, intervalMm: 0.5, speedMmPerS: cell.speedMmPerS, passes: 1, directions: 'two-way' },
          MOTION,
        ),
      0,
    );
    expect(couponRunTime(layout, MOTION)).toBeGreaterThan(cells);
  });

  it('draws letters at their height', () => {
    const points = labelStrokes({ text: '10', xMm: 2, yMm: 3, heightMm: 2 }).flat();
    expect(Math.min(...points.map(([, y]) => y))).toBeCloseTo(3, 6);
    expect(Math.max(...points.map(([, y]) => y))).toBeCloseTo(5, 6);
    expect(labelStrokes({ text: ' ', xMm: 0, yMm: 0, heightMm: 1 })).toEqual([]);
    expect(textWidth('é', 2)).toBeGreaterThan(0);
  });
});

describe('a coupon read on its panel', () => {
  const reading: UnitReading = {
    units: { power: '0-1000', speed: 'in/s', interval: 'lines/in', length: 'in', film: 'mil', mass: 'oz' },
    scale: { ratedW: 55, topSpeedMmPerS: 600 },
  };
  const plain = design();
  const layout = layoutCoupon({ ...plain, labels: { ...plain.labels, at: 'edges', reading } }, LIMITS);
  const cell = layout.cells[0]!;

  it('is labelled, drawn and tabled in the units that are keyed in', () => {
    const speed = String(Number((cell.speedMmPerS / 25.4).toPrecision(3)));
    expect(layout.labels.map(({ text }) => text)).toContain(speed);
    expect(couponSvg(layout)).toContain(
      `<title>${cell.powerPercent * 10} of 1000, ${Number((cell.speedMmPerS / 25.4).toPrecision(4))} in/s, `,
    );
    const [header, first] = cellsCsv(layout, predictCells(layout, BENCH), []).split('\r\n') as [string, string];
    expect(header).toContain('power [0-1000],speed [in/s],interval [lines/in]');
    expect(first.split(',')[5]).toBe(String(cell.powerPercent * 10));
  });

  it('takes its own table back, and another coupon’s not', () => {
    const text = cellsCsv(layout, predictCells(layout, BENCH), [{ cell: 0, scrubbed: 'holds' }]);
    expect(readCellsCsv(text, layout)[0]).toMatchObject({ cell: 0, scrubbed: 'holds' });
    const other = layoutCoupon({ ...layout.design, fixed: { ...layout.design.fixed, intervalMm: 0.09 } }, LIMITS);
    expect(() => readCellsCsv(text, other)).toThrow(/interval/);
  });

  it('says percent of what where both power and speed are percent', () => {
    const percent = { ...reading, units: { ...reading.units, power: '%', speed: '%' } } as UnitReading;
    expect(settingWords({ ...cell, powerPercent: 80, speedMmPerS: 150 }, percent)).toMatch(/^80 % power, 25 % speed, /);
    expect(settingWords({ ...cell, powerPercent: 80, speedMmPerS: 150 })).toMatch(/^80 %, 150 mm\/s, /);
  });
});

describe('CSV of cells', () => {
  const layout = layoutCoupon(design(), LIMITS);
  const outcomes: CellOutcomes[] = [
    { cell: 0, rinsed: 'holds', scrubbed: 'under' },
    { cell: 4, scrubbed: 'over' },
  ];
  const text = cellsCsv(layout, predictCells(layout, BENCH), outcomes);
  const header = text.split('\r\n')[0]!;

  it('comes back as it went', () => {
    const back = readCellsCsv(text, layout).filter(({ rinsed, scrubbed }) => rinsed ?? scrubbed);
    expect(back).toEqual([
      { cell: 0, rinsed: 'holds', scrubbed: 'under' },
      { cell: 4, rinsed: undefined, scrubbed: 'over' },
    ]);
  });

  it('takes a short table with quoted line breaks, and speed in another unit', () => {
    expect(
      readCellsCsv('cell,scrubbed,note\r\n2,"too\nmuch","says\r\n""Ines"""\r\n3,HOLDS,\r\n', layout),
    ).toMatchObject([
      { cell: 1, scrubbed: 'over' },
      { cell: 2, scrubbed: 'holds' },
    ]);
    expect(readCellsCsv('cell,speed [mm/min],scrubbed\n1,6000,holds\n', layout)).toHaveLength(1);
  });

  it.each([
    ['power,scrubbed\n1,holds\n', /lacks the column “cell”/],
    ['cell,outcome\n1,holds\n', /lacks both outcome columns/],
    ['cell,scrubbed\n1,good\n', /Line 2, column “scrubbed”: “good” is no outcome/],
    ['cell,scrubbed\n7,holds\n', /Line 2: there is no cell “7”/],
    ['cell,scrubbed\n1,holds\n1,holds\n', /Line 3 repeats cell 1 of line 2/],
    ['cell,speed [knots],scrubbed\n1,5,holds\n', /“knots”; speed is read in mm\/s/],
    ['cell,speed [mm/s],scrubbed\n1,"1\n20",holds\n', /is not a number/],
    ['cell,note,scrubbed\n1,"a\nb\nc",holds\n2,x,nope\n', /Line 5, column “scrubbed”/],
    ['cell,speed [mm/s],scrubbed\n1,120,holds\n', /speed is 120 mm\/s, but this cell was designed at 100 mm\/s/],
    ['coupon,cell,scrubbed\nK-007,1,holds\n', /belongs to coupon K-007/],
    ['cell,scrubbed\n1,"=HYPERLINK(""x"")"\n', /holds a formula/],
    ['cell,scrubbed\n1,holds,extra\n', /Line 2 has 3 cells; the heading has 2/],
    ['cell,scrubbed\n1,"holds\n', /cannot be read/],
  ])('refuses %j', (table, message) => expect(() => readCellsCsv(table, layout)).toThrow(message));

  it('names the line of a byte that is not UTF-8, and refuses 20 MB', () => {
    const latin = new Uint8Array([...new TextEncoder().encode('cell,scrubbed\n1,holds\n2,gr'), 0xfc, 0x6e, 0x0a]);
    expect(() => decodeTable(latin)).toThrow(/Line 3 holds a character that is not UTF-8/);
    expect(() => decodeTable(new Uint8Array(20_000_000))).toThrow(/20.0 MB; at most 5 MB/);
    expect(decodeTable(new TextEncoder().encode('µ – 𝄞 ü'))).toBe('µ – 𝄞 ü');
    expect(CSV_LIMIT_BYTES).toBe(5_000_000);
  });

  it('carries a code with the refusal', () => {
    try {
      readCellsCsv('cell,scrubbed\n9,holds\n', layout);
      expect.unreachable();
    } catch (error) {
      expect(error).toBeInstanceOf(CoreError);
      expect(error).toMatchObject({ code: 'csv.bad-cell', line: 2, path: 'cell' });
    }
    expect(header).toContain('dose [J/mm²]');
    expect(outcomeFromWords(' Too  Little ')).toBe('under');
  });
});
