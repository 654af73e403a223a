import { describe, expect, it } from 'vitest';
import { decisive, makeFigure } from '../evidence/figure.js';
import { CRITERIA } from './criteria.js';
import {
  NO_EVIDENCE,
  optionEstimates,
  pooledSpread,
  shopScore,
  type MarkEvidence,
  type OptionFacts,
  type OptionJob,
} from './option-estimates.js';

const evidence = (change: Partial<MarkEvidence>): MarkEvidence => ({ ...NO_EVIDENCE, ...change });
const COAT: NonNullable<OptionFacts['coat']> = {
  handling: 'can be touched',
  shelfLifeDays: 20,
  coats: 1,
  compoundMinor: { value: 20, low: 15, high: 30 },
  compoundGrade: 'stated',
  thinnerMinor: 2,
  soft: { availability: 8, help: null },
  ref: { kind: 'compound', id: 'c' },
};
const rate = makeFigure({
  formula: 'areaRate',
  value: 20,
  unit: 'cm²/min',
  interval: { low: 18, high: 23, level: 0.9 },
  inputs: [decisive('coupon', 'proved')],
});
const facts = (change: Partial<OptionFacts> = {}): OptionFacts => ({
  own: NO_EVIDENCE,
  near: NO_EVIDENCE,
  rate: null,
  coat: COAT,
  ...change,
});
const JOB: OptionJob = {
  wantsDark: true,
  marksDark: true,
  markAreaCm2: 10,
  blankMinor: 0,
  laserMinorPerMinute: 30,
  labourMinorPerMinute: 40,
  spread: pooledSpread([]),
  ratesElsewhere: [],
};

describe('what is known of an option', () => {
  it('takes own runs first and grades them by the pad', () => {
    const own = evidence({ contrast: [4, 5, 4], evenness: [4], refs: [{ kind: 'run', id: 'r' }] });
    const near = evidence({ contrast: [1, 1, 1] });
    expect(optionEstimates(facts({ own, near }), JOB).contrast.figure).toMatchObject({ grade: 'seen' });
    const scrubbed = optionEstimates(facts({ own: { ...own, scrubbed: true }, near }), JOB).contrast.figure!;
    expect(scrubbed.grade).toBe('proved by eye');
    expect(scrubbed.value).toBeCloseTo(13 / 3, 9);
    expect(scrubbed.inputs.some(({ ref }) => ref?.id === 'r')).toBe(true);
  });

  it('carries over from nearby with a wider interval', () => {
    const samples = [4, 4, 5, 4];
    const own = optionEstimates(facts({ own: evidence({ contrast: samples }) }), JOB).contrast;
    const near = optionEstimates(facts({ near: evidence({ contrast: samples }) }), JOB).contrast;
    expect(near.figure!.grade).toBe('carried');
    expect(near.figure!.value).toBe(own.figure!.value);
    expect(near.high - near.low).toBeGreaterThan(own.high - own.low);
  });

  it('turns the sign of contrast with the aim', () => {
    const own = evidence({ contrast: [-4, -5] });
    expect(optionEstimates(facts({ own }), { ...JOB, wantsDark: false }).contrast.figure!.value).toBe(4.5);
    expect(optionEstimates(facts({ own }), JOB).contrast.figure!.value).toBe(-4.5);
    expect(optionEstimates(facts(), { ...JOB, wantsDark: false }).contrast).toMatchObject({
      figure: null,
      low: -5,
      high: 0,
    });
  });

  it('says what is missing, with the range it may lie in', () => {
    const all = optionEstimates(facts(), { ...JOB, ratesElsewhere: [6, 30] });
    expect(all.contrast).toMatchObject({ figure: null, low: 0, high: 5, wanted: 'coupon needed' });
    expect(all.rate).toMatchObject({ figure: null, low: 2, high: 45, wanted: 'coupon needed' });
    expect(all.durability.wanted).toBe('scrub needed');
    expect(all.help).toMatchObject({ figure: null, wanted: 'not scored' });
    expect(all.availability.figure!.value).toBe(8);
    for (const criterion of CRITERIA) expect(all[criterion].low).toBeLessThanOrEqual(all[criterion].high);
  });

  it('prices a piece with laser and hands-on time, and grades it by its weakest part', () => {
    const own = evidence({ cleaning: [0.4, 0.6], good: 199, made: 199 });
    const { figure } = optionEstimates(facts({ own, rate }), JOB).cost;
    // (20 + 2 + 10/20·30 + (0.5 + 0.5)·40) ÷ (199.5/200), in whole crowns.
    expect(figure!.value).toBeCloseTo((20 + 2 + 15 + 40) / (199.5 / 200) / 100, 9);
    expect(figure!.interval!.low).toBeLessThan(figure!.value);
    expect(figure!.grade).toBe('stated');
    expect(optionEstimates(facts({ own }), JOB).cost.figure!.grade).toBe('guess');
  });

  it('has nothing to touch, keep or score without a coat', () => {
    const all = optionEstimates(facts({ coat: null }), JOB);
    expect(all.handling.figure!.value).toBe(10);
    expect(all.availability.figure!.value).toBe(10);
    expect(all.cleaning.high).toBe(1);
  });

  it('pools the spread of readings within pairings', () => {
    // s² of 3, 5 is 2; of 4, 4, 4, 4 it is 0: pooled √(2/4).
    const groups = [evidence({ contrast: [3, 5] }), evidence({ contrast: [4, 4, 4, 4] }), evidence({ contrast: [1] })];
    expect(pooledSpread(groups).contrast).toBeCloseTo(Math.sqrt(0.5), 9);
    expect(pooledSpread([]).contrast).toBe(0.8);
  });

  it('refuses a score outside 0 to 10', () => {
    expect(() => shopScore(11)).toThrow(/between 0 and 10/);
  });
});
