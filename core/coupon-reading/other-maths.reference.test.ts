import { converter } from 'culori';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import type { CoreError } from '../support/core-error.js';
import { contrastRanges, reflectanceOf, TYPICAL_PRINT } from '../target/index.js';
import { layoutCoupon } from '../coupon/index.js';
import { GREYS, greyOf, layout, photo, type Paint } from '../testing/drawn-photo.js';
import { lightness, linearToSrgb, srgbToLinear, type Pixels } from '../imaging/index.js';
import { proposeOutcome, retention, usualRules, type CellMeasure } from './index.js';
import { openCardPicture, readCoupon } from './read-coupon.js';

describe('coupons in pictures made by other means', () => {
  it.each([0, 90, 180, 270])(
    'are read the same with the card turned by %i°',
    async (turn) => {
      const reading = readCoupon(openCardPicture(await photo(turn)), layout);
      expect(reading.sure).toBe(true);
      expect(reading.code.text).toBe('K-316');
      for (const { cell, lightness: read } of reading.cells) {
        const wanted = lightness(reflectanceOf(greyOf(cell)));
        expect(Math.abs(read! - wanted), `cell ${cell + 1}: ${read} for ${wanted}`).toBeLessThan(2);
      }
    },
    30_000,
  );

  it('are read on the larger card, and with a stronger tilt', async () => {
    const reading = readCoupon(
      openCardPicture(await photo(0, { card: 'A4', matrix: [0.94, 0.05, -0.06, 1.02] })),
      layout,
    );
    expect([reading.card, reading.sure]).toEqual(['A4', true]);
    const misses = reading.cells.map(({ cell, lightness: read }) =>
      Math.abs(read! - lightness(reflectanceOf(greyOf(cell)))),
    );
    expect(misses.filter((miss) => miss < 2).length / misses.length).toBeGreaterThanOrEqual(0.95);
  }, 30_000);
});

describe('a coupon that lies as it was put down', () => {
  it.each([12, 15, 30, 44])(
    'turned by %i° is found and read',
    async (lie) => {
      const reading = readCoupon(openCardPicture(await photo(0, { lie, at: [0.3, 0.2] })), layout);
      expect([reading.sure, reading.code.text]).toEqual([true, 'K-316']);
      const misses = reading.cells.map(({ cell, lightness: read }) =>
        read === null ? 0 : Math.abs(read - lightness(reflectanceOf(greyOf(cell)))),
      );
      expect(Math.max(...misses)).toBeLessThan(2);
    },
    60_000,
  );

  it.each([-0.2, -0.1, 0.1])(
    'in blocks as wide as the window, through a lens that bends by %f, is found and read',
    async (bend) => {
      const wide = layoutCoupon(
        {
          ...layout.design,
          ...{ code: 'K-512', blank: { widthMm: 126, heightMm: 70 } },
          axes: {
            x: { parameter: 'power', spacing: 'linear', from: 40, to: 100, count: 6 },
            y: { parameter: 'speed', spacing: 'log', from: 80, to: 420, count: 8 },
            block: { parameter: 'interval', spacing: 'linear', from: 0.05, to: 0.09, count: 2 },
          },
        },
        { bed: { widthMm: 700, heightMm: 500 }, topSpeedMmPerS: 600, firingThresholdPercent: 7 },
      );
      const picture = await photo(0, { of: wide, bend, at: [0.2, 0.18], lie: 1 });
      const reading = readCoupon(openCardPicture(picture), wide);
      expect([reading.sure, reading.code.text, reading.cells.length]).toEqual([true, 'K-512', 96]);
      const misses = reading.cells.map(({ cell, lightness: read }) =>
        read === null ? 0 : Math.abs(read - lightness(reflectanceOf(greyOf(cell)))),
      );
      expect(misses.filter((miss) => miss < 2).length / misses.length).toBeGreaterThanOrEqual(0.95);
    },
    60_000,
  );
});

/** A plain picture that some are made from, drawn once. */
let drawn: Promise<Pixels> | undefined;
const plain = () => (drawn ??= photo(0));

/** The tone curve of the standard, looked up: bytes to shares of light, and back to a tenth of a byte. */
const LIGHT = Float64Array.from({ length: 256 }, (_, byte) => srgbToLinear(byte / 255));
const STEPS = 65_535;
const BYTES = Float64Array.from({ length: STEPS + 1 }, (_, i) => 255 * linearToSrgb(i / STEPS));
const byteOf = (light: number) => BYTES[Math.min(STEPS, Math.round(STEPS * light))]!;

/** A shadow with an edge, so dark beyond a slanting line. */
function shaded({ width, height, data }: Pixels, share: number, across: number): Pixels {
  const out = Uint8ClampedArray.from(data);
  for (let i = 0; i < width * height; i += 1) {
    const away = (i % width) + 0.2 * Math.floor(i / width) - across * width;
    const light = 1 - (1 - share) / (1 + Math.exp(-away / 6));
    for (let k = 0; k < 3; k += 1) out[4 * i + k] = byteOf(LIGHT[data[4 * i + k]!]! * light);
  }
  return { width, height, data: out };
}

describe('a hard shadow over the card', () => {
  it.each([
    { share: 0.9, edges: [0.35, 0.6, 0.8] },
    { share: 0.8, edges: [0.5, 0.7] },
    { share: 0.6, edges: [0.35, 0.6] },
    { share: 0.4, edges: [0.5, 0.8] },
  ])(
    'of $share of the light puts no contrast off by more than 4 L* unsaid',
    async ({ share, edges }) => {
      const clean = await plain();
      const ground = lightness(reflectanceOf(170));
      for (const across of edges) {
        const reading = (() => {
          try {
            return readCoupon(openCardPicture(shaded(clean, share, across)), layout);
          } catch (error) {
            return error as CoreError;
          }
        })();
        if (reading instanceof Error) {
          expect(reading).toMatchObject({ code: 'reading.no-light' });
          continue;
        }
        const off = reading.cells.map(({ cell, contrast }) =>
          contrast === null ? 0 : Math.abs(contrast - (ground - lightness(reflectanceOf(greyOf(cell))))),
        );
        expect(Math.max(...off), `edge at ${across}`).toBeLessThan(4);
      }
    },
    60_000,
  );
});

/** A soft stripe of light over a picture, as a lamp throws it back: so much of the paper's own light, added. */
function withStripe(pixels: Pixels, share: number, across: number): Pixels {
  const { width, height } = pixels;
  const data = Uint8ClampedArray.from(pixels.data);
  const paper = reflectanceOf(255) * 0.95;
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const away = (x + 0.35 * y - across * width) / (0.022 * width);
      const light = share * paper * Math.exp(-(away ** 4));
      if (light < 1e-4) continue;
      const at = 4 * (y * width + x);
      for (let k = 0; k < 3; k += 1) data[at + k] = byteOf(LIGHT[data[at + k]!]! + light);
    }
  }
  return { width, height, data };
}

describe('a stripe of glare far below burn-out', () => {
  it.each([0.03, 0.05, 0.1])(
    'of %d of the paper’s light is refused wherever it would put a mark off by more than 4 L*',
    async (share) => {
      const clean = await plain();
      for (const across of [0.62, 0.75]) {
        const { cells } = readCoupon(openCardPicture(withStripe(clean, share, across)), layout);
        const off = cells.map(({ cell, lightness: read }) =>
          read === null ? 0 : Math.abs(read - lightness(reflectanceOf(greyOf(cell)))),
        );
        expect(Math.max(...off), `off ${off.map((o) => o.toFixed(1)).join(' ')}`).toBeLessThan(4);
        const read = cells.filter(({ unreadable }) => unreadable === null);
        expect(read.length).toBeGreaterThanOrEqual(cells.length / 3);
      }
    },
    60_000,
  );

  it('is not seen where there is none: light marks on dark ground, 0.18 mm a pixel', async () => {
    const pale: Paint = (index) => (index % 3 ? [200 + index, 200 + index, 200 + index] : [75, 75, 75]);
    for (const turn of [0, 90]) {
      const far = await photo(turn, { matrix: [0.68, 0.01, -0.02, 0.68], paint: pale, ground: 70 });
      const { cells, mmPerPx } = readCoupon(openCardPicture(far), layout);
      expect(mmPerPx).toBeGreaterThan(0.17);
      expect(cells.map(({ unreadable }) => unreadable)).toEqual(layout.cells.map(() => null));
    }
  }, 60_000);
});

/** A picture whose camera moved by so many pixels along one direction, by libvips' convolution. */
async function moved({ width, height, data }: Pixels, across: number, down: number): Promise<Pixels> {
  const size = 2 * Math.ceil(Math.max(across, down) / 2) + 1;
  const kernel = new Array<number>(size * size).fill(0);
  for (let i = 0; i <= 60; i += 1) {
    const at = (length: number) => Math.round((size - 1) / 2 + (i / 60 - 0.5) * (length - 1));
    kernel[at(Math.max(1, down)) * size + at(Math.max(1, across))]! += 1;
  }
  const raw = sharp(Buffer.from(data.buffer, data.byteOffset, data.length), { raw: { width, height, channels: 4 } });
  const file = await raw.removeAlpha().convolve({ width: size, height: size, kernel }).jpeg({ quality: 90 }).toBuffer();
  return { width, height, data: new Uint8ClampedArray(await sharp(file).ensureAlpha().raw().toBuffer()) };
}

describe('a camera that moved', () => {
  it.each([
    ['across', 7, 0],
    ['down', 0, 7],
    ['slantwise', 6, 6],
    ['far across', 10, 0],
    ['far down', 0, 10],
  ])(
    '%s blames no mark for its edges, and puts none off',
    async (_, across, down) => {
      const picture = await moved(await plain(), across, down);
      const reading = (() => {
        try {
          return readCoupon(openCardPicture(picture), layout);
        } catch (error) {
          return error as CoreError;
        }
      })();
      if (reading instanceof Error) return expect(reading).toMatchObject({ code: 'reading.blurred' });
      for (const { cell, unreadable, lightness: read, edgeUm, halo } of reading.cells) {
        if (unreadable) continue;
        expect(edgeUm ?? 0, `edge of cell ${cell + 1}`).toBeLessThan(350);
        expect(halo ?? 0, `halo of cell ${cell + 1}`).toBeLessThan(0.25);
        expect(Math.abs(read! - lightness(reflectanceOf(greyOf(cell)))), `cell ${cell + 1}`).toBeLessThan(2.5);
      }
    },
    30_000,
  );
});

describe('the tint of a mark', () => {
  it('is the chroma that culori makes of the same colour, and none for greys', async () => {
    const browns: Paint = (index) => [40 + 3 * index, 30 + 2 * index, 22 + ((index * 7) % 12)];
    const paint: Paint = (index) => (index % 2 ? browns(index) : GREYS(index));
    const { cells } = readCoupon(openCardPicture(await photo(90, { paint })), layout);
    const toLab = converter('lab65');
    for (const { cell, chroma, contrast } of cells) {
      if (contrast! < 12) continue;
      const [r, g, b] = paint(cell).map(reflectanceOf) as [number, number, number];
      const wanted = toLab({ mode: 'lrgb', r, g, b });
      const miss = Math.abs(chroma! - Math.hypot(wanted.a, wanted.b));
      expect(miss, `cell ${cell + 1}: ${chroma} for ${Math.hypot(wanted.a, wanted.b)}`).toBeLessThan(2.5);
    }
  }, 30_000);
});

describe('outcomes by the rules', () => {
  const measure = (change: Partial<CellMeasure> = {}): CellMeasure => ({
    ...{ cell: 0, unreadable: null, bareLightness: 70, contrast: 50, deltaE: 45, coverage: 1 },
    ...{ chroma: 4, evenness: 0.95, grain: 1, edgeUm: 90, halo: 0.02 },
    lightness: 70 - (change.contrast ?? 50),
    ...change,
  });
  const exact = (bare: number, mark: number) => ({ low: bare - mark, high: bare - mark });
  const rules = usualRules('dark on light');
  const outcome = (now: Partial<CellMeasure>, before: Partial<CellMeasure> | null = {}) =>
    proposeOutcome(measure(now), before && { measure: measure(before), noise: 0.5 }, rules, 'dark on light', exact)
      ?.outcome;

  // Limits as the trade has them: common practice, no source.
  it.each([
    [{}, 'holds'],
    [{ contrast: 19.9 }, 'under'],
    [{ contrast: 42 }, 'under'],
    [{ contrast: 43 }, 'holds'],
    [{ coverage: 0.89 }, 'under'],
    [{ halo: 0.3 }, 'over'],
    [{ edgeUm: 400 }, 'over'],
    [{ evenness: 0.7 }, 'over'],
    [{ chroma: 9.9 }, 'holds'],
    [{ chroma: 10.1 }, 'over'],
    [{ chroma: 40, contrast: 10 }, 'under'],
    [{ unreadable: 'glare', contrast: null } as const, undefined],
  ])('of %j is %s', (now, wanted) => expect(outcome(now)).toBe(wanted));

  it('go by the sign of the aim, and take 12 for a light mark', () => {
    const light = usualRules('light on dark');
    const pale = measure({ contrast: -15 });
    expect(proposeOutcome(pale, null, light, 'light on dark', exact)!.outcome).toBe('holds');
    expect(proposeOutcome(pale, null, rules, 'dark on light', exact)!.outcome).toBe('under');
    // A light mark shows a tint sooner; one with a colour of its own is not judged by it.
    const yellowed = measure({ contrast: -15, chroma: 12 });
    expect(proposeOutcome(yellowed, null, light, 'light on dark', exact)!.because).toBe('tinted, chroma 12, over 5');
    expect(proposeOutcome(yellowed, null, usualRules('light on dark', true), 'light on dark', exact)!.outcome).toBe(
      'holds',
    );
  });

  it('say so where the camera blurs too much for the edges to be told', () => {
    const told = proposeOutcome(measure({ edgeUm: null }), null, rules, 'dark on light', exact)!;
    expect([told.outcome, told.because]).toEqual(['holds', expect.stringMatching(/but its edges/)]);
  });

  it('leave retention undefined where there was nothing to lose', () => {
    expect(retention(1.4, 1.2, 0.5)).toBeNull();
    expect(retention(40, 20, 0.5)).toBe(0.5);
    expect(retention(-40, -38, 0.5)).toBeCloseTo(0.95, 9);
    expect(outcome({ contrast: 1 }, { contrast: 1 })).toBe('under');
  });

  it('are not sure where another print of the card, as likely as the one taken, would give another', () => {
    const typical = contrastRanges(TYPICAL_PRINT);
    const of = (contrast: number) => proposeOutcome(measure({ contrast }), null, rules, 'dark on light', typical)!;
    expect(of(50)).toEqual({ outcome: 'holds', because: 'within all limits', sure: true });
    expect(of(6)).toMatchObject({ outcome: 'under', sure: true });
    expect(of(21)).toMatchObject({
      outcome: 'holds',
      sure: false,
      because: expect.stringMatching(/what is known of the card/),
    });
    const measured = contrastRanges({ ...TYPICAL_PRINT, basis: 'measured' });
    expect(proposeOutcome(measure({ contrast: 23 }), null, rules, 'dark on light', measured)!.sure).toBe(true);
  });
});
