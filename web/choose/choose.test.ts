import {
  CRITERIA,
  drawValueScores,
  missingEstimate,
  rankOptions,
  switchingPoints,
  type ChoiceOption,
  type Weights,
} from '@unto/core';
import type { ChoiceOptionView, InventoryItem } from '@unto/contract';
import { describe, expect, it } from 'vitest';
import { middlingOption } from '../testing/options';
import { cellText, handlingText, valueText } from './cell-text';
import { scoreFigure } from './score-figure';
import { purchaseWords, supplyRows } from './supply';
import { switchingWords, verdictWords } from './words';

const EVEN = Object.fromEntries(CRITERIA.map((criterion) => [criterion, 5])) as unknown as Weights;
const rank = (options: ChoiceOption[], weights = EVEN) => rankOptions(drawValueScores(options, 3), weights);

describe('what a ranking comes to in words', () => {
  it('names the winner, its two best reasons, the numbers, and what it gives up', () => {
    const said = verdictWords(
      rank([middlingOption('Fast', { rate: 40, handling: 9, contrast: 2 }), middlingOption('Dark')]),
      'CR',
    )!;
    expect(said.title).toBe('Fast, because it can wait on the rack and it is faster');
    expect(said.why).toMatch(
      /points of 100 against \d+ for Dark\. Can wait: 9\.0 of 10 against 5\.0 of 10\. Fast: 40\scm²\/min against 20\scm²\/min\./,
    );
    expect(said.givesUp).toBe('It gives up 2 points of contrast.');
    expect([said.sureness, said.sure]).toEqual(['clear', 'Clear: first in 100 of 100 draws from the evidence.']);
  });

  it('does not make up a difference, nor a second where there is none', () => {
    expect(verdictWords(rank([middlingOption('a'), middlingOption('b')]), 'CR')!.title).toBe('a and b come out alike');
    expect(verdictWords(rank([middlingOption('a'), middlingOption('b')]), 'CR')!.sureness).toBe('open');
    expect(verdictWords(rank([middlingOption('only')]), 'CR')!.title).toMatch(/nothing else is offered/);
    expect(verdictWords([], 'CR')).toBeNull();
  });

  it('says of a missing number that it is not known', () => {
    const gap = middlingOption('Gap', { handling: 9 });
    const lacking = { ...gap, estimates: { ...gap.estimates, contrast: missingEstimate('contrast', 'coupon needed') } };
    const said = verdictWords(rank([middlingOption('Known', { contrast: 5 }), lacking]), 'CR')!;
    expect(said.why).toMatch(/Contrast: 5\.0 of 5 against not known/);
  });

  it('says which weight must move how far, as many times or as a share of what it is', () => {
    const weights = { ...EVEN, contrast: 8 };
    const ranked = rank([middlingOption('Dark', { contrast: 4.5 }), middlingOption('Cheap', { cost: 1.3 })], weights);
    const points = switchingPoints(ranked, weights);
    const text = switchingWords(points, (id) => id);
    expect(text).toMatch(/would be first if (contrast|price a piece) counted (\d+(\.\d)? times as much|\d+ % of that)/);
    expect(text).toMatch(/Nothing else changes the order\.$/);
    expect(switchingWords([], (id) => id)).toBe('No single weight changes the order.');
    expect(switchingWords([{ criterion: 'cost', to: 'Cheap', factor: Infinity, weight: 2 }], (id) => id)).toMatch(
      /price a piece counted 2\.0/,
    );
    expect(switchingWords([{ criterion: 'cost', to: 'Cheap', factor: 0, weight: 0 }], (id) => id)).toMatch(
      /price a piece did not count/,
    );
  });
});

describe('numbers in their columns', () => {
  it('carry their unit, or say what would fill them', () => {
    expect(valueText('contrast', -3.5, 'CR')).toBe('−3.5 of 5');
    expect(valueText('durability', 0.955, 'CR')).toBe('96 %');
    expect(valueText('cost', 1.234, 'CR')).toMatch(/^1\.23\sCR$/);
    expect(valueText('cleaning', 0.456, 'CR')).toMatch(/^0\.46\smin$/);
    expect(cellText(missingEstimate('contrast', 'coupon needed'), 'CR')).toBe('coupon needed');
    expect(handlingText({ handling: 'rubs off', shelfLifeDays: 7 })).toMatch(/^rubs off 7\sd$/);
    expect(handlingText(null)).toBe('no coat');
  });

  it('show a score term by term, graded by the weakest that counts', () => {
    const gap = middlingOption('Gap');
    const lacking = { ...gap, estimates: { ...gap.estimates, contrast: missingEstimate('contrast', 'coupon needed') } };
    const [row] = rank([lacking]);
    const sheet = scoreFigure(row!);
    expect(sheet.inputs).toHaveLength(CRITERIA.length);
    expect(sheet.inputs.reduce((sum, { value }) => sum + Number(value), 0)).toBeCloseTo(row!.score, 0);
    expect(sheet.grade).toBe('guess');
    expect(scoreFigure(rank([lacking], { ...EVEN, contrast: 0 })[0]!).grade).toBe('proved');
  });
});

describe('what each costs to keep', () => {
  const compound = (id: string) =>
    ({
      id,
      kind: 'compound',
      body: {
        name: id,
        sizes: [
          { label: 'can', netG: 400, priceMinor: 6000 },
          { label: 'small can', netG: 90, priceMinor: 2000 },
        ],
      },
    }) as unknown as InventoryItem<'compound'>;
  const view = (id: string, gramsPerPiece: number, verdict = 'offered') =>
    ({ id, compoundId: id, gramsPerPiece, judgement: { verdict, reasons: [] } }) as unknown as ChoiceOptionView;
  const page = {
    options: [view('a', 2), view('b', 1), view('c', 1, 'blocked')],
    yearlyUse: { a: { grams: 300, areaCm2: 1000 }, b: { grams: 50, areaCm2: 200 }, c: { grams: 9, areaCm2: 900 } },
    stock: { a: 30 },
  };

  it('lays a year of what was coated with any of them with each one instead', () => {
    const rows = supplyRows(page, ['a', 'b', 'c'].map(compound), { pieces: 50, coatedAreaCm2: 10 });
    expect(rows.map(({ compound: { id } }) => id)).toEqual(['a', 'b']);
    // 1200 cm² a year at 2 g on 10 cm²: 240 g; a month a twelfth of it.
    expect(rows[0]!.year!.grams).toBeCloseTo(240, 9);
    expect(rows[0]!.month!.grams).toBeCloseTo(20, 9);
    expect(rows[1]!.year!.grams).toBeCloseTo(120, 9);
    // The job: 100 g, 30 on the shelf, one small can for the other 70.
    expect(rows[0]!.job).toMatchObject({ grams: 100, missingG: 70, buy: { priceMinor: 2000 } });
    expect(rows[0]!.penalty).toBeCloseTo(2000 / 90 / (6000 / 400), 9);
  });

  it('has no month nor year before anything was weighed', () => {
    const [row] = supplyRows({ ...page, yearlyUse: {} }, [compound('a')], { pieces: 1, coatedAreaCm2: 10 });
    expect([row!.month, row!.year]).toEqual([null, null]);
  });

  it('names what to buy', () => {
    const { sizes } = compound('a').body;
    expect(purchaseWords({ counts: [1, 2], priceMinor: 1, leftOverG: 0 }, sizes)).toBe('1 × can + 2 × small can');
    expect(purchaseWords({ counts: [0, 0], priceMinor: 0, leftOverG: 0 }, sizes)).toBe('on the shelf');
  });
});
