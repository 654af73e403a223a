import { converter } from 'culori';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom, standardNormal } from '../support/index.js';
import {
  coatMap,
  findPart,
  fitHomography,
  flattenLight,
  judgeCoatMap,
  lightness,
  linearToLab,
  linearToSrgb,
  luminance,
  patchLuminance,
  project,
  SRGB_TO_LINEAR,
  srgbToLinear,
  straighten,
  type CoatMap,
  type Pixels,
  type Point2,
} from './index.js';

const unit = fc.double({ min: 0, max: 1, noNaN: true });
const at = (x: number, y: number): Point2 => ({ x, y });

describe('colour against culori 4 (its D65 Lab)', () => {
  const toLab = converter('lab65');
  it('L*a*b* agrees to 1e-3 all over the cube', () => {
    fc.assert(
      fc.property(unit, unit, unit, (r, g, b) => {
        const lab = linearToLab(srgbToLinear(r), srgbToLinear(g), srgbToLinear(b));
        const other = toLab({ mode: 'rgb', r, g, b });
        expect(Math.abs(lab.l - other.l)).toBeLessThan(1e-3);
        expect(Math.abs(lab.a - other.a)).toBeLessThan(2e-2);
        expect(Math.abs(lab.b - other.b)).toBeLessThan(2e-2);
      }),
    );
  });

  it('sRGB goes to light and back, and its table is that curve', () => {
    fc.assert(
      fc.property(unit, (value) => {
        expect(linearToSrgb(srgbToLinear(value))).toBeCloseTo(value, 6);
      }),
    );
    expect(SRGB_TO_LINEAR[128]).toBeCloseTo(srgbToLinear(128 / 255), 12);
    // Mid-grey of photography: 18 % is L* 49.5 (CIE 15).
    expect(lightness(0.18)).toBeCloseTo(49.5, 1);
    expect(luminance(1, 1, 1)).toBeCloseTo(1, 9);
  });
});

describe('homography (Hartley & Zisserman, from memory)', () => {
  it('takes the unit square onto a known trapezium: the square’s middle goes where the diagonals cross', () => {
    const from = [at(0, 0), at(1, 0), at(1, 1), at(0, 1)];
    const to = [at(0, 0), at(4, 0), at(3, 2), at(1, 2)];
    const h = fitHomography(from, to);
    to.forEach((point, i) => {
      expect(project(h, from[i]!).x).toBeCloseTo(point.x, 9);
      expect(project(h, from[i]!).y).toBeCloseTo(point.y, 9);
    });
    // Diagonals y = 2x/3 and y = (2/3)(4 − x) cross at (2, 4/3).
    expect(project(h, at(0.5, 0.5)).x).toBeCloseTo(2, 9);
    expect(project(h, at(0.5, 0.5)).y).toBeCloseTo(4 / 3, 9);
  });

  it('finds any projective map again from four points, and from nine with least error', () => {
    const small = fc.double({ min: -0.3, max: 0.3, noNaN: true });
    fc.assert(
      fc.property(small, small, small, small, (a, b, p, q) => {
        const truth = [1 + a, b, 40, -b, 1 - a, 25, p / 200, q / 200, 1];
        const from = [0, 40, 80].flatMap((x) => [0, 30, 60].map((y) => at(x, y)));
        const to = from.map((point) => project(truth, point));
        const h = fitHomography(from, to);
        h.forEach((value, i) => expect(value).toBeCloseTo(truth[i]!, 5));
      }),
    );
  });

  it('refuses three corners in a line, too few, and the horizon', () => {
    const square = [at(0, 0), at(1, 0), at(1, 1), at(0, 1)];
    expect(() => fitHomography(square, [at(0, 0), at(1, 0), at(2, 0), at(0, 1)])).toThrow(/in a line/);
    expect(() => fitHomography(square.slice(0, 3), square.slice(0, 3))).toThrow(/four points/);
    expect(() => project([1, 0, 0, 0, 1, 0, 1, 0, 0], at(0, 5))).toThrow(/cross/);
  });
});

/** A picture painted by a function of the pixel: linear light, grey. */
function painted(width: number, height: number, light: (x: number, y: number) => number): Pixels {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const byte = Math.round(255 * linearToSrgb(Math.min(1, Math.max(0, light(x, y)))));
      data.set([byte, byte, byte, 255], 4 * (y * width + x));
    }
  return { width, height, data };
}
const CORNERS: [Point2, Point2, Point2, Point2] = [at(20, 110), at(180, 110), at(180, 10), at(20, 10)];

describe('a straightened part', () => {
  it('has its lower left cell first, whatever the picture’s turn', () => {
    // Dark in the part's lower left quarter.
    const pixels = painted(200, 120, (x, y) => (x < 100 && y > 60 ? 0.1 : 0.6));
    const part = { widthMm: 40, heightMm: 25, cellMm: 1 };
    const straight = straighten(pixels, CORNERS, part);
    expect(straight).toMatchObject({ columns: 40, rows: 25 });
    expect(straight.luminance[0]).toBeCloseTo(0.1, 2);
    expect(straight.luminance[39]).toBeCloseTo(0.6, 2);
    const [ll, lr, ur, ul] = CORNERS;
    // The part lay turned by a quarter: its lower left is now where the lower right was.
    expect(straighten(pixels, [lr, ur, ul, ll], { widthMm: 25, heightMm: 40, cellMm: 1 }).luminance[0]).toBeCloseTo(
      0.6,
      2,
    );
    expect(() => straighten(pixels, [ll, ur, lr, ul], part)).toThrow(/cross/);
    expect(() => straighten(pixels, [ul, ur, lr, ll], part)).toThrow(/cross/);
  });

  it('is found where it stands out, and patches are read', () => {
    const pixels = painted(200, 120, (x, y) => (x >= 20 && x <= 180 && y >= 10 && y <= 110 ? 0.1 : 0.5));
    const found = findPart(pixels)!;
    found.forEach((corner, i) => {
      expect(Math.hypot(corner.x - CORNERS[i]!.x, corner.y - CORNERS[i]!.y)).toBeLessThan(4);
    });
    expect(findPart(painted(200, 120, () => 0.4))).toBeNull();
    expect(patchLuminance(pixels, { x: 100, y: 60, radius: 6 })).toBeCloseTo(0.1, 2);
    expect(() => patchLuminance(pixels, { x: -50, y: 0, radius: 6 })).toThrow(/outside/);
  });
});

describe('uneven light', () => {
  it('is taken off under a fault that stays', () => {
    const [columns, rows] = [40, 25];
    const light = (i: number) =>
      Math.exp(0.3 * ((2 * (i % columns)) / columns - 1) - 0.2 * ((2 * Math.floor(i / columns)) / rows - 1) ** 2);
    const fault = (i: number) => (i % columns > 28 && i % columns < 34 && i > 300 && i < 600 ? 1.5 : 1);
    const luminance = Float64Array.from({ length: columns * rows }, (_, i) => 0.2 * light(i) * fault(i));
    const { flat, from } = flattenLight({ columns, rows, cellMm: 1, luminance, around: null });
    expect(from).toBe('part itself');
    const even = Array.from(flat).filter((_, i) => fault(i) === 1);
    expect(Math.max(...even) / Math.min(...even)).toBeLessThan(1.02);
    // The same light on an even ground about the part, a thing lying on it at one side.
    const sides = [
      (s: number) => at(-0.1, s),
      (s: number) => at(1.1, s),
      (s: number) => at(s, -0.1),
      (s: number) => at(s, 1.1),
    ];
    const places = Array.from({ length: 200 }, (_, k) => sides[k % 4]!(k / 200));
    const ground = places.map(
      ({ x, y }) => 0.8 * Math.exp(0.3 * (2 * x - 1) - 0.2 * (2 * y - 1) ** 2) * (x > 1 && y < 0.2 ? 0.5 : 1),
    );
    const by = flattenLight({
      columns,
      rows,
      cellMm: 1,
      luminance,
      around: { places, luminance: Float64Array.from(ground) },
    });
    expect(by.from).toBe('surround');
    expect(by.light.at(at(0, 0.5)) / by.light.at(at(1, 0.5))).toBeCloseTo(Math.exp(-0.6), 1);
    const spoilt = Array.from(flat).filter((_, i) => fault(i) > 1);
    expect(Math.min(...spoilt) / even[0]!).toBeGreaterThan(1.4);
  });
});

/** A map of a coat of 40 × 25 mm by a function of mm, with noise. */
function mapOf(film: (x: number, y: number) => number, noise = 0.01): CoatMap {
  const random = seededRandom(9);
  const [columns, rows] = [40, 25];
  return {
    ...{ columns, rows, cellMm: 1, noise, bareRead: true, lightFrom: 'surround' as const },
    film: Array.from({ length: 1000 }, (_, i) =>
      Math.max(0, film((i % columns) + 0.5, Math.floor(i / columns) + 0.5) + noise * standardNormal(random)),
    ),
  };
}
const ART = { xMm: 3, yMm: 3, widthMm: 34, heightMm: 19 };

describe('a map of a coat', () => {
  it('is 0 on bare, 1 on good, whether the coat is darker or lighter than its ground', () => {
    const straight = (good: number, bare: number) => ({
      ...{ columns: 20, rows: 20, cellMm: 1, around: null },
      luminance: Float64Array.from({ length: 400 }, (_, i) => (i === 210 ? bare : good)),
    });
    for (const [good, bare] of [
      [0.1, 0.5],
      [0.5, 0.05],
    ] as const) {
      const map = coatMap(straight(good, bare), { good: null, bare, ground: 'light' });
      expect(map.film[0]).toBeCloseTo(1, 2);
      expect(map.film[210]).toBeCloseTo(0, 2);
      expect(map.bareRead).toBe(true);
    }
    expect(coatMap(straight(0.1, 0.5), { good: null, bare: null, ground: 'light' }).bareRead).toBe(false);
    expect(() => coatMap(straight(0.1, 0.5), { good: null, bare: null, ground: 'clear' })).toThrow(/clear glass/);
    expect(() => coatMap(straight(0.5, 0.5), { good: null, bare: 0.52, ground: 'light' })).toThrow(/look alike/);
  });

  it('an even coat is accepted, and costs nothing', () => {
    expect(
      judgeCoatMap(
        mapOf(() => 1),
        ART,
      ),
    ).toMatchObject({ places: [], brush: null, paleShare: 0, lostShare: 0, advice: 'accept' });
  });

  it('a thin corner is named with its place and what it costs; outside the artwork it costs nothing', () => {
    const thin = mapOf((x, y) => (x > 30 && y > 17 ? 0.5 : 1));
    const { places, paleShare, advice } = judgeCoatMap(thin, ART);
    expect(places[0]).toMatchObject({ fault: 'thin spot', xMm: 30, yMm: 17, widthMm: 10, heightMm: 8 });
    // 7 × 5 mm of 34 × 19 mm.
    expect(paleShare).toBeCloseTo(35 / 646, 2);
    expect(advice).toBe('touch up');
    expect(judgeCoatMap(thin, { xMm: 0, yMm: 0, widthMm: 20, heightMm: 12 })).toMatchObject({
      paleShare: 0,
      advice: 'accept',
    });
  });

  it('tells a finger from a thin spot, a run from a lump, and brush marks from both', () => {
    const faults = (film: (x: number, y: number) => number) => judgeCoatMap(mapOf(film), ART);
    const finger = faults((x, y) => (Math.hypot(x - 20, y - 12) < 5 ? 0.15 : 1));
    expect(finger.places[0]!.fault).toBe('touched');
    expect(finger.lostShare).toBeGreaterThan(0.05);
    const run = faults((x, y) => (Math.abs(x - 12) < 1.6 && y > 5 && y < 20 ? 1.9 : 1));
    expect(run).toMatchObject({ advice: 'rinse off', places: [{ fault: 'run' }] });
    expect(faults((x, y) => (Math.hypot(x - 20, y - 12) < 2.5 ? 2 : 1)).places[0]!.fault).toBe('lump');
    const brushed = faults((_x, y) => 1 + 0.15 * Math.sin((2 * Math.PI * y) / 4));
    expect(brushed).toMatchObject({ brush: { along: 'x' }, advice: 'rinse off' });
    expect(brushed.brush!.swing).toBeCloseTo(0.15, 1);
    expect(faults((x) => 1 + 0.15 * Math.sin((2 * Math.PI * x) / 4)).brush).toMatchObject({ along: 'y' });
  });

  it('does not see faults in noise', () => {
    for (const noise of [0.02, 0.05, 0.1])
      expect(
        judgeCoatMap(
          mapOf(() => 1, noise),
          ART,
        ).places,
      ).toEqual([]);
    expect(
      judgeCoatMap(
        mapOf(() => 1, 0.1),
        ART,
      ).brush,
    ).toBeNull();
  });
});
