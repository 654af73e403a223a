import { layoutCoupon, type CouponLimits, type StartingBench, type StartingPoint, type UnitReading } from '@unto/core';
import { CORE_READING } from '@unto/core';
import { describe, expect, it } from 'vitest';
import { designOf } from './design-form';
import { startingDraft } from './starting-draft';

const LIMITS: CouponLimits = {
  bed: { widthMm: 500, heightMm: 300 },
  topSpeedMmPerS: 500,
  firingThresholdPercent: 8,
};
const BENCH: StartingBench = {
  ...{ fullW: 55, firingThresholdPercent: 8, topSpeedMmPerS: 500, radiusMm: 0.085 },
  ...{ conductivity: 0.0162, diffusivity: 4.05 },
};
const USUAL: StartingPoint = {
  ...{ powerW: 39, speedMmPerS: { low: 150, high: 250 }, intervalMm: 0.075 },
  ...{ grade: 'usual', source: 'usual' },
};
const blank = (widthMm: number, heightMm: number) => ({ name: `${widthMm} × ${heightMm}`, widthMm, heightMm });
const cells = (start: ReturnType<typeof startingDraft>) => layoutCoupon(designOf(start.draft), LIMITS).cells.length;

describe('a first coupon', () => {
  it('is drawn on the smallest spare blank that takes enough cells, or on that which takes most', () => {
    const both = startingDraft(LIMITS, BENCH, [USUAL], [blank(200, 200), blank(44.6, 27.8), blank(90, 90)], null);
    expect(both.blank?.name).toBe('90 × 90');
    const start = startingDraft(LIMITS, BENCH, [USUAL], [blank(44.6, 27.8), blank(20, 12)], null);
    expect(start.blank?.name).toBe('44.6 × 27.8');
    expect(cells(start)).toBeGreaterThanOrEqual(24);
    expect([start.draft.blankWidthMm, start.draft.blankHeightMm]).toEqual([44.6, 27.8]);
    const large = startingDraft(LIMITS, BENCH, [USUAL], [blank(90, 90)], null);
    expect(cells(large)).toBe(80);
  });

  it('says so where no blank serves, and offers a plain size', () => {
    const start = startingDraft(LIMITS, BENCH, [USUAL], [blank(15, 10)], null);
    expect(start.blank).toBeNull();
    expect(start.draft.blankWidthMm).toBe(70);
  });

  it('counts in round numbers of the panel', () => {
    const panel: UnitReading = {
      units: { ...CORE_READING.units, speed: '%' },
      scale: { topSpeedMmPerS: 500, ratedW: 55 },
    };
    const { draft } = startingDraft(LIMITS, BENCH, [USUAL], [], panel);
    for (const speed of [draft.y.from, draft.y.to]) {
      const percent = (100 * speed) / 500;
      expect(Number(percent.toPrecision(2))).toBeCloseTo(percent, 9);
    }
    expect(draft.labelSpeedMmPerS).toBe(draft.y.from);
  });

  it('says why nothing comes of what the head cannot reach', () => {
    const fast = { ...USUAL, powerW: 5, speedMmPerS: { low: 4000, high: 4000 } };
    const start = startingDraft(LIMITS, BENCH, [fast], [], null);
    expect(start.range).toBeNull();
    expect(start.because).toMatch(/faster than this head runs/);
    expect(cells(start)).toBe(56);
  });
});
