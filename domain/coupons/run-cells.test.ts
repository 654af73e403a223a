import { PLAIN_SETTING } from '@unto/core';
import { describe, expect, it } from 'vitest';
import {
  couponWeight,
  runOutcome,
  runWindowCells,
  windowFamilies,
  type CouponWindowCell,
  type JudgedRun,
} from './index.js';

const setting = { ...PLAIN_SETTING, powerPercent: 80, powerW: 40, speedMmPerS: 120, intervalMm: 0.06 };
const judged = (change: object = {}, pieces = 4): JudgedRun => ({
  ...setting,
  ...{ id: 'r1', pieces },
  judgement: {
    contrastStep: 4,
    piecesGood: pieces,
    faults: [],
    tests: [{ test: 'abrasive pad', result: 'no change' }],
    ...change,
  },
});

describe('what a judged run says of its setting', () => {
  it.each([
    [{}, 'holds'],
    [{ tests: [{ test: 'thumb', result: 'no change' }] }, null],
    [{ tests: [] }, null],
    [{ contrastStep: 2 }, null],
    [{ piecesGood: 3 }, null],
    [{ faults: ['washed off whole'], piecesGood: 0 }, 'under'],
    [{ tests: [{ test: '600 grit wet paper', result: 'lost' }] }, 'under'],
    [{ faults: ['halo or brown'] }, 'over'],
    // Of coat, focus or air, not of the setting.
    [{ faults: ['density drifts'], piecesGood: 0 }, null],
    [{ faults: ['faint in one corner'], piecesGood: 3 }, null],
  ])('%j: %s', (change, outcome) => expect(runOutcome(judged(change))).toBe(outcome));

  it('is by eye, and nothing where its watts are not known', () => {
    expect(runWindowCells([judged()])).toEqual([
      expect.objectContaining({ runId: 'r1', couponId: null, byEye: true, outcome: 'holds' }),
    ]);
    expect(runWindowCells([{ ...judged(), powerW: null }])).toEqual([]);
  });
});

const cell = (powerPercent: number, change: object = {}): CouponWindowCell => ({
  ...setting,
  ...{
    powerPercent,
    powerW: powerPercent / 2,
    outcome: 'holds',
    byEye: false,
    lookedAgain: false,
    kept: null,
    coats: 2,
    couponId: 'k1',
    runId: null,
    cell: 0,
  },
  ...change,
});

describe('a family', () => {
  const run = (change: object) => ({ ...runWindowCells([judged()])[0]!, ...change });
  const families = (runs: CouponWindowCell[]) =>
    windowFamilies([cell(40, { speedMmPerS: 60 }), cell(100, { speedMmPerS: 240 }), ...runs]);

  it('takes a run that lies among what its coupons tried, and none beyond, of another interval or with air', () => {
    const [own, ...others] = families([
      run({ runId: 'inside' }),
      run({ runId: 'beyond', powerW: 60 }),
      run({ runId: 'wide', intervalMm: 0.08 }),
      run({ runId: 'blown', air: 'on' }),
    ]);
    expect([own!.runIds, own!.couponIds, own!.coats, others]).toEqual([['inside'], ['k1'], 2, []]);
  });

  it('is none of runs alone', () => expect(windowFamilies([run({})])).toEqual([]));
});

describe('the weight of a coupon', () => {
  const now = new Date('2026-11-28T12:00:00Z');
  const before = (days: number) => new Date(now.getTime() - days * 86_400_000);
  it('is whole for half a year, then less by halves in two years, never under a quarter', () => {
    expect(couponWeight(before(180), now, null)).toEqual({ weight: 1, why: '' });
    expect(couponWeight(before(183 + 730), now, null).weight).toBe(0.5);
    expect(couponWeight(before(5000), now, null).weight).toBe(0.25);
    // A clock that was set back makes none of them young.
    expect(couponWeight(before(-3), now, null).weight).toBe(1);
    expect(couponWeight(null, now, null).weight).toBe(1);
  });

  it('is a quarter once its recipe drifted, for what was fired before', () => {
    expect(couponWeight(before(20), now, before(10))).toEqual({ weight: 0.25, why: 'fired before its recipe drifted' });
    expect(couponWeight(before(5), now, before(10)).weight).toBe(1);
  });
});
