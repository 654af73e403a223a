import { describe, expect, it } from 'vitest';
import { chanceText, densityOf, emptySighting, harmWord, observationsOf, tellingWord, weighedOf } from './observations';

const sheet = {
  ...emptySighting('strip'),
  weigh: true,
  mass: { value: 19.2, unit: 'g' as const },
  lengthMm: 50,
  widthMm: 40,
  thicknessMm: 1.2,
};

describe('what is entered of a part', () => {
  it('becomes a density once all its measures are typed', () => {
    expect(densityOf(emptySighting(''))).toBeNull();
    expect(densityOf({ ...sheet, thicknessMm: Number.NaN })).toBeNull();
    expect(observationsOf(sheet).density!.value).toBeCloseTo(8, 9);
    expect(observationsOf({ ...sheet, mass: { value: 19.2 / 28.349523125, unit: 'oz' } }).density!.value).toBeCloseTo(
      8,
      9,
    );
  });

  it('says what is wrong with a measure, and does not count it', () => {
    expect(densityOf({ ...sheet, widthMm: 0 })).toEqual({ fault: expect.stringMatching(/above 0/) });
    expect(observationsOf({ ...sheet, widthMm: 0 }).density).toBeUndefined();
    expect(weighedOf({ ...sheet, widthMm: 0 })).toBeNull();
  });

  it('is sent with the measures of its own way of finding the volume only', () => {
    expect(weighedOf(sheet)).toMatchObject({ by: 'sheet', lengthMm: 50, displacedMl: null });
    expect(weighedOf({ ...sheet, by: 'water', displacedMl: 2.4 })).toMatchObject({
      by: 'water',
      lengthMm: null,
      displacedMl: 2.4,
    });
  });

  it('is spoken of in plain words', () => {
    expect([1.4, 0.5, 0.2, 0.01].map(tellingWord)).toEqual([
      'tells a lot',
      'tells something',
      'tells a little',
      'tells nothing new',
    ]);
    expect([0.999, 0.36, 0.001].map(chanceText)).toEqual(['>99 %', '36 %', '<1 %']);
    expect(harmWord('marks a hidden spot')).toBe('marks it');
  });
});
