import { seededRandom } from '@unto/core';
import { describe, expect, it } from 'vitest';
import { fireTruth, MIDDLE, shopWindows, TRUTH_FAMILIES, type TruthSetting } from './index.js';

const SETTINGS: readonly TruthSetting[] = [20, 27, 35, 44, 55].flatMap((powerW) =>
  [30, 55, 100, 180, 330, 600].map((speedMmPerS) => ({ powerW, speedMmPerS, intervalMm: 0.06 })),
);

/** One number for all that a family answers: another generator has another one. */
function printOf(make: (typeof TRUTH_FAMILIES)[number]['make']): number {
  let sum = 0;
  for (const seed of [1, 2, 3, 4, 5]) {
    const truth = make(seededRandom(seed * 104_729));
    SETTINGS.forEach((setting, i) => {
      const pulsed = { ...setting, frequencyKHz: [20, 45, 90][i % 3]!, focusOffsetMm: [-0.8, 0.2, 1][i % 3]! };
      const { under, holds, over } = truth.chances(pulsed, { across: (i % 3) - 1, down: (i % 5) / 2 - 1 });
      sum += under * (1 + (i % 7)) + holds * (2 + (i % 5)) + over * (3 + (i % 4));
    });
    sum += 10 * truth.misread;
  }
  return Number(sum.toFixed(6));
}

/** One number for a shop's windows. */
function printOfShop(seed: number, strange: number): number {
  let sum = 0;
  shopWindows(seededRandom(seed * 104_729), 6, strange).forEach(({ truth, metal }, w) => {
    SETTINGS.forEach((setting, i) => {
      const { under, holds, over } = truth.chances(setting);
      sum += (w + 1) * (under * (1 + (i % 7)) + holds * (2 + (i % 5)) + over * (3 + (i % 4)));
    });
    sum += metal.diffusivity;
  });
  return Number(sum.toFixed(6));
}

describe('hidden shops for the study of what windows teach', () => {
  // Frozen before the pooling was tuned on them.
  it('are what they were', () => {
    expect([1, 2, 3].map((seed) => printOfShop(seed, 0))).toEqual([2124.074475, 2262.40283, 2404.565619]);
    expect([1, 2, 3].map((seed) => printOfShop(seed, 0.25))).toEqual([2305.318087, 2266.080317, 2429.496485]);
  });
});

describe('hidden coats for the study of windows', () => {
  // Frozen before any model was tuned on them: a change here makes what was measured before incomparable.
  it('are what they were', () => {
    expect(Object.fromEntries(TRUTH_FAMILIES.map(({ name, make }) => [name, printOf(make)]))).toEqual({
      'own form': 542.254198,
      'dose and scorch': 545.254744,
      'two regimes': 557.291461,
      gradient: 534.893609,
      'misread 2 %': 533.333187,
      'misread 5 %': 534.833187,
      'misread 8 %': 536.333187,
      'narrow band': 534.341465,
      'nothing holds': 542.19782,
      intervals: 538.027582,
      'frequency and focus': 566.870741,
      'curved and skewed': 560.042961,
      'film and heat': 546.679457,
    });
  });

  it.each(TRUTH_FAMILIES)('$name: three chances that add up, whatever the setting', ({ make }) => {
    for (let seed = 1; seed <= 40; seed += 1) {
      const truth = make(seededRandom(seed));
      for (const setting of SETTINGS) {
        const { under, holds, over } = truth.chances(setting);
        expect(under + holds + over).toBeCloseTo(1, 12);
        expect(Math.min(under, holds, over)).toBeGreaterThanOrEqual(0);
      }
    }
  });

  it.each(TRUTH_FAMILIES)('$name: more power never makes a mark bond less, nor scorch less', ({ make }) => {
    for (let seed = 1; seed <= 40; seed += 1) {
      const truth = make(seededRandom(seed));
      for (const setting of SETTINGS) {
        const [less, more] = [setting, { ...setting, powerW: setting.powerW * 1.1 }].map((one) => truth.chances(one));
        expect(more!.over).toBeGreaterThanOrEqual(less!.over - 1e-12);
        expect(more!.under).toBeLessThanOrEqual(less!.under + 1e-12);
      }
    }
  });

  it('hold somewhere what a shop could run, but for the one where nothing does, and the narrow one hardly', () => {
    const best = ({ make }: (typeof TRUTH_FAMILIES)[number], seed: number) => {
      const truth = make(seededRandom(seed));
      const speeds = Array.from({ length: 20 }, (_, i) => 8 * 60 ** (i / 19));
      const powers = Array.from({ length: 8 }, (_, i) => 20 + 5 * i);
      return Math.max(
        ...powers.flatMap((powerW) =>
          speeds.map((speedMmPerS) => truth.chances({ powerW, speedMmPerS, intervalMm: 0.06 }).holds),
        ),
      );
    };
    for (const family of TRUTH_FAMILIES) {
      const reached = Array.from({ length: 20 }, (_, i) => best(family, i + 1)).filter((holds) => holds >= 0.9).length;
      if (family.name === 'nothing holds') expect(reached).toBe(0);
      else if (family.name !== 'narrow band') expect([family.name, reached]).toEqual([family.name, 20]);
    }
  });

  it('are misread as often as they say, and never from one end to the other', () => {
    const { make } = TRUTH_FAMILIES.find(({ name }) => name === 'misread 8 %')!;
    const random = seededRandom(7);
    let [wrong, all] = [0, 0];
    for (let seed = 1; seed <= 60; seed += 1) {
      const truth = make(seededRandom(seed));
      const clear = SETTINGS.map((setting) => [setting, truth.chances(setting)] as const).filter(
        ([, c]) => c.under > 1 - 1e-9,
      );
      for (const [setting] of clear)
        for (let i = 0; i < 20; i += 1) {
          const read = fireTruth(truth, setting, MIDDLE, random);
          expect(read).not.toBe('over');
          wrong += read === 'holds' ? 1 : 0;
          all += 1;
        }
    }
    expect(wrong / all).toBeGreaterThan(0.07);
    expect(wrong / all).toBeLessThan(0.09);
  });
});
