import { describe, expect, it } from 'vitest';
import { partialPooling } from './partial-pooling.js';

/**
 * Coaching in eight schools: Rubin 1981; Gelman et al., Bayesian Data Analysis, 3rd edition, tables 5.2 and 5.3 (estimates and standard
 * errors as published; medians and halves of the posterior as published, from memory).
 */
const SCHOOLS = [
  { mean: 28, sd: 15, median: 10, low: 7, high: 16 },
  { mean: 8, sd: 10, median: 8, low: 3, high: 12 },
  { mean: -3, sd: 16, median: 7, low: 2, high: 11 },
  { mean: 7, sd: 11, median: 8, low: 4, high: 11 },
  { mean: -1, sd: 9, median: 5, low: 1, high: 10 },
  { mean: 1, sd: 11, median: 6, low: 2, high: 10 },
  { mean: 18, sd: 10, median: 10, low: 7, high: 15 },
  { mean: 12, sd: 18, median: 8, low: 3, high: 13 },
];

describe('what groups tell of one another', () => {
  const pooled = partialPooling(SCHOOLS, { mean: 0, sd: 1000 }, { most: 40 });

  it('draws the eight schools together as published', () => {
    SCHOOLS.forEach(({ median, low, high }, i) => {
      // Their distributions lean a little; the mean of the first lies above its median.
      expect(Math.abs(pooled.groups[i]!.mean - median)).toBeLessThan(1.7);
      expect(Math.abs(1.349 * pooled.groups[i]!.sd - (high - low))).toBeLessThan(2.6);
    });
  });

  it('expects of a ninth about the mean of all, 7.9, and less surely than of any seen', () => {
    expect(pooled.next.mean).toBeGreaterThan(7.2);
    expect(pooled.next.mean).toBeLessThan(8.6);
    for (const { sd } of pooled.groups) expect(pooled.next.sd).toBeGreaterThan(sd - 1.5);
  });

  it('agrees with a sum over mean and spread by brute force', () => {
    const seen = [
      { mean: 1, sd: 0.5 },
      { mean: 2.2, sd: 0.7 },
    ];
    const centre = { mean: 0, sd: 3 };
    let [weight, first, second] = [0, 0, 0];
    for (let tau = 0.005; tau < 4; tau += 0.01)
      for (let mu = -12; mu < 12; mu += 0.02) {
        let log = -0.5 * tau * tau - 0.5 * (mu / 3) ** 2;
        for (const { mean, sd } of seen) {
          const variance = sd * sd + tau * tau;
          log -= 0.5 * (Math.log(variance) + (mean - mu) ** 2 / variance);
        }
        const w = Math.exp(log);
        weight += w;
        first += w * mu;
        second += w * (mu * mu + tau * tau);
      }
    const mean = first / weight;
    const { next } = partialPooling(seen, centre, { scale: 1 });
    expect(next.mean).toBeCloseTo(mean, 2);
    expect(next.sd).toBeCloseTo(Math.sqrt(second / weight - mean * mean), 2);
  });

  it('of one group claims no more than that it and the spread allow', () => {
    const { next } = partialPooling([{ mean: 1, sd: 0.1 }], { mean: 0, sd: 1 }, { scale: 0.3 });
    expect(next.sd).toBeGreaterThan(0.3);
    expect(next.mean).toBeGreaterThan(0.7);
    expect(next.mean).toBeLessThan(1);
  });

  it('refuses what is no number', () => {
    expect(() => partialPooling([{ mean: Number.NaN, sd: 1 }], { mean: 0, sd: 1 }, { scale: 1 })).toThrow();
    expect(() => partialPooling([{ mean: 1, sd: 0 }], { mean: 0, sd: 1 }, { scale: 1 })).toThrow();
  });
});
