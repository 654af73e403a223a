import { describe, expect, it } from 'vitest';
import type { InventoryItem, TicketPage } from '@unto/contract';
import { runCost, ticketCost, type CostShelf } from './index.js';

const COMPOUND = {
  ...{ id: 'c', kind: 'compound', revision: 1 },
  body: {
    ...{ coats: 2, application: 'aerosol', dryFilmMinUm: 8, dryFilmMaxUm: 12, volumeSolids: 0.3, massSolids: 0.12 },
    ...{ dryDensity: 3.6, thinnerRatio: 0, thinnerDensityRatio: 0.9, usual: [] },
    sizes: [{ label: 'can', netG: 400, priceMinor: 8000 }],
  },
} as unknown as InventoryItem<'compound'>;
const SHELF: CostShelf = {
  shop: { labourMinorPerMinute: 40 },
  laserMinorPerMinute: 20,
  compound: COMPOUND,
  containerOf: () => ({ priceMinor: 8000, netG: 400 }),
  blankPriceOf: () => 150,
};
const run = (change: object = {}) => ({
  ...{ id: 'r1', pieces: 4, minutes: 8, minutesFrom: 'counted', bench: null, correctedById: null },
  cleaning: { minutes: 4 },
  judgement: { piecesGood: 4 },
  ...change,
});
const page = (change: object = {}) =>
  ({
    ticket: { compoundId: 'c', pieces: 4, markWidthMm: 40, markHeightMm: 20, coatMarginMm: 3 },
    runs: [run()],
    weighings: [{ beforeG: 210, afterG: 206, containerId: 'can' }],
    recipes: [{ secondsPerPiece: 120 }],
    reworks: [],
    yieldBefore: { good: 95, made: 100, of: 'this shop' },
    transferSamples: [],
    ...change,
  }) as unknown as TicketPage;
const costOf = (change: object = {}, shelf: Partial<CostShelf> = {}) =>
  ticketCost(page(change), { ...SHELF, ...shelf }, 'ines')!;

describe('what a ticket came to', () => {
  it('adds up by hand: blanks, weighed compound, minutes at the laser, hands', () => {
    // 4 × 150; 4 g of 400 g for 8000; 8 min × 20; hands (2 coats × 0.5 min × 4 + 4 min) × 40.
    const { totalMinor, realMinor, good, made, asPlanned } = costOf();
    expect(totalMinor).toBeCloseTo(600 + 80 + 160 + 8 * 40, 6);
    expect(realMinor).toBeCloseTo(totalMinor / 4, 6);
    expect([good, made, asPlanned]).toEqual([4, 4, []]);
  });

  it('is nothing before anything ran, and has no price of a good piece while none is good', () => {
    expect(ticketCost(page({ runs: [] }), SHELF, 'ines')).toBeNull();
    const none = costOf({ runs: [run({ judgement: { piecesGood: 0 } })] });
    expect([none.realMinor, none.steps]).toEqual([null, []]);
    expect(none.scrapMinor).toBeCloseTo(none.totalMinor, 6);
  });

  it('tells factor by factor why it differs, adding up to the difference', () => {
    const { steps, plannedMinor, realMinor } = costOf({ runs: [run({ minutes: 20, judgement: { piecesGood: 3 } })] });
    const sum = steps.reduce((total, { differsMinor }) => total + differsMinor, 0);
    expect(sum).toBeCloseTo(realMinor! - plannedMinor, 6);
    const of = (factor: string) => steps.find((step) => step.factor === factor)!;
    // Five minutes a piece instead of two; three of four good instead of nineteen of twenty.
    expect(of('laserMinutes')).toMatchObject({ planned: 2, real: 5 });
    expect(of('laserMinutes').differsMinor).toBeGreaterThan(0);
    expect(of('yieldShare').real).toBeCloseTo(0.75, 9);
    expect(of('yieldShare').differsMinor).toBeGreaterThan(0);
    expect(of('labourMinorPerMinute').differsMinor).toBeCloseTo(0, 9);
  });

  it('takes as planned what nobody weighed, timed or cleaned, and names it', () => {
    const { asPlanned, steps } = costOf({ weighings: [], runs: [run({ minutesFrom: 'planned', cleaning: null })] });
    expect(asPlanned).toEqual(['compound', 'laser minutes', 'cleaning']);
    const compound = steps.find(({ factor }) => factor === 'compoundMinor')!;
    expect(compound.real).toBe(compound.planned);
  });

  it('charges no second blank for a piece that is made anew, and tells what making anew cost', () => {
    const again = run({ id: 'r2', pieces: 1, minutes: 2, cleaning: { minutes: 1 }, judgement: { piecesGood: 1 } });
    const first = run({ judgement: { piecesGood: 3 } });
    const plain = costOf({ runs: [first, again] });
    const rework = costOf({ runs: [first, again], reworks: [{ id: 'w', doneRunId: 'r2' }] });
    expect(plain.totalMinor - rework.totalMinor).toBeCloseTo(150, 6);
    expect(rework.reworkMinor).toBeGreaterThan(0);
    expect(plain.reworkMinor).toBe(0);
  });

  it('leaves out what was corrected, and needs no compound where there is none', () => {
    const corrected = costOf({ runs: [run({ id: 'r0', correctedById: 'r1', pieces: 40 }), run()] });
    expect(corrected.made).toBe(4);
    const bare = costOf(
      { ticket: { compoundId: null, pieces: 4, markWidthMm: 40, markHeightMm: 20, coatMarginMm: 0 }, weighings: [] },
      { compound: null },
    );
    expect(bare.asPlanned).toEqual([]);
    expect(bare.steps.find(({ factor }) => factor === 'compoundMinor')).toMatchObject({ planned: 0, real: 0 });
  });
});

describe('what a run came to', () => {
  const work = {
    ...{ coatMinutes: 2, dryMinutes: 30, markMinutes: 2, cleanMinutes: 1, stripMinutes: 12, placeMinutes: 3 },
    ...{ compoundG: 1, compoundMinor: 20, blankMinor: 150, labourMinorPerMinute: 40, laserMinorPerMinute: 20 },
    regionShare: 1,
  };
  const ran = (change: object = {}) => ({ ...run({ compoundId: 'c', ...change }) }) as never;

  it('is blanks, compound, laser and hands of all its pieces, borne by the good ones (by hand)', () => {
    // 4 × 150 + 4 × 20 + 8 min × 20 + 4 × (2 + 1) min × 40 = 600 + 80 + 160 + 480.
    const cost = runCost(ran({ judgement: { piecesGood: 3 } }), work, false);
    expect(cost).toMatchObject({ totalMinor: 1320, goodMinor: 440, notRead: [] });
    expect(cost.parts.map(({ minor }) => minor)).toEqual([600, 80, 160, 480]);
    expect(runCost(ran({ judgement: null }), work, false).goodMinor).toBeNull();
  });

  it('takes no blank for pieces made anew, and says what nobody read', () => {
    const bare = { ...work, compoundG: 0, compoundMinor: 0 };
    const cost = runCost(ran({ cleaning: null, minutesFrom: 'planned' }), bare, true);
    expect(cost.parts.map(({ what }) => what)).toEqual(['laser', 'hands']);
    expect(cost.notRead).toEqual(['compound', 'laser minutes', 'cleaning']);
    expect(runCost(ran({ compoundId: null }), bare, false).notRead).toEqual([]);
  });
});
