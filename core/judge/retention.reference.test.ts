import { describe, expect, it } from 'vitest';
import { seededRandom, standardNormal } from '../support/index.js';
import { contrastLeft, lastingWeight, PROTOCOLS, READ_WITHIN } from './index.js';

describe('contrast left after a test', () => {
  it('is after ÷ before; marks lighter than the ground count alike', () => {
    expect(contrastLeft(50, 49, 'picture')!.share).toBeCloseTo(0.98, 9);
    expect(contrastLeft(-40, -20, 'picture')!.share).toBeCloseTo(0.5, 9);
    expect(contrastLeft(-40, 2, 'picture')!.share).toBeCloseTo(-0.05, 9);
  });

  it('has the interval of Fieller (1954): the ratios that the two readings do not contradict at 5 %', () => {
    const { low, high } = contrastLeft(50, 40, 'picture')!;
    const z = (ratio: number) => Math.abs(40 - ratio * 50) / (READ_WITHIN.picture * Math.sqrt(1 + ratio * ratio));
    expect(z(low)).toBeCloseTo(1.96, 2);
    expect(z(high!)).toBeCloseTo(1.96, 2);
  });

  it('holds the truth in 95 of 100 shops, by picture and by eye', () => {
    const random = seededRandom(5);
    for (const readBy of ['picture', 'eye'] as const) {
      let held = 0;
      for (let shop = 0; shop < 2000; shop += 1) {
        const read = (truth: number) => truth + READ_WITHIN[readBy] * standardNormal(random);
        const found = contrastLeft(read(45), read(36), readBy)!;
        if (found.low <= 0.8 && 0.8 <= found.high!) held += 1;
      }
      expect(held / 2000).toBeGreaterThan(0.935);
      expect(held / 2000).toBeLessThan(0.965);
    }
  });

  it('says nothing where there was hardly a mark before', () => {
    expect(contrastLeft(1, 0.9, 'picture')).toBeNull();
    expect(contrastLeft(6, 5, 'eye')).toBeNull();
    expect(contrastLeft(0, 0, 'picture')).toBeNull();
  });
});

describe('what a part will meet (common practice, no source)', () => {
  it('the dishwasher weighs most for a cup, grit that takes any mark off nothing', () => {
    expect(lastingWeight('dishwasher', { foodUse: true })).toBeGreaterThan(
      lastingWeight('pad, wet', { foodUse: true }),
    );
    expect(lastingWeight('dishwasher', { foodUse: false })).toBeLessThan(lastingWeight('pad, wet', { foodUse: false }));
    expect(
      PROTOCOLS.filter(({ code }) => lastingWeight(code, { foodUse: true }) === 0).map(({ code }) => code),
    ).toEqual(['600 grit']);
  });
});
