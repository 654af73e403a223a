import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  evaluateCurve,
  gaugeToMm,
  intervalFromMm,
  INTERVAL_UNITS,
  intervalToMm,
  invertCurve,
  massToG,
  monotoneCurve,
  powerFromPercent,
  powerToPercent,
  SPEED_UNITS,
  speedFromMmPerS,
  speedToMmPerS,
} from './index.js';

const dialTable = [
  { x: 1, y: 4 },
  { x: 5, y: 30 },
  { x: 10, y: 90 },
];

describe('speed', () => {
  it('reads every scale', () => {
    expect(speedToMmPerS(300, 'mm/min')).toBeCloseTo(5, 12);
    expect(speedToMmPerS(20, 'in/s')).toBeCloseTo(508, 12);
    expect(speedToMmPerS(25, '%', { topSpeedMmPerS: 600 })).toBe(150);
    expect(speedToMmPerS(5, 'dial', { dialTable })).toBeCloseTo(30, 12);
  });

  it('stays unknown where its reference is unknown', () => {
    expect(speedToMmPerS(25, '%')).toBeNull();
    expect(speedToMmPerS(3, 'dial')).toBeNull();
  });

  it('comes back through every unit', () => {
    const scale = { topSpeedMmPerS: 90, dialTable };
    fc.assert(
      fc.property(fc.constantFrom(...SPEED_UNITS), fc.double({ min: 4.01, max: 89.9, noNaN: true }), (unit, mmPerS) => {
        const shown = speedFromMmPerS(mmPerS, unit, scale)!;
        expect(speedToMmPerS(shown, unit, scale)!).toBeCloseTo(mmPerS, 6);
      }),
    );
  });

  it.each([0, -5, Number.NaN])('refuses %s', (value) => {
    expect(() => speedToMmPerS(value, 'mm/s')).toThrow(/speed/);
  });

  it('refuses more than 100 % and a dial number off its table', () => {
    expect(() => speedToMmPerS(101, '%', { topSpeedMmPerS: 100 })).toThrow(/between 0 and 100/);
    expect(() => speedToMmPerS(11, 'dial', { dialTable })).toThrow(/between 1 and 10/);
    expect(() => speedToMmPerS(3, 'knots' as never)).toThrow(/Unknown speed unit/);
  });
});

describe('power', () => {
  it('reads percent, 0-1000 and watts', () => {
    expect(powerToPercent(850, '0-1000')).toBe(85);
    expect(powerToPercent(7, 'W', 10)).toBe(70);
    expect(powerToPercent(7, 'W')).toBeNull();
    expect(powerFromPercent(85, '0-1000')).toBe(850);
    expect(powerFromPercent(70, 'W', 10)).toBe(7);
  });

  it.each([
    [0, '%'],
    [101, '%'],
    [1001, '0-1000'],
  ] as const)('refuses %s %s', (value, unit) => {
    expect(() => powerToPercent(value, unit)).toThrow(/power/);
  });
});

describe('interval and mass', () => {
  it('inverts every interval unit', () => {
    fc.assert(
      fc.property(fc.constantFrom(...INTERVAL_UNITS), fc.double({ min: 0.005, max: 2, noNaN: true }), (unit, mm) => {
        expect(intervalToMm(intervalFromMm(mm, unit), unit)).toBeCloseTo(mm, 9);
      }),
    );
  });

  it('follows the exact inch and ounce (international yard and pound agreement, 1959)', () => {
    expect(massToG(1, 'oz')).toBeCloseTo(28.349523125, 12);
    expect(intervalToMm(340, 'lines/in')).toBeCloseTo(0.074706, 6);
    expect(intervalToMm(75, 'lines/cm')).toBeCloseTo(0.13333, 5);
  });

  it('refuses a negative weight and an interval of 0', () => {
    expect(() => massToG(-1, 'g')).toThrow(/cannot be negative/);
    expect(() => intervalToMm(0, 'mm')).toThrow(/above 0/);
  });
});

describe('monotone curve', () => {
  const rising = fc
    .array(fc.tuple(fc.double({ min: 0.1, max: 10, noNaN: true }), fc.double({ min: 0, max: 10, noNaN: true })), {
      minLength: 1,
      maxLength: 8,
    })
    .map((steps) =>
      steps.reduce((rows, [dx, dy]) => [...rows, { x: rows.at(-1)!.x + dx, y: rows.at(-1)!.y + dy }], [{ x: 0, y: 0 }]),
    );

  it('never falls and passes through its rows', () => {
    fc.assert(
      fc.property(rising, (rows) => {
        const curve = monotoneCurve(rows);
        rows.forEach((row) => expect(evaluateCurve(curve, row.x)).toBeCloseTo(row.y, 9));
        const end = rows.at(-1)!.x;
        let before = -Infinity;
        for (let i = 0; i <= 50; i += 1) {
          const value = evaluateCurve(curve, (end * i) / 50);
          expect(value).toBeGreaterThanOrEqual(before - 1e-9);
          before = value;
        }
      }),
    );
  });

  it('holds its end rows outside the table and inverts inside it', () => {
    const curve = monotoneCurve(dialTable);
    expect(evaluateCurve(curve, 0)).toBe(4);
    expect(evaluateCurve(curve, 99)).toBe(90);
    expect(invertCurve(curve, 30)).toBeCloseTo(5, 8);
    expect(() => invertCurve(curve, 200)).toThrow(/outside the measured table/);
  });

  it('tells a falling table from a repeated row and from a short one', () => {
    expect(() =>
      monotoneCurve(
        [
          { x: 1, y: 2 },
          { x: 2, y: 1 },
        ],
        'calibration',
      ),
    ).toThrow(/falls from 2 at 1 to 1 at 2/);
    expect(() =>
      monotoneCurve([
        { x: 1, y: 2 },
        { x: 1, y: 3 },
      ]),
    ).toThrow(/has 1 twice/);
    expect(() => monotoneCurve([{ x: 1, y: 2 }])).toThrow(/two rows/);
  });
});

describe('gauge', () => {
  it('refuses a number without a metal, and a number the table lacks', () => {
    expect(() => gaugeToMm(24, null)).toThrow(/until the metal is named/);
    expect(() => gaugeToMm(3, 'stainless')).toThrow(/no gauge 3/);
    expect(() => gaugeToMm(24.5, 'steel')).toThrow(/no gauge 24.5/);
  });
});
