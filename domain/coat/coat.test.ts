import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { massToG, USUAL_TRANSFERS, type TransferKnowledge } from '@unto/core';
import type { CompoundBody, ContainerBody, InventoryItem } from '@unto/contract';
import { coatPlanFor, coatedAreaMm2 } from './coat-plan.js';
import { containerInHand } from './container-in-hand.js';
import { contentsLeft } from './contents-left.js';
import { learntTransfer, type TransferSample } from './learnt-transfer.js';
import { readTimerAt } from './read-timer-at.js';
import { sprayedMix } from './sprayed-mix.js';
import { workOutWeighing } from './work-out-weighing.js';

const TICKET = { markWidthMm: 90, markHeightMm: 40, coatMarginMm: 5 };
const BODY = {
  usual: [],
  massSolids: 0.18,
  volumeSolids: 0.08,
  dryDensity: 2.4,
  dryFilmMinUm: 8,
  dryFilmMaxUm: 12,
  thinnerRatio: 1,
  thinnerDensityRatio: 0.8,
  sizes: [
    { netG: 100, priceMinor: 2000 },
    { netG: 500, priceMinor: 7000 },
  ],
} as unknown as CompoundBody;
const compoundItem = (body: CompoundBody) =>
  ({ id: 'c', revision: 1, kind: 'compound', body }) as unknown as InventoryItem<'compound'>;
const reaching = (value: number): TransferKnowledge => ({
  value,
  low: value,
  high: value,
  grade: 'measured',
  weighings: 3,
});

describe('a mix as it is sprayed', () => {
  it('of equal volumes, thinner 0.8 times as dense: 18 % solids become 10 %, 5 parts in 9 are compound', () => {
    const { massSolids, volumeSolids, compoundShare } = sprayedMix(BODY);
    expect(massSolids).toBeCloseTo(0.1, 12);
    expect(volumeSolids).toBeCloseTo(0.04, 12);
    expect(compoundShare).toBeCloseTo(5 / 9, 12);
  });

  it('without thinner is the compound', () => {
    expect(sprayedMix({ ...BODY, thinnerRatio: 0 })).toEqual({
      massSolids: 0.18,
      volumeSolids: 0.08,
      compoundShare: 1,
    });
  });
});

describe('a coat that is sprayed as it was planned', () => {
  const weighed = (body: CompoundBody, share: number, pieces: number, massG: number) =>
    workOutWeighing(
      {
        pieces,
        before: { value: 500, unit: 'g' },
        after: { value: 500 - massG, unit: 'g' },
        partsBefore: null,
        partsAfter: null,
      },
      { compound: body, tareG: 50, ticket: TICKET, learnt: reaching(share), ref: { kind: 'weighing', id: 'w' } },
    );

  it('of a thinned compound, 10 µm planned, weighs 10 µm', () => {
    expect(coatedAreaMm2(TICKET)).toBe(5000);
    const plan = coatPlanFor(compoundItem(BODY), TICKET, 20, reaching(0.4));
    // 20 pieces of 50 cm² at 10 µm and 2.4 g/cm³ are 2.4 g dry: 60 g of a mix with a tenth of solids, of which 40 % arrive.
    expect(plan.mass.value).toBeCloseTo(60, 9);
    expect(weighed(BODY, 0.4, 20, plan.mass.value).film.value).toBeCloseTo(10, 9);
    // Only the compound is paid for, at the larger container's price.
    expect(plan.pricePerPiece.value).toBeCloseTo((60 * (5 / 9) * (70 / 500)) / 20, 9);
  });

  it('whatever the thinner, its density, the share that arrives and the pieces', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 4, noNaN: true }),
        fc.double({ min: 0.3, max: 2, noNaN: true }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        fc.integer({ min: 1, max: 30 }),
        (thinnerRatio, thinnerDensityRatio, share, pieces) => {
          const body = { ...BODY, thinnerRatio, thinnerDensityRatio };
          const { mass } = coatPlanFor(compoundItem(body), TICKET, pieces, reaching(share));
          fc.pre(mass.value < 440);
          expect(weighed(body, share, pieces, mass.value).film.value).toBeCloseTo(10, 6);
        },
      ),
    );
  });

  it('shows the share that arrived by its own parts, whatever was learnt before', () => {
    const parts = { partsBefore: { value: 800, unit: 'g' }, partsAfter: { value: 802.4, unit: 'g' } } as const;
    const request = {
      pieces: 20,
      before: { value: 200, unit: 'g' },
      after: { value: 140, unit: 'g' },
      ...parts,
    } as const;
    const setup = {
      compound: BODY,
      tareG: 50,
      ticket: TICKET,
      learnt: reaching(0.9),
      ref: { kind: 'weighing', id: 'w' },
    };
    const { film, transfer } = workOutWeighing(request, setup as Parameters<typeof workOutWeighing>[1]);
    expect(transfer!.value).toBeCloseTo(0.4, 9);
    expect(film.value).toBeCloseTo(10, 9);
  });

  it('is refused where parts gained more than the solids that left', () => {
    const request = {
      pieces: 20,
      before: { value: 200, unit: 'g' },
      after: { value: 140, unit: 'g' },
      partsBefore: { value: 800, unit: 'g' },
      partsAfter: { value: 807, unit: 'g' },
    } as const;
    const setup = {
      compound: BODY,
      tareG: 50,
      ticket: TICKET,
      learnt: reaching(0.4),
      ref: { kind: 'weighing', id: 'w' },
    };
    expect(() => workOutWeighing(request, setup as Parameters<typeof workOutWeighing>[1])).toThrow(
      /more than the 6.00 g/,
    );
  });
});

describe('contents of a container', () => {
  const use = {
    nowG: massToG(250, 'g'),
    weighedAt: '2026-03-02T09:00:00Z',
    massAppliedG: 60,
    areaMm2: 100_000,
    lastPieceMm2: 5000,
  };
  it('are grams over the tare, and pieces at the mean of all weighings, of the size that is meant', () => {
    const left = contentsLeft({ tareG: 100, usual: [] }, use)!;
    expect([left.grams.value, left.pieces!.value, left.grams.grade]).toEqual([150, 50, 'measured']);
    expect(contentsLeft({ tareG: 100, usual: [] }, use, 10_000)!.pieces!.value).toBe(25);
  });
  it('are an interval, and no more than usual, where nobody weighed the empty container', () => {
    const left = contentsLeft({ tareG: 100, usual: ['tareG'] }, use)!;
    expect(left.grams).toMatchObject({ value: 150, grade: 'usual', interval: { low: 125, high: 170, level: 0.9 } });
    expect(left.pieces!.interval).toMatchObject({ low: 41, high: 56 });
  });
  it('are not told in pieces while nothing was laid out of it, and not at all when it was never weighed', () => {
    expect(contentsLeft({ tareG: 100, usual: [] }, { ...use, areaMm2: 0, massAppliedG: 0 })!.pieces).toBeNull();
    expect(contentsLeft({ tareG: 100, usual: [] }, null)).toBeNull();
  });
});

describe('a timer', () => {
  it('is read the same from the text of an answer and from a row', () => {
    const at = Date.parse('2026-03-02T09:05:00Z');
    const [text, row] = ['2026-03-02T09:00:00Z', new Date('2026-03-02T09:00:00Z')].map((startedAt) =>
      readTimerAt({ startedAt, minimumS: 600 }, at),
    );
    expect(text).toEqual(row);
  });
});

describe('what is known of the transfer', () => {
  const sample = (value: number, application: TransferSample['application'], by = 'ines') => ({
    value,
    application,
    by,
  });

  it('is of the way it is laid on alone, usual before anybody weighed two', () => {
    const known = [sample(0.3, 'aerosol'), sample(0.32, 'aerosol'), sample(0.9, 'foam brush')];
    expect(learntTransfer(known, 'aerosol', 'ines')).toMatchObject({ value: 0.31, grade: 'measured', weighings: 2 });
    expect(learntTransfer(known, 'foam brush', 'ines')).toEqual(USUAL_TRANSFERS['foam brush']);
    expect(USUAL_TRANSFERS['foam brush'].value).toBeGreaterThan(USUAL_TRANSFERS.aerosol.value);
  });

  it('is one’s own once one weighed three, everybody’s before', () => {
    const all = [0.3, 0.3].map((value) => sample(value, 'gun', 'tobin'));
    const own = [0.5, 0.5, 0.5].map((value) => sample(value, 'gun', 'ines'));
    expect(learntTransfer([...all, ...own], 'gun', 'ines').value).toBeCloseTo(0.5, 9);
    expect(learntTransfer([...all, ...own], 'gun', 'mirela').value).toBeCloseTo(0.42, 9);
  });
});

describe('a coat’s price', () => {
  it('is that of the container it is taken from', () => {
    const price = (container?: { priceMinor: number; netG: number; usual: string[] }) =>
      coatPlanFor(compoundItem(BODY), TICKET, 1, USUAL_TRANSFERS.aerosol, container).pricePerPiece.value;
    expect(price({ priceMinor: 2600, netG: 90, usual: [] }) / price()).toBeCloseTo(2600 / 90 / (7000 / 500), 9);
  });
});

describe('the container that is taken next', () => {
  const can = (id: string, change: Partial<ContainerBody>) =>
    ({
      id,
      body: { name: id, netG: 100, priceMinor: 2000, openedOn: null, expiresOn: null, ...change },
    }) as InventoryItem<'container'>;
  const shelf = [
    can('new', {}),
    can('old', { expiresOn: '2026-01-01' }),
    can('open', { openedOn: '2026-02-01', priceMinor: 2600 }),
    can('empty', { openedOn: '2026-01-01' }),
  ];
  const left = (id: string) => (id === 'empty' ? 0 : undefined);

  it('is an opened one with something left, never one past its date', () => {
    expect(containerInHand(shelf, left, '2026-03-01')).toMatchObject({ name: 'open', priceMinor: 2600 });
    expect(containerInHand(shelf.slice(0, 2), left, '2026-03-01')!.name).toBe('new');
    expect(containerInHand([shelf[1]!, shelf[3]!], left, '2026-03-01')).toBeNull();
  });
});
