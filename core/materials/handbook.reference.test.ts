import { describe, expect, it } from 'vitest';
import { SUBSTRATE_FAMILIES } from '../choose/vocabulary.js';
import { HANDBOOK, handbookSource } from './handbook.js';

/**
 * Published values beside the shipped ones, from memory: Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, tables A.1
 * and A.3, 300 K (k in W/(m·K), α in mm²/s).
 */
const INCROPERA: Record<string, { k: number; alpha: number; spread: number }> = {
  '304': { k: 14.9, alpha: 3.95, spread: 0.1 },
  c101: { k: 401, alpha: 117, spread: 0.05 },
  '1050': { k: 237, alpha: 97.1, spread: 0.05 },
  // Another steel (plain carbon) and glasses of other recipes: the handbooks themselves differ by this much.
  mild: { k: 60.5, alpha: 17.7, spread: 0.25 },
  borosilicate: { k: 1.4, alpha: 0.754, spread: 0.25 },
};

describe('thermal values of the shipped materials', () => {
  it.each(HANDBOOK)('$name lies within what its two handbooks span', ({ conductivity, readings }) => {
    const values = readings.map((reading) => reading.conductivity / 1000);
    expect(conductivity).toBeGreaterThanOrEqual(Math.min(...values) * 0.99);
    expect(conductivity).toBeLessThanOrEqual(Math.max(...values) * 1.01);
    expect(readings[0].source).not.toBe(readings[1].source);
  });

  it.each(Object.entries(INCROPERA))('%s agrees with the published table', (key, { k, alpha, spread }) => {
    const material = HANDBOOK.find((entry) => entry.key === key)!;
    expect(Math.abs(material.conductivity * 1000 - k) / k).toBeLessThan(spread);
    expect(Math.abs(material.diffusivity - alpha) / alpha).toBeLessThan(spread);
  });

  it('304 stainless is the 16.2 W/(m·K), 4.05 mm²/s of the heat checks', () => {
    expect(HANDBOOK[0]).toMatchObject({ conductivity: 0.0162, diffusivity: 4.05 });
  });

  it('knows every family a substrate can be of, and names its sources', () => {
    const families = new Set(HANDBOOK.map(({ family }) => family));
    expect(SUBSTRATE_FAMILIES.filter((family) => !families.has(family))).toEqual([]);
    expect(handbookSource(HANDBOOK[0]!)).toMatch(/ASM.*Incropera/);
  });
});
