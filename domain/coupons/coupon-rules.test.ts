import { describe, expect, it } from 'vitest';
import { couponRules } from './coupon-rules.js';

describe('rules for a compound’s marks', () => {
  it.each(['black', 'Dark grey', 'gray', 'WHITE', 'silver', 'clear', ''])('of “%s” ask for no tint', (colour) => {
    expect(couponRules('dark on light', { colour }).chroma).toBe(10);
    expect(couponRules('light on dark', { colour }).chroma).toBe(5);
  });

  it.each(['copper tone', 'blue', 'russet', 'gold'])('of “%s” leave its own colour alone', (colour) => {
    expect(couponRules('dark on light', { colour }).chroma).toBeGreaterThan(134);
  });

  it('without a compound are those of a bare mark', () => {
    expect(couponRules('light on dark', null)).toEqual(couponRules('light on dark', { colour: 'white' }));
  });
});
