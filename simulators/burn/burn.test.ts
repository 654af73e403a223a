import { beforeAll, describe, expect, it } from 'vitest';
import {
  arealDose,
  couponRunTime,
  fastestRowSpeed,
  hatchLines,
  moveTime,
  rasterTime,
  type CouponLayout,
} from '@unto/core';
import { SimulatedController } from '../controller/controller.js';
import { STUDY_DESIGN, studyMoves, STUDY_MOTION, studySetup, trueLightness } from '../testing/coupon-study.js';
import { BurntBlank, readProgram, runTimes, type TimedMove } from './index.js';

const MOTION = { accelerationMmPerS2: 5000, rapidMmPerS: 600 };
const timeOf = (program: string) => runTimes(readProgram(program), MOTION).at(-1)!.endsS;

describe('programs as RS-274 has them', () => {
  it.each([
    // Hand-made cases of the grammar: modal words, inches, incremental moves, comments of both kinds, words run together.
    ['G21 G90 G1 X10 F600', [[0, 0, 10, 0, 10]]],
    [
      'G1X10Y5F1200\nX20',
      [
        [0, 0, 10, 5, 20],
        [10, 5, 20, 5, 20],
      ],
    ],
    ['G20\nG1 X1 F60', [[0, 0, 25.4, 0, 25.4]]],
    [
      'G91\nG1 X5 F60\nX5 ; again\n(over)X-2',
      [
        [0, 0, 5, 0, 1],
        [5, 0, 10, 0, 1],
        [10, 0, 8, 0, 1],
      ],
    ],
    [
      'g0 x3 y.5\n\nG1 Y+2. F300',
      [
        [0, 0, 3, 0.5, 0],
        [3, 0.5, 3, 2, 5],
      ],
    ],
  ])('%s', (program, moves) => {
    const found = readProgram(program).map(({ x0, y0, x1, y1, speedMmPerS }) => [x0, y0, x1, y1, speedMmPerS]);
    expect(found.map((row) => row.map((value) => Number(value.toFixed(6))))).toEqual(moves);
  });

  it('fire only on G1, with the newest S, between M3 or M4 and M5', () => {
    const program = 'M3 S0\nG0 X1\nG1 X2 F60 S500\nX3\nG0 X4\nG1 X5\nM5\nX6\nM4\nX7 S100';
    expect(readProgram(program).map(({ power, scaled }) => (scaled ? -power : power))).toEqual([
      0, 500, 500, 0, 500, 0, -100,
    ]);
  });

  it.each([
    ['G21\nG2 X1 Y1 I1', /Line 2: no machine here knows G2/],
    ['G1 X5', /Line 1: G1 without a feed/],
    ['G0 X1\nhello', /Line 2: “HELLO” is not understood/],
    ['M7', /Line 1: no machine here knows M7/],
    ['G0 Z3', /Line 1: no machine here knows the word Z/],
  ])('refuse %j with the line', (program, message) => expect(() => readProgram(program)).toThrow(message));
});

describe('time along a program', () => {
  it('is the closed form of a trapezoid, and of a triangle where the top is never reached', () => {
    // v/a + s/v: 100 mm at 100 mm/s and 5000 mm/s²; 2√(s/a) for 1 mm.
    expect(timeOf('G1 X100 F6000')).toBeCloseTo(100 / 100 + 100 / 5000, 9);
    expect(timeOf('G1 X1 F60000')).toBeCloseTo(2 * Math.sqrt(1 / 5000), 9);
    expect(timeOf('G1 X100 F6000')).toBeCloseTo(moveTime(100, 100, 5000), 9);
  });

  it('runs through joints in line at full speed and stops at corners', () => {
    const whole = timeOf('G1 X60 F6000');
    expect(timeOf('G1 X20 F6000\nX40\nX60')).toBeCloseTo(whole, 9);
    expect(timeOf('G1 X60 F6000\nY60')).toBeCloseTo(2 * whole, 9);
    expect(timeOf('G1 X60 F6000\nX0')).toBeCloseTo(2 * whole, 9);
  });

  it('of rows with run-up is least at √(w·a/2), as the row model says', () => {
    const row = (v: number) => {
      const over = v ** 2 / (2 * 5000);
      return timeOf(`G0 X${-over}\nG1 X0 F${60 * v} S0\nX38 S1\nX${38 + over} S0`) - timeOf(`G0 X${-over}`);
    };
    const best = fastestRowSpeed(38, 5000);
    expect(best).toBeCloseTo(308.2, 1);
    for (const v of [best * 0.8, best * 1.2]) expect(row(v)).toBeGreaterThan(row(best));
    expect(row(best)).toBeCloseTo(38 / best + (2 * best) / 5000, 6);
  });

  it.each([
    ['rows there and back', {}],
    ['rows one way', { directions: 'one-way' }],
    ['crossed at 30°, twice', { hatchAngleDeg: 30, hatches: 2, passes: 2 }],
    ['lines apart, labels under each cell', { fill: 'lines', labels: { ...STUDY_DESIGN.labels, at: 'each' } }],
    ['shuffled', { order: 'shuffled' }],
  ] as const)('of a whole coupon, %s, is what the core plans, within 1 %%', (_name, change) => {
    const { layout, moves } = studyMoves({ ...STUDY_DESIGN, blank: { widthMm: 70, heightMm: 90 }, ...change });
    const planned = couponRunTime(layout, STUDY_MOTION);
    expect(layout.qr).not.toBeNull();
    expect(moves.at(-1)!.endsS / planned).toBeGreaterThan(0.99);
    expect(moves.at(-1)!.endsS / planned).toBeLessThan(1.01);
  });
  it.each([
    ['two-way', 168],
    ['two-way', 400],
    ['one-way', 300],
  ] as const)('of a piece, rows %s at %s mm/s, is what the core plans, within 1 %%', (directions, speedMmPerS) => {
    const size = { widthMm: 38, heightMm: 22 };
    const over = speedMmPerS ** 2 / (2 * 5000);
    const rows = hatchLines(size, { intervalMm: 0.06, angleDeg: 0, directions }).flatMap(({ x0, x1, y0 }) => {
      const ahead = Math.sign(x1 - x0) * over;
      return [`G0 X${x0 - ahead} Y${y0} S0`, `G1 X${x0} F${60 * speedMmPerS}`, `X${x1} S500`, `X${x1 + ahead} S0`];
    });
    const program = timeOf(['M3 S0', ...rows].join('\n'));
    const planned = rasterTime({ ...size, intervalMm: 0.06, speedMmPerS, passes: 1, directions }, STUDY_MOTION);
    expect(Math.abs(program / planned - 1)).toBeLessThan(0.01);
  });
});

describe('what the beam leaves', () => {
  let layout: CouponLayout;
  let moves: TimedMove[];
  beforeAll(() => ({ layout, moves } = studyMoves(STUDY_DESIGN)));

  it('is the dose that was designed, for the program alone is followed', () => {
    const blank = new BurntBlank(studySetup('dose'));
    blank.burn(moves);
    const energy = Reflect.get(blank, 'energy') as Float32Array;
    for (const cell of [layout.cells[3]!, layout.cells[20]!]) {
      const [c0, r0] = [Math.round((cell.xMm + 1) / 0.1), Math.round((cell.yMm + 1) / 0.1)];
      let sum = 0;
      for (let r = 0; r < 20; r += 1) for (let c = 0; c < 30; c += 1) sum += energy[(r0 + r) * blank.columns + c0 + c]!;
      const powerW = (55 * cell.powerPercent) / 100;
      const wanted = arealDose({ ...cell, powerW, passes: 1 });
      expect(sum / (20 * 30 * 0.01) / wanted).toBeCloseTo(1, 1);
    }
  });

  it('darkens with dose, and loses in the scrub what only clung', () => {
    const blank = new BurntBlank(studySetup('looks'));
    blank.burn(moves);
    const [rinsed, scrubbed] = (['rinsed', 'scrubbed'] as const).map((stage) =>
      trueLightness(blank.look(stage), layout),
    );
    // First row: the slowest; last row: the fastest.
    expect(scrubbed![0]!).toBeGreaterThan(scrubbed![5]!);
    expect(scrubbed![41]!).toBeGreaterThan(scrubbed![5]! + 20);
    expect(rinsed![35]!).toBeLessThan(scrubbed![35]! - 15);
  });
});

describe('the simulated controller', () => {
  const WAITS = '(set focus offset 1 mm, then go on)\nM0\n';
  function running(fault: 'none' | 'drops half way' = 'none', waits = WAITS) {
    let now = 0;
    const controller = new SimulatedController(() => now);
    controller.pace = '1';
    controller.fault = fault;
    const setup = studySetup('controller');
    const program = `(cell 1)\nM3 S0\nG1 X10 F600 S500\nM5\n${waits}(cell 2)\nM3\nX20 S500\nM5`;
    controller.lay({ setup, air: null, extraction: null });
    controller.send({ name: 'a', gcode: program });
    return { controller, at: (seconds: number) => ((now = seconds), controller.state()) };
  }

  it('tells elapsed and whole time, waits where it is told to, pauses and goes on', () => {
    const { controller, at } = running();
    expect(at(0.5)).toMatchObject({ state: 'running', elapsedS: 0.5, cell: 0, cellsDone: [] });
    expect(at(5)).toMatchObject({ state: 'waiting', cellsDone: [0], message: 'set focus offset 1 mm, then go on' });
    expect(controller.act('resume').state).toBe('running');
    controller.act('pause');
    expect(at(60)).toMatchObject({ state: 'paused', cell: 1 });
    controller.act('resume');
    expect(at(62)).toMatchObject({ state: 'done', cellsDone: [0, 1] });
  });

  it('stops its beam when the connection drops', () => {
    const { controller, at } = running('drops half way', '');
    at(4);
    expect(controller.answers).toBe(false);
    controller.fault = 'none';
    expect(controller.state()).toMatchObject({ state: 'stopped' });
  });
});
