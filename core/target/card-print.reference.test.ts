import { describe, expect, it } from 'vitest';
import { lightness, srgbToLinear } from '../imaging/index.js';
import { openCardPicture, readCoupon } from '../coupon-reading/index.js';
import { greyOf, layout, photo } from '../testing/drawn-photo.js';
import {
  characteriseCard,
  contrastRanges,
  reflectanceAt,
  reflectanceOf,
  requireCardPrint,
  TYPICAL_PRINT,
} from './index.js';

/** Paper 0.80, ink 0.05, dots a fifth larger at half cover: an office printer of another make than the usual. */
function otherPrint(byte: number): number {
  const cover = 1 - srgbToLinear(byte / 255);
  return 0.8 + (0.05 - 0.8) * Math.min(1, cover + 0.8 * cover * (1 - cover));
}
const known = (cell: number) => lightness(reflectanceOf(greyOf(cell)));
const misses = (reading: ReturnType<typeof readCoupon>) =>
  reading.cells.flatMap(({ cell, lightness: read }) => (read === null ? [] : [Math.abs(read - known(cell))]));

describe('a card printed on other paper with other ink', () => {
  it('puts what is read off, says that a typical print was assumed, and by how much a contrast may be off', async () => {
    const reading = readCoupon(openCardPicture(await photo(0, { print: otherPrint })), layout);
    expect(reading.print.basis).toBe('typical');
    expect(Math.max(...misses(reading))).toBeGreaterThan(4);
    const range = contrastRanges(reading.print);
    for (const { cell, lightness: mark, bareLightness: bare } of reading.cells) {
      const { low, high } = range(bare!, mark!);
      const real = lightness(reflectanceOf(170)) - known(cell);
      expect(real, `cell ${cell + 1}: ${low} to ${high}`).toBeGreaterThan(low - 1);
      expect(real, `cell ${cell + 1}: ${low} to ${high}`).toBeLessThan(high + 1);
    }
  }, 60_000);

  it.each([0.9, 0.965])(
    'is known from one photograph beside a white of %f, and then read as any other',
    async (white) => {
      const card = characteriseCard(await photo(0, { print: otherPrint, sheet: white }), white);
      expect(card.size).toBe('A5');
      expect(Math.abs(lightness(card.print.paper) - lightness(0.8))).toBeLessThan(0.7);
      const wanted = [225, 185, 145, 105, 65, 25].map(otherPrint);
      for (const [i, step] of card.print.steps.entries())
        expect(Math.abs(lightness(step) - lightness(wanted[i]!)), `step ${i + 1}`).toBeLessThan(1);
      for (const turn of [0, 90]) {
        const picture = await photo(turn, { print: otherPrint });
        const reading = readCoupon(openCardPicture(picture, { A5: card.print }), layout);
        expect(reading.print.basis).toBe('photographed');
        expect(Math.max(...misses(reading))).toBeLessThan(2);
      }
    },
    60_000,
  );

  it('is not taken from a window without a white sheet, nor from one in glare', async () => {
    const bare = await photo(0);
    expect(() => characteriseCard(bare, 0.9)).toThrow(/No even sheet of white/);
    expect(() => characteriseCard({ ...bare, data: bare.data.map(() => 128) }, 0.9)).toThrow();
  }, 30_000);
});

describe('what is known of a print', () => {
  it('falls from the paper to the darkest step, each in a range that print has', () => {
    expect(() => requireCardPrint(TYPICAL_PRINT)).not.toThrow();
    const { paper, steps } = TYPICAL_PRINT;
    expect(() => requireCardPrint({ paper: 0.3, steps })).toThrow(/between 50 and 100 %/);
    expect(() => requireCardPrint({ paper, steps: steps.slice(1) })).toThrow(/6 grey steps/);
    expect(() => requireCardPrint({ paper, steps: [...steps].reverse() })).toThrow(/Step 2 must be darker than step 1/);
  });

  it('narrows what a contrast may be: typical, photographed, measured', () => {
    const spread = (basis: 'typical' | 'photographed' | 'measured') => {
      const { low, high } = contrastRanges({ ...TYPICAL_PRINT, basis })(72, 34);
      expect(low).toBeLessThanOrEqual(38);
      expect(high).toBeGreaterThanOrEqual(38);
      return high - low;
    };
    expect(spread('typical')).toBeGreaterThan(2 * spread('photographed'));
    expect(spread('photographed')).toBeGreaterThan(spread('measured'));
    expect(spread('measured')).toBeLessThan(2.1);
  });

  it('turns lightness into light as CIE 15 does, both ways', () => {
    for (const l of [2, 8, 20, 50, 76, 100]) expect(lightness(reflectanceAt(l))).toBeCloseTo(l, 6);
    // CIE 15: L* 50 is Y 0.18419.
    expect(reflectanceAt(50)).toBeCloseTo(0.184187, 5);
  });
});
