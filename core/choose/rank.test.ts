import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decisive, makeFigure } from '../evidence/figure.js';
import { CRITERIA, CRITERION_INFO, handlingScore, type Criterion, type Weights } from './criteria.js';
import { estimateFromFigure, estimateFromSamples, missingEstimate, type CriterionEstimate } from './estimate.js';
import { drawValueScores, rankOptions, valueScoreOf, type ChoiceOption } from './rank.js';
import { switchingPoints } from './switching.js';

const known = (criterion: Criterion, value: number, reach = 0): CriterionEstimate =>
  estimateFromFigure(
    criterion,
    makeFigure({
      formula: 'estimateFromSamples',
      value,
      unit: CRITERION_INFO[criterion].unit,
      ...(reach ? { interval: { low: value - reach, high: value + reach, level: 0.9 } } : {}),
      inputs: [decisive('run', 'proved')],
    }),
  );
const MIDDLING: Record<Criterion, number> = {
  contrast: 3,
  rate: 20,
  evenness: 3,
  cleaning: 1,
  handling: 5,
  durability: 0.6,
  cost: 2,
  availability: 5,
  help: 5,
  trackRecord: 5,
};
const option = (id: string, change: Partial<Record<Criterion, number>> = {}, reach = 0): ChoiceOption => ({
  id,
  name: id,
  estimates: Object.fromEntries(
    CRITERIA.map((criterion) => [criterion, known(criterion, change[criterion] ?? MIDDLING[criterion], reach)]),
  ) as ChoiceOption['estimates'],
});
const EVEN = Object.fromEntries(CRITERIA.map((criterion) => [criterion, 1])) as Weights;
const rank = (options: ChoiceOption[], weights: Weights = EVEN) => rankOptions(drawValueScores(options, 7), weights);
const better = (criterion: Criterion, value: number) => {
  const { scale } = CRITERION_INFO[criterion];
  return scale.kind === 'ratio' && scale.better === 'less' ? value * 0.8 : value * 1.1;
};

const anyOption = (id: string) =>
  fc
    .record({
      contrast: fc.double({ min: -3, max: 4.5, noNaN: true }),
      rate: fc.double({ min: 1, max: 60, noNaN: true }),
      evenness: fc.double({ min: 1, max: 4.5, noNaN: true }),
      cleaning: fc.double({ min: 0.1, max: 5, noNaN: true }),
      handling: fc.double({ min: 0, max: 9, noNaN: true }),
      durability: fc.double({ min: 0, max: 0.9, noNaN: true }),
      cost: fc.double({ min: 0.2, max: 9, noNaN: true }),
      availability: fc.double({ min: 0, max: 9, noNaN: true }),
      help: fc.double({ min: 0, max: 9, noNaN: true }),
      trackRecord: fc.double({ min: 0, max: 9, noNaN: true }),
    })
    .map((values) => option(id, values, 0.05));
const anyWeights = fc
  .array(fc.double({ min: 0.05, max: 5, noNaN: true }), { minLength: CRITERIA.length, maxLength: CRITERIA.length })
  .map((all) => Object.fromEntries(CRITERIA.map((criterion, i) => [criterion, all[i]!])) as Weights);

describe('ranking', () => {
  it('never ranks a strictly better option below, whatever the weights', () => {
    fc.assert(
      fc.property(anyOption('worse'), anyWeights, (worse, weights) => {
        const change = Object.fromEntries(
          CRITERIA.map((criterion) => {
            const { value } = worse.estimates[criterion].figure!;
            return [criterion, value < 0 ? value / 2 : better(criterion, value)];
          }),
        );
        const ranked = rank([worse, option('better', change, 0.05)], weights);
        expect(ranked[0]!.option.id).toBe('better');
        expect(ranked[1]!.dominatedBy).toBe('better');
      }),
      { numRuns: 40 },
    );
  });

  it('does not change with the unit of a measure, the currency or the size of all weights', () => {
    fc.assert(
      fc.property(
        anyOption('a'),
        anyOption('b'),
        anyOption('c'),
        anyWeights,
        fc.double({ min: 0.01, max: 500, noNaN: true }),
        (a, b, c, weights, factor) => {
          const rescaled = [a, b, c].map(({ id, estimates }) => {
            const values = Object.fromEntries(
              CRITERIA.map((criterion) => [criterion, estimates[criterion].figure!.value]),
            );
            return option(id, {
              ...values,
              rate: values['rate']! * factor,
              cost: values['cost']! * factor,
              cleaning: values['cleaning']! * factor,
            });
          });
          const exact = [a, b, c].map(({ id, estimates }) =>
            option(
              id,
              Object.fromEntries(CRITERIA.map((criterion) => [criterion, estimates[criterion].figure!.value])),
            ),
          );
          const heavier = Object.fromEntries(
            CRITERIA.map((criterion) => [criterion, weights[criterion] * 37]),
          ) as Weights;
          const before = rank(exact, weights);
          for (const after of [rank(rescaled, weights), rank(exact, heavier)]) {
            expect(after.map(({ option: { id } }) => id)).toEqual(before.map(({ option: { id } }) => id));
            after.forEach(({ score }, i) => expect(score).toBeCloseTo(before[i]!.score, 6));
          }
        },
      ),
      { numRuns: 30 },
    );
  });

  it('does not let a third option turn two others round', () => {
    fc.assert(
      fc.property(anyOption('a'), anyOption('b'), anyOption('c'), anyWeights, (a, b, c, weights) => {
        const [first, second] = rank([a, b], weights);
        if (first!.score - second!.score < 1e-9) return;
        const among3 = rank([a, b, c], weights)
          .map(({ option: { id } }) => id)
          .filter((id) => id !== 'c');
        expect(among3).toEqual([first!.option.id, second!.option.id]);
      }),
      { numRuns: 60 },
    );
  });

  it('shows every term, and the terms add up to the score', () => {
    const [first] = rank([option('a'), option('b', { contrast: 4 })]);
    expect(first!.option.id).toBe('b');
    expect(first!.terms.map(({ criterion }) => criterion)).toEqual(CRITERIA);
    expect(first!.terms.reduce((sum, { points }) => sum + points, 0)).toBeCloseTo(first!.score, 9);
    // contrast 4 of 5 at a tenth of the weights: 8 points.
    expect(first!.terms[0]!.points).toBeCloseTo(8, 9);
  });

  it('comes out the same from the same seed, and its intervals hold the score', () => {
    const options = [option('a', {}, 0.6), option('b', { contrast: 3.4 }, 0.6)];
    expect(rank(options)).toEqual(rank(options));
    for (const row of rank(options)) {
      expect(row.low).toBeLessThanOrEqual(row.score);
      expect(row.high).toBeGreaterThanOrEqual(row.score);
    }
    expect(rank(options).reduce((sum, { wins }) => sum + wins, 0)).toBeCloseTo(1, 9);
    expect(rank(options)[0]!.wins).toBeLessThan(1);
  });

  it('shows missing evidence as a range, not as a nought', () => {
    const gap = option('gap');
    const lacking = { ...gap, estimates: { ...gap.estimates, contrast: missingEstimate('contrast', 'a coupon') } };
    const row = rank([lacking, option('a')]).find(({ option: { id } }) => id === 'gap')!;
    expect(row.terms[0]).toMatchObject({ valueScore: 0.5, valueScoreLow: 0, valueScoreHigh: 1 });
    expect(row.high - row.low).toBeGreaterThan(7);
    expect(rank([lacking, option('a')]).every(({ dominatedBy }) => dominatedBy === null)).toBe(true);
  });

  it('ranks a dark mark last where a light one is wanted', () => {
    const ranked = rank([option('dark', { contrast: -4 }), option('light', { contrast: 2 })]);
    expect(ranked.map(({ option: { id } }) => id)).toEqual(['light', 'dark']);
    expect(valueScoreOf('contrast', -4, 1)).toBe(0);
  });

  it('refuses weights that are all nought or negative, and an empty shelf', () => {
    const none = Object.fromEntries(CRITERIA.map((criterion) => [criterion, 0])) as Weights;
    expect(() => rank([option('a')], none)).toThrow(/must count/);
    expect(() => rank([option('a')], { ...EVEN, cost: -1 })).toThrow(/negative/);
    expect(() => drawValueScores([], 1)).toThrow(/Nothing is offered/);
  });
});

describe('switching points', () => {
  it('change the winner just past the weight they state, and not just before', () => {
    let checked = 0;
    fc.assert(
      fc.property(anyOption('a'), anyOption('b'), anyOption('c'), anyWeights, (a, b, c, weights) => {
        const options = [a, b, c];
        const drawn = drawValueScores(options, 3, 1);
        const ranked = rankOptions(drawn, weights);
        for (const { criterion, weight, to } of switchingPoints(ranked, weights)) {
          if (weight < 1e-6 || Math.abs(weight / weights[criterion] - 1) < 1e-3) continue;
          const past = weight > weights[criterion] ? weight * 1.0001 : weight * 0.9999;
          const before = weight > weights[criterion] ? weight * 0.9999 : weight * 1.0001;
          expect(rankOptions(drawn, { ...weights, [criterion]: past })[0]!.option.id).toBe(to);
          expect(rankOptions(drawn, { ...weights, [criterion]: before })[0]!.option.id).toBe(ranked[0]!.option.id);
          checked += 1;
        }
      }),
      { numRuns: 60 },
    );
    expect(checked).toBeGreaterThan(30);
  });

  it('are none for a winner that nothing beats in anything', () => {
    const ranked = rank([option('a'), option('b', { contrast: 2, rate: 10 })]);
    expect(switchingPoints(ranked, EVEN)).toEqual([]);
  });

  it('name a weight of nought that would have to count', () => {
    const weights = { ...EVEN, cost: 0 };
    const ranked = rank([option('dark', { contrast: 5, cost: 4 }), option('cheap', { contrast: 3, cost: 1 })], weights);
    const found = switchingPoints(ranked, weights).find(({ criterion }) => criterion === 'cost')!;
    expect(found).toMatchObject({ to: 'cheap', factor: Infinity });
    expect(found.weight).toBeGreaterThan(0);
  });
});

describe('estimates', () => {
  it('take the interval of the mean by Student’s t, rounding of the eye scale included', () => {
    // 3, 4, 4, 5: mean 4, s² = 2/3; with 1/12 for rounding the mean’s sd is √(0.75/4) = 0.433; t(3) = 2.353.
    const found = estimateFromSamples('contrast', [3, 4, 4, 5], 1, []);
    expect(found.figure!.value).toBe(4);
    expect(found.sd).toBeCloseTo(0.433, 3);
    expect(4 - found.low).toBeCloseTo(2.353 * 0.433, 3);
    expect(found.high).toBe(5);
  });

  it('let a single reading borrow the usual spread', () => {
    expect(estimateFromSamples('cleaning', [2], 0.5, []).sd).toBeCloseTo(0.5, 9);
    expect(() => estimateFromSamples('cleaning', [], 0.5, [])).toThrow(/no reading/);
    expect(() => missingEstimate('rate', 'a coupon')).toThrow(/needs the range/);
  });

  it('score touch and storage of the dry coat', () => {
    expect(handlingScore('can be touched', 30)).toBe(10);
    expect(handlingScore('loose powder', 0)).toBe(0);
    expect(handlingScore('can be touched', null)).toBe(10);
    expect(handlingScore('rubs off', 7)).toBeLessThan(handlingScore('can be touched', 7));
  });
});
