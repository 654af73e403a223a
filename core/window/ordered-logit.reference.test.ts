import { describe, expect, it } from 'vitest';
import { FINNEY, LAUNCHES } from '../testing/logit-records.js';
import { orderedLogit, type OrdinalRow } from './ordered-logit.js';

/** Cheese tasting, four additives by nine categories. McCullagh & Nelder 1989, Generalized Linear Models, table 5.1. From memory. */
const CHEESE = [
  [0, 0, 1, 7, 8, 8, 19, 8, 1],
  [6, 9, 12, 11, 7, 6, 1, 0, 0],
  [1, 1, 6, 8, 23, 7, 5, 1, 0],
  [0, 0, 0, 1, 3, 7, 14, 16, 11],
];

describe('two categories: the ordinary logit', () => {
  it('gives the published estimates on Finney’s records', () => {
    const rows = FINNEY.map(([volume, rate, category]) => ({ z: [Math.log(volume), Math.log(rate)], category }));
    const fit = orderedLogit({ rows, categories: 2 });
    expect(-fit.cuts[0]!).toBeCloseTo(-2.8754, 3);
    expect(fit.slopes[0]).toBeCloseTo(5.1793, 3);
    expect(fit.slopes[1]).toBeCloseTo(4.5617, 3);
  });

  it('gives the published estimates on the 23 launches', () => {
    const rows = LAUNCHES.map(([temperature, category]) => ({ z: [temperature], category }));
    const fit = orderedLogit({ rows, categories: 2 });
    expect(-fit.cuts[0]!).toBeCloseTo(15.0429, 3);
    expect(fit.slopes[0]).toBeCloseTo(-0.2322, 4);
    // Standard errors 7.3786 and 0.1082 (same source, from memory).
    expect(Math.sqrt(fit.covariance[0]![0]!)).toBeCloseTo(7.3786, 2);
    expect(Math.sqrt(fit.covariance[1]![1]!)).toBeCloseTo(0.1082, 3);
  });
});

describe('nine categories: the cheese table', () => {
  const rows: OrdinalRow[] = CHEESE.flatMap((counts, additive) =>
    counts.flatMap((weight, category) =>
      weight ? [{ z: [0, 1, 2].map((k) => Number(k === additive)), category, weight }] : [],
    ),
  );
  const fit = orderedLogit({ rows, categories: 9 });

  it('gives the published effects against the last additive', () => {
    [-1.6128, -4.9646, -3.3227].forEach((effect, i) => expect(fit.slopes[i]).toBeCloseTo(effect, 3));
  });

  it('gives the published cut points', () => {
    [-7.08, -6.025, -4.925, -3.857, -2.521, -1.569, -0.067, 1.493].forEach((cut, i) =>
      expect(fit.cuts[i]).toBeCloseTo(cut, 2),
    );
  });

  it('gives −2 log L 711.348', () => {
    expect(fit.deviance).toBeCloseTo(711.348, 2);
  });

  it('does not care whether records come one by one or counted', () => {
    const single = rows.flatMap(({ z, category, weight }) => Array.from({ length: weight! }, () => ({ z, category })));
    const again = orderedLogit({ rows: single, categories: 9 });
    fit.slopes.forEach((slope, i) => expect(again.slopes[i]).toBeCloseTo(slope, 8));
  });
});
