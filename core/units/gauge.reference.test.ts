import { describe, expect, it } from 'vitest';
import { gaugeToMm } from './gauge.js';

const inches = (gauge: number, metal: Parameters<typeof gaugeToMm>[1]) => gaugeToMm(gauge, metal) / 25.4;

describe('sheet gauges against their published tables', () => {
  // Manufacturers' Standard Gauge for Sheet Steel (41.82 lb/ft² per inch); values from memory.
  it.each([
    [7, 0.1793],
    [10, 0.1345],
    [16, 0.0598],
    [20, 0.0359],
    [24, 0.0239],
    [28, 0.0149],
    [30, 0.012],
  ])('uncoated steel %i', (gauge, expected) => expect(inches(gauge, 'steel')).toBeCloseTo(expected, 6));

  // United States Standard gauge as used for stainless sheet; values from memory.
  it.each([
    [10, 0.1406],
    [16, 0.0625],
    [20, 0.0375],
    [24, 0.025],
    [30, 0.0125],
  ])('stainless %i', (gauge, expected) => expect(inches(gauge, 'stainless')).toBeCloseTo(expected, 6));

  // Galvanised sheet gauge, zinc included; values from memory.
  it.each([
    [8, 0.1681],
    [16, 0.0635],
    [24, 0.0276],
    [30, 0.0157],
  ])('galvanised %i', (gauge, expected) => expect(inches(gauge, 'galvanised')).toBeCloseTo(expected, 6));

  // Brown & Sharpe = American Wire Gauge, ASTM B258: 0.4600 in at 0000, 0.0050 in at 36; middle values from memory.
  it.each([
    [0, 0.3249],
    [10, 0.1019],
    [18, 0.0403],
    [24, 0.0201],
    [36, 0.005],
  ])('brass, copper and aluminium %i', (gauge, expected) => {
    expect(inches(gauge, 'brass')).toBeCloseTo(expected, 6);
    expect(inches(gauge, 'copper')).toBeCloseTo(expected, 6);
    expect(inches(gauge, 'aluminium')).toBeCloseTo(expected, 6);
  });

  it('falls steadily from gauge to gauge in every table', () => {
    for (const metal of ['steel', 'stainless', 'galvanised', 'brass'] as const) {
      for (let gauge = 9; gauge <= 30; gauge += 1) {
        const ratio = inches(gauge - 1, metal) / inches(gauge, metal);
        expect(ratio).toBeGreaterThan(1.04);
        expect(ratio).toBeLessThan(1.22);
      }
    }
  });
});
