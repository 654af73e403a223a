import { describe, expect, it } from 'vitest';
import { shareFromText, shareToText } from './share';

describe('a share', () => {
  it.each([
    ['12 %', 0.12],
    ['12', 0.12],
    ['0.12', 0.12],
    ['0,12', 0.12],
    ['0.5 %', 0.005],
    ['1', 1],
    ['100 %', 1],
  ])('%s is read as %d', (text, share) => expect(shareFromText(text)).toBeCloseTo(share, 12));

  it('is no number where none was typed', () => {
    expect(shareFromText('much')).toBeNaN();
    expect(shareFromText('%')).toBeNaN();
  });

  it('stands in percent', () => {
    expect(shareToText(0.123)).toBe('12.3');
    expect(shareToText(null)).toBe('');
    expect(shareToText(Number.NaN)).toBe('');
  });
});
