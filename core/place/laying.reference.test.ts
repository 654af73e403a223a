import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  alignTwoPoints,
  focusMethods,
  HEAD_CHANGE_STEPS,
  outlineGcode,
  outlineStrokes,
  outlineSvg,
  pointerOffset,
  type PlanePoint,
  type TrialOutline,
} from './index.js';

const at = (xMm: number, yMm: number): PlanePoint => ({ xMm, yMm });
const coordinate = fc.double({ min: -500, max: 500, noNaN: true });

describe('a pre-cut piece by two of its points (rigid motion of the plane, textbook)', () => {
  it('a quarter turn: drawn (0,0) (100,0), found (10,10) (10,110)', () => {
    const { turnDegrees, zero, longerMm, toMachine } = alignTwoPoints(
      [at(0, 0), at(100, 0)],
      [at(10, 10), at(10, 110)],
    );
    expect(turnDegrees).toBeCloseTo(90, 9);
    expect(zero.xMm).toBeCloseTo(10, 9);
    expect(zero.yMm).toBeCloseTo(10, 9);
    expect(longerMm).toBeCloseTo(0, 9);
    expect(toMachine(at(50, 20)).xMm).toBeCloseTo(-10, 9);
    expect(toMachine(at(50, 20)).yMm).toBeCloseTo(60, 9);
  });

  it('never scales: a piece 0.4 mm longer leaves 0.2 mm at each end', () => {
    const { longerMm, toMachine } = alignTwoPoints([at(0, 0), at(100, 0)], [at(0, 0), at(100.4, 0)]);
    expect(longerMm).toBeCloseTo(0.4, 9);
    expect(toMachine(at(0, 0)).xMm).toBeCloseTo(0.2, 9);
    expect(toMachine(at(100, 0)).xMm).toBeCloseTo(100.2, 9);
  });

  it('finds every turn and shift again, and keeps lengths', () => {
    const turn = fc.double({ min: -179, max: 179, noNaN: true });
    fc.assert(
      fc.property(turn, coordinate, coordinate, coordinate, coordinate, (degrees, dx, dy, px, py) => {
        const angle = (degrees * Math.PI) / 180;
        const moved = (p: PlanePoint) =>
          at(
            dx + Math.cos(angle) * p.xMm - Math.sin(angle) * p.yMm,
            dy + Math.sin(angle) * p.xMm + Math.cos(angle) * p.yMm,
          );
        const drawn = [at(3, 4), at(83, 64)] as const;
        const found = alignTwoPoints(drawn, [moved(drawn[0]), moved(drawn[1])]);
        expect(found.turnDegrees).toBeCloseTo(degrees, 6);
        expect(found.longerMm).toBeCloseTo(0, 6);
        const [here, there] = [found.toMachine(at(px, py)), moved(at(px, py))];
        expect(here.xMm).toBeCloseTo(there.xMm, 5);
        expect(here.yMm).toBeCloseTo(there.yMm, 5);
      }),
    );
  });

  it('refuses one place twice', () => {
    expect(() => alignTwoPoints([at(1, 1), at(1, 1)], [at(0, 0), at(5, 5)])).toThrow(/one place/);
    expect(() => alignTwoPoints([at(0, 0), at(5, 5)], [at(2, 2), at(2, 2)])).toThrow(/one place/);
  });
});

describe('pointer to beam', () => {
  it('is the mean of the dots with Student’s interval: t(2, 90 %) = 2.920 (standard tables)', () => {
    const pair = (dx: number, dy: number) => ({ pointer: at(10, 20), mark: at(10 + dx, 20 + dy) });
    const offset = pointerOffset([pair(-31.9, 4.1), pair(-32.1, 4.0), pair(-32.0, 3.9)]);
    expect(offset.xMm).toBeCloseTo(-32, 9);
    expect(offset.yMm).toBeCloseTo(4, 9);
    // s = 0.1, 2.920 · 0.1/√3 = 0.1686
    expect(offset.reachMm!.xMm).toBeCloseTo(0.1686, 3);
    expect(offset.worst.offMm).toBeCloseTo(Math.hypot(0.1, 0.1), 9);
    expect(pointerOffset([pair(1, 2)])).toMatchObject({ xMm: 1, yMm: 2, reachMm: null });
    expect(() => pointerOffset([])).toThrow(/Mark one dot/);
  });
});

describe('a trial outline', () => {
  const outline: TrialOutline = {
    ...{
      shape: 'rectangle',
      widthMm: 40,
      heightMm: 25,
      atXMm: 10,
      atYMm: 20,
      roomMm: 0.5,
      powerPercent: 12,
      speedMmPerS: 50,
    },
  };

  it('runs round the piece with its room, and crosses its middle', () => {
    const [shape, across, up] = outlineStrokes(outline);
    expect(shape).toEqual([
      [9.5, 19.5],
      [50.5, 19.5],
      [50.5, 45.5],
      [9.5, 45.5],
      [9.5, 19.5],
    ]);
    expect(across).toEqual([
      [25, 32.5],
      [35, 32.5],
    ]);
    expect(up![0]![0]).toBe(30);
  });

  it('draws a circle by chords that leave it by at most 0.02 mm', () => {
    const [circle] = outlineStrokes({ ...outline, shape: 'circle', widthMm: 88, roomMm: 0 });
    for (const [x, y] of circle!) expect(Math.hypot(x - 54, y - 64)).toBeCloseTo(44, 9);
    const [a, b] = circle as [readonly [number, number], readonly [number, number]];
    expect(44 - Math.hypot((a[0] + b[0]) / 2 - 54, (a[1] + b[1]) / 2 - 64)).toBeLessThanOrEqual(0.02);
  });

  it('as G-code: the beam is on only along the strokes, at the power and feed asked for, and stands at home in the end', () => {
    const lines = outlineGcode(outline, 1000).trim().split('\n');
    // Words of the RS-274 subset only, read by its grammar: a letter and a number each.
    for (const line of lines) expect(line).toMatch(/^(\([^()]*\)|(G21|G90|M5|M3 S0|G[01]( [XYFS]-?\d+(\.\d+)?)+))$/);
    expect(lines.filter((line) => line.startsWith('G0'))).toHaveLength(4);
    expect(lines.find((line) => line.startsWith('G1'))).toBe('G1 X50.5 Y19.5 F3000 S120');
    expect(lines.slice(-3)).toEqual(['M5', 'G0 X0 Y0', '(end)']);
    const on = lines.reduce(
      (state, line) => (line === 'M5' ? 0 : line.startsWith('G0') && state ? NaN : line.startsWith('M3') ? 1 : state),
      0,
    );
    expect(on).toBe(0);
    expect(outlineSvg(outline)).toMatch(/width="55.5mm" height="50.5mm"/);
  });

  it('refuses power over 100 %, room that eats the piece, and sizes of nothing', () => {
    expect(() => outlineGcode({ ...outline, powerPercent: 120 }, 1000)).toThrow(/between 0 and 100/);
    expect(() => outlineStrokes({ ...outline, roomMm: -13 })).toThrow(/above 0/);
    expect(() => outlineStrokes({ ...outline, widthMm: 0 })).toThrow(/above 0/);
  });
});

describe('finding the focus (common practice, no source)', () => {
  it('hunts on a shallow head, sticks on a deep one, and always has a twin for a coat', () => {
    const first = (change: object) =>
      focusMethods({ beam: 'near-infrared', depthMm: 0.8, coated: false, hunted: false, ...change });
    expect(first({})[0]!.method).toBe('dot hunt');
    expect(first({ hunted: true })[0]).toMatchObject({
      method: 'gauge block',
      why: expect.stringMatching(/on record/),
    });
    expect(first({ depthMm: 2 })[0]!.method).toBe('focus stick');
    expect(first({ coated: true }).at(-1)!.method).toBe('twin piece');
    expect(first({}).some(({ method }) => method === 'twin piece')).toBe(false);
    expect(() => first({ depthMm: 0 })).toThrow(/above 0/);
  });

  it('powers down before anything is unplugged, and refocuses last', () => {
    expect(HEAD_CHANGE_STEPS[0].code).toBe('power-down');
    expect(HEAD_CHANGE_STEPS.at(-1)!.code).toBe('refocus');
  });
});
