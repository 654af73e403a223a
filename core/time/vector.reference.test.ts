import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom, standardNormal } from '../support/index.js';
import { learnMotion, lineTime, moveTime, type RowMotion, type TimedRun } from './index.js';

const GANTRY: RowMotion = { kind: 'gantry', accelerationMmPerS2: 2000, rapidMmPerS: 500 };

/** Stepped simulation: speed along the line in steps of 2 µm, forwards and backwards under the acceleration, slow at corners. */
function stepped(corners: number[], speed: number, a: number): number {
  const step = 0.002;
  const allowed: number[] = [0];
  let before: [number, number] | null = null;
  for (let i = 2; i < corners.length; i += 2) {
    const [dx, dy] = [corners[i]! - corners[i - 2]!, corners[i + 1]! - corners[i - 1]!];
    const mm = Math.hypot(dx, dy);
    const way: [number, number] = [dx / mm, dy / mm];
    if (before) {
      // The turn, as the arc that touches both sides and leaves the corner by 10 µm: r = δ·s/(1 − s), v² = a·r.
      const turn = Math.acos(Math.max(-1, Math.min(1, before[0] * way[0] + before[1] * way[1])));
      const s = Math.sin((Math.PI - turn) / 2);
      if (s < 0.9999) allowed[allowed.length - 1] = Math.sqrt((a * 0.01 * s) / (1 - s));
    }
    const steps = Math.max(1, Math.round(mm / step));
    for (let k = 0; k < steps; k += 1) allowed.push(speed);
    before = way;
  }
  allowed[allowed.length - 1] = 0;
  for (let i = 1; i < allowed.length; i += 1)
    allowed[i] = Math.min(allowed[i]!, Math.sqrt(allowed[i - 1]! ** 2 + 2 * a * step));
  for (let i = allowed.length - 2; i >= 0; i -= 1)
    allowed[i] = Math.min(allowed[i]!, Math.sqrt(allowed[i + 1]! ** 2 + 2 * a * step));
  return allowed.slice(1).reduce((sum, v, i) => sum + (2 * step) / (v + allowed[i]!), 0);
}

describe('following a line', () => {
  it('a straight one is a trapezoid, however many corners lie on it', () => {
    expect(lineTime([0, 0, 60, 0], 100, GANTRY)).toBeCloseTo(moveTime(60, 100, 2000), 9);
    expect(lineTime([0, 0, 13, 0, 20, 0, 60, 0], 100, GANTRY)).toBeCloseTo(moveTime(60, 100, 2000), 9);
    expect(lineTime([0, 0, 1, 0], 100, GANTRY)).toBeCloseTo(2 * Math.sqrt(1 / 2000), 9);
  });

  it('a turn back stops: twice from rest to rest', () => {
    expect(lineTime([0, 0, 20, 0, 0, 0], 100, GANTRY)).toBeCloseTo(2 * moveTime(20, 100, 2000), 6);
  });

  it('agrees with a stepped simulation on any line (property)', () => {
    const corner = fc.tuple(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 0, max: 30 }));
    fc.assert(
      fc.property(
        fc.uniqueArray(corner, { minLength: 2, maxLength: 7, selector: String }),
        fc.integer({ min: 10, max: 300 }),
        (line, speed) => {
          expect(lineTime(line.flat(), speed, GANTRY) / stepped(line.flat(), speed, 2000)).toBeCloseTo(1, 2);
        },
      ),
      { numRuns: 60, seed: 3 },
    );
  });

  it('a galvo takes its delay at every corner', () => {
    expect(lineTime([0, 0, 10, 0, 10, 10], 100, { kind: 'galvo', jumpMmPerS: 1000, delayS: 0.001 })).toBeCloseTo(
      0.201,
      9,
    );
  });
});

const run = (a: number, overhead: number, ramp: number, pieces: number, noise = 0): TimedRun => ({
  ...{ cruiseS: 20 * pieces, ramp: ramp * pieces, pieces },
  seconds: pieces * (20 + ramp / a + overhead + noise),
});

describe('acceleration and overhead from measured runs', () => {
  it('come out exactly where nothing else is in them', () => {
    const runs = [3e4, 6e4, 9e4, 2e4].map((ramp, i) => run(3000, 4, ramp, 6 + i));
    const learnt = learnMotion(runs)!;
    expect(learnt.accelerationMmPerS2.value).toBeCloseTo(3000, 3);
    expect(learnt.overheadS.value).toBeCloseTo(4, 6);
  });

  it('the intervals hold the truth nine times in ten (400 shops)', () => {
    const random = seededRandom(11);
    let held = 0;
    for (let shop = 0; shop < 400; shop += 1) {
      const runs = Array.from({ length: 8 }, () => run(2500, 5, 1e4 + 8e4 * random(), 10, standardNormal(random)));
      const learnt = learnMotion(runs);
      if (!learnt) continue;
      const { low, high } = learnt.accelerationMmPerS2;
      if (low <= 2500 && 2500 <= high) held += 1;
    }
    expect(held / 400).toBeGreaterThan(0.86);
    expect(held / 400).toBeLessThan(0.94);
  });

  it('says nothing from too few, or from runs alike', () => {
    expect(learnMotion([3e4, 6e4, 9e4].map((ramp) => run(3000, 4, ramp, 6)))).toBeNull();
    expect(learnMotion([3e4, 3e4, 3e4, 3e4].map((ramp) => run(3000, 4, ramp, 6)))).toBeNull();
  });
});
