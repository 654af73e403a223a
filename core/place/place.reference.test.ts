import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom, standardNormal } from '../support/random.js';
import { fitCircle } from './fit-circle.js';
import { fitWaist } from './fit-waist.js';
import { planRotary, rotaryMmPerDegree } from './rotary.js';
import { focusStrips, sag, usableChord } from './sag.js';
import { planFlatness, warpSurface, type HeightReading } from './warp.js';

const points = (...all: [number, number][]) => all.map(([xMm, yMm]) => ({ xMm, yMm }));

describe('a circle through touched points', () => {
  it('is the published one: Gander, Golub & Strebel 1994, six points (from memory)', () => {
    const fit = fitCircle(points([1, 7], [2, 6], [5, 8], [7, 7], [9, 5], [3, 7]));
    expect(fit.centre.xMm).toBeCloseTo(4.7398, 4);
    expect(fit.centre.yMm).toBeCloseTo(2.9835, 4);
    expect(fit.radiusMm).toBeCloseTo(4.7142, 4);
    expect(fit.rmsMm).toBeGreaterThan(0);
  });

  it('finds any circle again from points on its rim, also a short arc far from the zero', () => {
    const away = fc.double({ min: -500, max: 500, noNaN: true });
    fc.assert(
      fc.property(
        away,
        away,
        fc.double({ min: 2, max: 200, noNaN: true }),
        fc.double({ min: 0.6, max: 6, noNaN: true }),
        (x, y, r, arc) => {
          const rim = Array.from({ length: 7 }, (_, i) => ({
            xMm: x + r * Math.cos((arc * i) / 6),
            yMm: y + r * Math.sin((arc * i) / 6),
          }));
          const fit = fitCircle(rim);
          expect(Math.hypot(fit.centre.xMm - x, fit.centre.yMm - y)).toBeLessThan(1e-5 * r);
          expect(fit.radiusMm / r).toBeCloseTo(1, 5);
        },
      ),
    );
  });

  it('names the worst point, and refuses two points and points in line', () => {
    const fit = fitCircle(points([10, 0], [0, 10], [-10, 0], [0, -10], [7.8, 7.8]));
    expect(fit.worst.index).toBe(4);
    expect(fit.worst.offMm).toBeGreaterThan(0.4);
    expect(() => fitCircle(points([0, 0], [1, 1]))).toThrow(/at least three/);
    expect(() => fitCircle(points([0, 0], [1, 1], [2, 2]))).toThrow(/in a line/);
    expect(() => fitCircle(points([0, 0], [1, 1], [2, 2], [5, 5.0000001]))).toThrow(/in a line/);
  });
});

describe('round parts', () => {
  it('sag: R 45, chord 40 falls 4.689 mm', () => {
    expect(sag(45, 40)).toBeCloseTo(4.689, 3);
    expect(() => sag(45, 91)).toThrow(/wider than the part/);
  });

  it('usable chord and sag are each other’s inverse', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 200, noNaN: true }),
        fc.double({ min: 0.05, max: 2, noNaN: true }),
        (radius, depth) => {
          expect(sag(radius, usableChord(radius, depth))).toBeCloseTo(Math.min(2 * depth, radius), 6);
        },
      ),
    );
  });

  it('strips join, reach the edge, and each stay within the depth of focus', () => {
    // R 44, half width 15: sag 2.636 mm; ± 0.5 mm reaches 1 mm a strip: three.
    expect(() => focusStrips(10_000, 9999, 0.001)).toThrow(/would take \d+ heights of focus/);
    const strips = focusStrips(44, 15, 0.5);
    expect(strips).toHaveLength(3);
    expect(strips[0]!.fromMm).toBe(0);
    expect(strips.at(-1)!.toMm).toBeCloseTo(15, 9);
    strips.slice(1).forEach((strip, i) => expect(strip.fromMm).toBeCloseTo(strips[i]!.toMm, 9));
    const below = (across: number) => 44 - Math.sqrt(44 ** 2 - across ** 2);
    for (const { fromMm, toMm, focusBelowMm } of strips)
      for (const edge of [fromMm, toMm]) expect(Math.abs(below(edge) - focusBelowMm)).toBeLessThanOrEqual(0.5 + 1e-9);
  });

  it('rotary: πD/360 mm a degree, the seam what is left round', () => {
    expect(rotaryMmPerDegree(88)).toBeCloseTo(0.76794, 5);
    const plan = planRotary({ nearMm: 88, farMm: 88, alongMm: 60, artworkMm: 70 });
    expect(plan.degrees).toBeCloseTo(70 / 0.767945, 3);
    expect(plan.seamMm).toBeCloseTo(Math.PI * 88 - 70, 9);
    expect([plan.stretch, plan.tiltDegrees]).toEqual([0, 0]);
    expect(planRotary({ nearMm: 88, farMm: 88, alongMm: 60, artworkMm: 300 }).seamMm).toBeLessThan(0);
  });

  it('rotary on a taper: stretch of the near end, tilt, and the ends told apart', () => {
    const plan = planRotary({ nearMm: 120, farMm: 100, alongMm: 90, artworkMm: 80 });
    expect(plan.stretch).toBeCloseTo(0.2, 9);
    // atan(10/90)
    expect(plan.tiltDegrees).toBeCloseTo(6.34, 2);
    expect(() => planRotary({ nearMm: 100, farMm: 120, alongMm: 90, artworkMm: 80 })).toThrow(/swapped/);
    expect(() => rotaryMmPerDegree(0)).toThrow(/above 0/);
  });
});

describe('the waist by a dot hunt', () => {
  const dot = (z: number, { at = 0, spot = 0.1, zr = 1 } = {}) => ({
    heightMm: z,
    widthMm: spot * Math.sqrt(1 + ((z - at) / zr) ** 2),
  });

  it('reads height, spot and Rayleigh range off exact dots of ISO 11146’s hyperbola', () => {
    const beam = { at: 7.3, spot: 0.165, zr: 1.672 };
    const fit = fitWaist([5, 6, 7, 8, 9, 10].map((z) => dot(z, beam)));
    expect(fit.heightMm).toBeCloseTo(7.3, 6);
    expect(fit.spotMm).toBeCloseTo(0.165, 6);
    expect(fit.rayleighMm).toBeCloseTo(1.672, 5);
    // Growth of 5 % at ± 0.320 of the Rayleigh range.
    expect(fit.depthMm).toBeCloseTo(0.3202 * 1.672, 3);
    expect(fit.heightReachMm!).toBeLessThan(1e-5);
    expect(fit.bracketed).toBe(true);
  });

  it('is exact with three dots, and then says nothing of how sure it is', () => {
    const fit = fitWaist([
      { heightMm: -1, widthMm: 0.2 },
      { heightMm: 0, widthMm: 0.1 },
      { heightMm: 1, widthMm: 0.2 },
    ]);
    expect([fit.heightMm, fit.spotMm]).toEqual([expect.closeTo(0, 9), expect.closeTo(0.1, 9)]);
    expect(fit.rayleighMm).toBeCloseTo(0.1 / Math.sqrt(0.03), 9);
    expect(fit.heightReachMm).toBeNull();
  });

  it('states a reach that holds nine times in ten', () => {
    const random = seededRandom(5);
    let held = 0;
    for (let trial = 0; trial < 400; trial += 1) {
      const dots = [-1.5, -1, -0.5, 0, 0.5, 1, 1.5].map((z) => {
        const { heightMm, widthMm } = dot(z, { at: 0.2 });
        return { heightMm, widthMm: widthMm + 0.004 * standardNormal(random) };
      });
      const fit = fitWaist(dots);
      if (Math.abs(fit.heightMm - 0.2) <= fit.heightReachMm!) held += 1;
    }
    expect(held / 400).toBeGreaterThan(0.84);
    expect(held / 400).toBeLessThan(0.96);
  });

  it('refuses two heights, and dots that only widen one way', () => {
    expect(() => fitWaist([dot(0), dot(1), dot(1)])).toThrow(/three different heights/);
    expect(() =>
      fitWaist([0.3, 0.2, 0.15, 0.12].map((widthMm, i) => ({ heightMm: -i, widthMm: 0.5 - widthMm }))),
    ).toThrow(/narrow and widen again/);
    expect(() => fitWaist([dot(0), { heightMm: 1, widthMm: 0 }, dot(2)])).toThrow(/above 0/);
    expect(fitWaist([dot(1), dot(2), dot(3), dot(4)]).bracketed).toBe(false);
  });
});

const reading = (xMm: number, yMm: number, heightMm: number): HeightReading => ({ xMm, yMm, heightMm });
const GRID = [0, 30, 60].flatMap((x) => [0, 20, 40].map((y) => [x, y] as const));

describe('the surface of a warped part', () => {
  it('gives any plane back exactly', () => {
    const slope = fc.double({ min: -0.05, max: 0.05, noNaN: true });
    fc.assert(
      fc.property(slope, slope, fc.double({ min: -5, max: 5, noNaN: true }), (a, b, at) => {
        const surface = warpSurface(GRID.map(([x, y]) => reading(x, y, at + a * x + b * y)));
        expect(surface.heightAt(17, 9)).toBeCloseTo(at + 17 * a + 9 * b, 7);
        expect(surface.plane.alongX).toBeCloseTo(a, 9);
      }),
    );
  });

  it('goes through every reading of a bent sheet, and near the true bend between them', () => {
    const bend = (x: number, y: number) => 0.0008 * (x - 30) ** 2 + 0.01 * y;
    const surface = warpSurface(GRID.map(([x, y]) => reading(x, y, bend(x, y))));
    for (const [x, y] of GRID) expect(surface.heightAt(x, y)).toBeCloseTo(bend(x, y), 9);
    expect(Math.abs(surface.heightAt(15, 10) - bend(15, 10))).toBeLessThan(0.08);
  });

  it('has no bending of its own: turning and moving the part turns and moves the surface', () => {
    const bent = GRID.map(([x, y]) => reading(x, y, 0.001 * x * y));
    const turned = bent.map(({ xMm, yMm, heightMm }) => reading(100 - yMm, 50 + xMm, heightMm));
    expect(warpSurface(turned).heightAt(100 - 13, 50 + 22)).toBeCloseTo(warpSurface(bent).heightAt(22, 13), 7);
  });

  it('averages readings of one place, and names two that contradict', () => {
    const flat = [reading(0, 0, 0), reading(60, 0, 0), reading(0, 40, 0)];
    expect(warpSurface([...flat, reading(60, 0, 0.06)]).heightAt(60, 0)).toBeCloseTo(0.03, 9);
    expect(() => warpSurface([...flat, reading(60, 0.1, 0.6)])).toThrow(
      /Readings 2 and 4 are of one place and differ by 0\.60 mm/,
    );
    expect(() => warpSurface(flat.slice(0, 2))).toThrow(/three places/);
    expect(() => warpSurface([0, 1, 2].map((i) => reading(10 * i, 5 * i, 0)))).toThrow(/in a line/);
  });
});

describe('what to do about a warp', () => {
  const artwork = { xMm: 0, yMm: 0, widthMm: 60, heightMm: 40 };
  const tilted = (rise: number) => warpSurface([reading(0, 0, 0), reading(60, 0, rise), reading(0, 40, 0)]);

  it('counts the share in focus of a tilted plate', () => {
    // Rises 2 mm over the width, focus at the low edge, ± 0.5 mm: a quarter of it.
    const plan = planFlatness(tilted(2), artwork, { focusMm: 0, depthMm: 0.5 });
    expect(plan.inFocus).toBeCloseTo(0.25, 2);
    expect(plan.best).toMatchObject({ share: expect.closeTo(0.5, 1) });
    expect(plan.steps).toHaveLength(2);
    expect(plan.steps.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    expect(plan.advice).toBe('steps');
  });

  it('accepts what is flat, refocuses what one height reaches, gives up what takes too many steps', () => {
    expect(planFlatness(tilted(0.3), artwork, { focusMm: 0.1, depthMm: 0.5 }).advice).toBe('accept');
    const one = planFlatness(tilted(0.9), artwork, { focusMm: 0, depthMm: 0.5 });
    expect(one.advice).toBe('refocus');
    expect(one.best.focusMm).toBeCloseTo(0.45, 1);
    expect(planFlatness(tilted(9), artwork, { focusMm: 0, depthMm: 0.5 }).advice).toBe('clamp');
  });

  it('covers every height with its steps, whatever the surface', () => {
    const height = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(height, { minLength: 9, maxLength: 9 }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        (heights, depthMm) => {
          const surface = warpSurface(GRID.map(([x, y], i) => reading(x, y, heights[i]!)));
          const plan = planFlatness(surface, artwork, { focusMm: 0, depthMm });
          for (const h of plan.grid.heights)
            expect(plan.steps.some(({ focusMm }) => Math.abs(h - focusMm) <= depthMm + 1e-9)).toBe(true);
          expect(plan.best.share).toBeGreaterThanOrEqual(
            Math.max(plan.inFocus, ...plan.steps.map(({ share }) => share)) - 1e-9,
          );
        },
      ),
      { numRuns: 40 },
    );
  });
});
