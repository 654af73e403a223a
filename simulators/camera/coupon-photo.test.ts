import { beforeAll, describe, expect, it } from 'vitest';
import { CoreError, layoutCoupon, openCardPicture, readCoupon, type CouponLayout, type Point2 } from '@unto/core';
import type { TimedMove } from '../burn/index.js';
import { decoded } from './decoded.js';
import {
  coveredCells,
  STUDY_DESIGN,
  STUDY_LIMITS,
  studyBlank,
  studyMoves,
  studyPhoto,
  studyReading,
  trueLightness,
} from '../testing/coupon-study.js';

let layout: CouponLayout;
let moves: TimedMove[];
/** Faults show as well in a smaller picture. */
const SMALL = { width: 1500, height: 1125 };
beforeAll(() => ({ layout, moves } = studyMoves(STUDY_DESIGN)));

describe('coupons read from the simulated camera’s pictures', () => {
  it('have every cell’s L* within 2 of the truth on 95 % of the cells, over five seeds, whichever way round', async () => {
    const misses: number[] = [];
    for (const seed of [1, 2, 3, 4, 5]) {
      const blank = studyBlank(seed, seed % 2 ? 'scrubbed' : 'rinsed', moves);
      const truth = trueLightness(blank, layout);
      const { cells, sure, code } = await studyReading(await studyPhoto({ seed, blank }), layout);
      expect(sure, `seed ${seed}`).toBe(true);
      expect(code).toEqual({ text: 'K-031', agrees: true });
      for (const { cell, lightness } of cells) if (lightness !== null) misses.push(lightness - truth[cell]!);
    }
    expect(misses.length).toBeGreaterThan(200);
    const within = misses.filter((miss) => Math.abs(miss) <= 2).length / misses.length;
    expect(within).toBeGreaterThanOrEqual(0.95);
  }, 60_000);

  it('are told upright with a label under every cell, where rinsed residue fills the gaps, in each of four turns', async () => {
    const labelled = studyMoves({
      ...STUDY_DESIGN,
      axes: {
        x: { parameter: 'power', spacing: 'linear', from: 40, to: 100, count: 7 },
        y: { parameter: 'speed', spacing: 'log', from: 60, to: 450, count: 8 },
      },
      labels: { at: 'each', captions: 'grid', heightMm: 1.8, powerPercent: 90, speedMmPerS: 60 },
    });
    for (const seed of [1, 2, 3, 4]) {
      const blank = studyBlank(seed, 'rinsed', labelled.moves);
      const { sure, code, cells } = await studyReading(await studyPhoto({ seed, blank, size: SMALL }), labelled.layout);
      expect([sure, code.text], `seed ${seed}`).toEqual([true, 'K-031']);
      // What of the brass shows through a faint mark is no tint of the mark's own.
      const tinted = cells.filter(({ chroma }) => chroma !== null && chroma > 10).map(({ cell }) => cell + 1);
      expect(tinted, `seed ${seed}`).toEqual([]);
      expect(cells.filter(({ chroma }) => chroma !== null).length, `seed ${seed}`).toBeGreaterThan(25);
      // The strongest cell is where the design has it: neither turned half round nor mirrored.
      expect(cells[6]!.contrast! - cells[49]!.contrast!, `seed ${seed}`).toBeGreaterThan(5);
    }
  }, 60_000);

  it('mix no cell up with its neighbour: a chequer of faint and full cells comes back as burnt', async () => {
    const chequer = studyMoves({
      ...STUDY_DESIGN,
      axes: {
        x: { parameter: 'power', spacing: 'list', values: [100, 20, 99, 21, 98, 22] },
        y: { parameter: 'speed', spacing: 'list', values: [80, 81, 82, 83, 84] },
      },
    });
    const blank = studyBlank(3, 'scrubbed', chequer.moves);
    const { cells } = await studyReading(await studyPhoto({ seed: 7, blank }), chequer.layout);
    expect(cells.filter(({ unreadable }) => unreadable).length).toBeLessThan(3);
    for (const { cell, contrast } of cells.filter(({ unreadable }) => !unreadable)) {
      const full = chequer.layout.cells[cell]!.powerPercent > 50;
      expect(contrast! > 30, `cell ${cell + 1}`).toBe(full);
    }
  }, 30_000);

  it.each([
    ['glare on some cells', 'glare'],
    ['some cells blurred', 'blur'],
  ] as const)(
    'with %s refuse every such cell',
    async (fault, why) => {
      for (const [seed, cell] of [
        [1, 8],
        [2, 21],
        [3, 32],
        [4, 40],
      ] as const) {
        const at = layout.cells[cell]!;
        const spoilt = [{ x: at.xMm + 2.5, y: at.yMm + 2, radiusMm: 5.5 }];
        const blank = studyBlank(seed, 'rinsed', moves);
        const { cells } = await studyReading(await studyPhoto({ seed, blank, fault, spoilt, size: SMALL }), layout);
        const covered = coveredCells(layout, spoilt, why === 'glare' ? 0.03 : 0.2);
        expect(covered).toContain(cell);
        for (const index of covered) expect(cells[index]!.unreadable, `seed ${seed}, cell ${index + 1}`).not.toBeNull();
        // What lies far from it is read as ever.
        const clear = cells.filter(({ unreadable }) => unreadable === null).length;
        expect(clear).toBeGreaterThan(cells.length - 16);
      }
    },
    60_000,
  );

  it.each([
    ['no card', 'reading.no-card', /no reference card/i],
    ['two cards', 'reading.two-cards', /two reference cards/i],
    ['a hand over two marks', 'reading.no-card', /lower right and the upper right/],
  ] as const)(
    'with %s are refused',
    async (fault, code, words) => {
      const blank = studyBlank(1, 'rinsed', moves);
      const refused = await studyReading(await studyPhoto({ seed: 2, blank, fault, size: SMALL }), layout).catch(
        (e: unknown) => e,
      );
      expect(refused).toBeInstanceOf(CoreError);
      expect(refused).toMatchObject({ code, message: expect.stringMatching(words) as string });
    },
    30_000,
  );

  it('with one mark covered are read by the three others, and say so', async () => {
    const blank = studyBlank(1, 'rinsed', moves);
    const reading = await studyReading(
      await studyPhoto({ seed: 4, blank, fault: 'a mark covered', size: SMALL }),
      layout,
    );
    expect(reading.missing).toEqual(['upper right']);
    expect(reading.sure).toBe(true);
  }, 30_000);

  it('of a longer code are refused: K-031 is not K-03', async () => {
    const blank = studyBlank(1, 'scrubbed', moves);
    const photo = await studyPhoto({ seed: 1, blank, size: SMALL });
    const other = layoutCoupon({ ...STUDY_DESIGN, code: 'K-03' }, STUDY_LIMITS);
    await expect(studyReading(photo, other)).rejects.toMatchObject({
      code: 'reading.other-coupon',
      message: expect.stringMatching(/picture of K-031, not of K-03\b/) as string,
    });
  }, 30_000);

  it('of another letter are never taken without a word: refused, or not told whole so that it is asked', async () => {
    const blank = studyBlank(1, 'scrubbed', moves);
    const photo = await studyPhoto({ seed: 1, blank, size: SMALL });
    const other = layoutCoupon({ ...STUDY_DESIGN, code: 'L-031' }, STUDY_LIMITS);
    const told = await studyReading(photo, other).then(
      ({ code }) => code.text,
      (error: CoreError) => error.message,
    );
    expect(told).toMatch(/\?|not of L-031/);
  }, 30_000);

  it('of another coupon are refused by its code', async () => {
    const blank = studyBlank(1, 'scrubbed', moves);
    const photo = await studyPhoto({ seed: 1, blank, size: SMALL });
    const other = layoutCoupon({ ...STUDY_DESIGN, code: 'K-017' }, STUDY_LIMITS);
    await expect(studyReading(photo, other)).rejects.toMatchObject({
      code: 'reading.other-coupon',
      message: expect.stringMatching(/picture of K-031, not of K-017/) as string,
    });
  }, 30_000);

  it('whose corner marks are gone ask for handles, and measure nothing by a guess', async () => {
    const faint = studyMoves({
      ...STUDY_DESIGN,
      labels: { ...STUDY_DESIGN.labels, powerPercent: 8, speedMmPerS: 500 },
    });
    const blank = studyBlank(1, 'scrubbed', faint.moves);
    const reading = await studyReading(await studyPhoto({ seed: 1, blank, size: SMALL }), faint.layout);
    expect(reading.sure).toBe(false);
    expect(reading.cells).toEqual([]);
    expect(reading.corners).toHaveLength(4);
  }, 30_000);

  it('are refused by handles that cross or stand mirrored, in words', async () => {
    const pixels = await decoded(await studyPhoto({ seed: 1, blank: studyBlank(1, 'scrubbed', moves), size: SMALL }));
    const open = openCardPicture(pixels);
    const [ll, lr, ur, ul] = readCoupon(open, layout).corners as [Point2, Point2, Point2, Point2];
    for (const wrong of [
      [ll, ur, lr, ul],
      [lr, ll, ul, ur],
    ])
      expect(() => readCoupon(open, layout, wrong)).toThrow(/corners cross/);
    expect(readCoupon(open, layout, [ll, lr, ur, ul]).cells).toHaveLength(42);
  }, 30_000);
});
