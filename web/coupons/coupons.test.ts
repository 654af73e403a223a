import { axisLabel, CORE_READING, couponSvg, layoutCoupon, readEmbeddedDesign, type Outcome } from '@unto/core';
import { couponDesign } from '@unto/contract';
import { newestOutcomes } from '@unto/domain';
import { describe, expect, it } from 'vitest';
import { designOf, firstDraft, fixedParameters } from './design-form';
import { changedEntries } from './outcome-map';

const LIMITS = { bed: { widthMm: 390, heightMm: 380 }, topSpeedMmPerS: 250, firingThresholdPercent: 7 };

describe('a first coupon', () => {
  it.each([
    { topSpeedMmPerS: 600, firingThresholdPercent: 7 },
    { topSpeedMmPerS: 250, firingThresholdPercent: 0 },
    { topSpeedMmPerS: 7000, firingThresholdPercent: 0 },
  ])('fits and is accepted by the contract for %j', (head) => {
    const design = designOf(firstDraft(head));
    const layout = layoutCoupon(design, { ...LIMITS, ...head });
    expect(layout.cells).toHaveLength(56);
    expect(layout.cells.every(({ reachable }) => reachable)).toBe(true);
    expect(() => couponDesign.validateSync(design, { strict: true })).not.toThrow();
  });

  it.each([
    ['%', '%'],
    ['0-1000', 'mm/min'],
    ['W', 'in/s'],
    ['0-1000', 'dial'],
  ] as const)('fits where the panel reads power in %s and speed in %s, labelled as it is keyed in', (power, speed) => {
    const dialTable = [
      { x: 1, y: 10 },
      { x: 10, y: 400 },
    ];
    const reading = {
      units: { ...CORE_READING.units, power, speed },
      scale: { ratedW: 55, topSpeedMmPerS: 250, dialTable },
    };
    const draft = firstDraft(LIMITS, reading);
    const design = designOf(draft, reading, 'K-900');
    const layout = layoutCoupon(design, LIMITS);
    expect(layout.cells).toHaveLength(56);
    const texts = layout.labels.map(({ text }) => text);
    // A cell is called by the letter of its column and the number of its row; their values stand behind those at the edges.
    expect(texts).toContain(`G ${axisLabel(design, 'power', 100)}`);
    expect(texts).toContain(`1 ${axisLabel(design, 'speed', layout.cells[0]!.speedMmPerS)}`);
    expect(texts.some((text) => /^G8-*$/.test(text))).toBe(true);
    expect(() => couponDesign.validateSync(design, { strict: true })).not.toThrow();
    // What is designed stays as it is, whatever panel or shop read later.
    const again = couponDesign.validateSync(readEmbeddedDesign(couponSvg(layout)), { stripUnknown: true });
    expect(layoutCoupon(again, LIMITS).labels).toEqual(layout.labels);
  });

  it('asks for single values only of what no axis varies', () => {
    const draft = firstDraft(LIMITS);
    expect(fixedParameters(draft)).toEqual(['interval']);
    expect(fixedParameters({ ...draft, third: true })).toEqual([]);
    expect(fixedParameters({ ...draft, x: { ...draft.x, parameter: 'interval' } })).toEqual(['power']);
  });

  it('reads a list as typed, commas, semicolons or spaces, and keeps what is no number as a fault', () => {
    const draft = firstDraft(LIMITS);
    const list = (text: string) => {
      const { x } = designOf({ ...draft, x: { ...draft.x, spacing: 'list', list: text } }).axes;
      return x.spacing === 'list' ? x.values : [];
    };
    expect(list('40, 60;80  100')).toEqual([40, 60, 80, 100]);
    expect(list('40, x')[1]).toBeNaN();
    expect(() =>
      layoutCoupon(designOf({ ...draft, x: { ...draft.x, spacing: 'list', list: '40, x' } }), LIMITS),
    ).toThrow(/must be a number/);
  });
});

describe('outcomes', () => {
  const reading = (stage: 'rinsed' | 'scrubbed', entries: { cell: number; outcome: Outcome }[]) => ({
    id: '',
    stage,
    source: 'entered' as const,
    entries,
    at: '',
    by: '',
  });

  it('of a later reading count, stage by stage', () => {
    const coupon = {
      readings: [
        reading('rinsed', [{ cell: 0, outcome: 'holds' }]),
        reading('scrubbed', [
          { cell: 0, outcome: 'under' },
          { cell: 1, outcome: 'holds' },
        ]),
        reading('scrubbed', [{ cell: 1, outcome: 'over' }]),
      ],
    };
    expect([...newestOutcomes(coupon, 'scrubbed')]).toEqual([
      [0, 'under'],
      [1, 'over'],
    ]);
    expect([...newestOutcomes(coupon, 'rinsed')]).toEqual([[0, 'holds']]);
  });

  it('are sent only where they differ from what is kept', () => {
    const kept = new Map<number, Outcome>([
      [0, 'holds'],
      [1, 'under'],
    ]);
    expect(
      changedEntries(
        kept,
        new Map([
          [0, 'holds'],
          [1, 'over'],
          [4, 'holds'],
        ]),
      ),
    ).toEqual([
      { cell: 1, outcome: 'over' },
      { cell: 4, outcome: 'holds' },
    ]);
  });
});
