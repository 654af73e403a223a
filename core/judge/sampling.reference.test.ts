import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../support/index.js';
import { drawPieces, mostLost, sampleFor, samplePlans } from './sampling.js';

describe('how many lose their mark, by a sample', () => {
  it('agrees with the exact interval of NIST/SEMATECH e-Handbook 7.2.4.1: 4 of 20, 95 % one-sided 0.401029 (from memory)', () => {
    expect(mostLost({ scrubbed: 20, lost: 4 }, null, 0.95)).toBeCloseTo(0.401029, 5);
  });

  it('of none lost is one less the root of the risk', () => {
    for (const n of [1, 6, 12, 22, 45])
      expect(mostLost({ scrubbed: n, lost: 0 }, null)).toBeCloseTo(1 - 0.1 ** (1 / n), 9);
  });

  // ISO 16269-6, one-sided distribution-free tolerance intervals; published tables of success runs (from memory).
  it.each([
    [0.05, 0, 0.95, 59],
    [0.05, 1, 0.95, 93],
    [0.05, 2, 0.95, 124],
    [0.1, 0, 0.9, 22],
    [0.1, 1, 0.9, 38],
    [0.1, 2, 0.9, 52],
    [0.1, 0, 0.95, 29],
    [0.05, 0, 0.9, 45],
    [0.05, 1, 0.9, 77],
    [0.05, 2, 0.9, 105],
  ])('wants for at most %s with %s lost, %s sure: %s', (share, lost, sure, wanted) => {
    expect(sampleFor(share, null, lost, sure)).toBe(wanted);
  });

  // Cannon & Roe 1982, freedom from disease: sample that finds one of so many in a herd, 95 % sure (from memory).
  it.each([
    [20, 2, 16],
    [30, 3, 19],
    [50, 5, 22],
    [100, 10, 25],
    [100, 5, 45],
    [100, 2, 78],
  ])('of a lot of %s, so that %s lost would be found: %s', (lot, bad, wanted) => {
    // Nobody lost says fewer than those: at most one less.
    expect(sampleFor((bad - 1) / lot, lot, 0, 0.95)).toBe(wanted);
  });

  it('of a lot agrees with counting every draw', () => {
    const [lot, n] = [9, 4];
    const draws: number[][] = [];
    const choose = (from: number, picked: number[]): void => {
      if (picked.length === n) return void draws.push(picked);
      for (let i = from; i < lot; i += 1) choose(i + 1, [...picked, i]);
    };
    choose(0, []);
    for (const lost of [0, 1, 2]) {
      const few = (bad: number) =>
        draws.filter((draw) => draw.filter((piece) => piece < bad).length <= lost).length / draws.length;
      const most = Array.from({ length: lot + 1 }, (_, bad) => bad).filter(
        (bad) => bad >= lost && bad <= lot - (n - lost) && few(bad) > 0.1,
      );
      expect(mostLost({ scrubbed: n, lost }, lot)).toBeCloseTo(most.at(-1)! / lot, 12);
    }
  });

  it('says never less of a lot than of a process, more with every one lost, and all that was scrubbed of itself', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 60 }), (lot, scrubbed) => {
        const n = Math.min(lot, scrubbed);
        const own = mostLost({ scrubbed: n, lost: 0 }, lot);
        expect(own).toBeLessThanOrEqual(mostLost({ scrubbed: n, lost: 0 }, null) + 1e-9);
        expect(mostLost({ scrubbed: n, lost: 1 }, lot)).toBeGreaterThanOrEqual(own);
      }),
    );
    expect(mostLost({ scrubbed: 12, lost: 0 }, 12)).toBe(0);
    expect(mostLost({ scrubbed: 12, lost: 3 }, 12)).toBe(0.25);
    expect(mostLost({ scrubbed: 0, lost: 0 }, 12)).toBe(1);
  });

  it('covers the truth as often as it says', () => {
    const random = seededRandom(4);
    let held = 0;
    const turns = 2000;
    for (let turn = 0; turn < turns; turn += 1) {
      const p = 0.02 + 0.3 * random();
      let lost = 0;
      for (let i = 0; i < 20; i += 1) if (random() < p) lost += 1;
      if (mostLost({ scrubbed: 20, lost }, null) >= p) held += 1;
    }
    expect(held / turns).toBeGreaterThanOrEqual(0.9);
  });

  it('refuses what cannot be', () => {
    expect(() => mostLost({ scrubbed: 3, lost: 4 }, null)).toThrow();
    expect(() => mostLost({ scrubbed: 13, lost: 0 }, 12)).toThrow();
    expect(() => mostLost({ scrubbed: 2.5, lost: 0 }, null)).toThrow(/whole/);
    expect(sampleFor(0.1, 10, 3)).toBeNull();
  });
});

describe('a plan', () => {
  it('offers few to many, each of which says more', () => {
    for (const lot of [null, 6, 24, 48, 500]) {
      const plans = samplePlans(lot);
      plans.forEach((plan, i) => {
        if (i) expect(plan.mostLost).toBeLessThan(plans[i - 1]!.mostLost);
        if (lot) expect(plan.scrub).toBeLessThanOrEqual(lot);
      });
    }
    // The sketch of the trade: of a process, 22 scrubbed say at most 10 %, 45 at most 5 %.
    expect(samplePlans(null).map(({ scrub }) => scrub)).toEqual([6, 11, 22, 45]);
  });

  it('draws at random, every piece as likely, and keeps those drawn before', () => {
    const counts = new Array<number>(11).fill(0);
    for (let seed = 0; seed < 3000; seed += 1)
      for (const piece of drawPieces([1, 2, 3, 4, 5, 6, 7, 8, 9, 10], 3, { before: [], random: seededRandom(seed) }))
        counts[piece]! += 1;
    for (const count of counts.slice(1)) expect(Math.abs(count - 900)).toBeLessThan(100);
    expect(drawPieces([1, 2, 3, 4, 5], 3, { before: [5, 2], random: seededRandom(1) })).toEqual(
      expect.arrayContaining([2, 5]),
    );
    expect(drawPieces([1, 2], 9, { before: [], random: seededRandom(1) })).toEqual([1, 2]);
  });
});
