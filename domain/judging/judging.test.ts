import { describe, expect, it } from 'vitest';
import { careLines, isOver, lastingShare, type Stood } from './index.js';

const stood = (change: Partial<Stood>): Stood => ({
  ...{ protocol: 'pad, wet', result: 'no change', beforeContrast: null, afterContrast: null, readBy: null },
  ...change,
});

describe('how well marks lasted', () => {
  it('is weighed by what the part will meet, not the mean of thumb and grit', () => {
    const tests = [stood({ protocol: 'thumb' }), stood({ protocol: '600 grit', result: 'lost' })];
    expect(lastingShare(tests, { foodUse: false })).toBe(1);
    const washed = [stood({}), stood({ protocol: 'dishwasher', result: 'lost' })];
    expect(lastingShare(washed, { foodUse: true })).toBeCloseTo(1 / 3, 9);
    expect(lastingShare(washed, { foodUse: false })).toBeCloseTo(2 / 3, 9);
    expect(lastingShare([stood({ protocol: '600 grit', result: 'lost' })], { foodUse: true })).toBeNull();
  });

  it('takes what was read before what was seen', () => {
    const read = stood({ result: 'slightly paler', beforeContrast: 50, afterContrast: 45, readBy: 'picture' });
    expect(lastingShare([read], { foodUse: false })).toBeCloseTo(0.9, 9);
  });
});

it('a test is over once its dose is done or its mark is lost', () => {
  expect(isOver({ dose: 25, looks: [] })).toBe(false);
  expect(isOver({ dose: 25, looks: [{ doseDone: 10, result: 'slightly paler' }] })).toBe(false);
  expect(isOver({ dose: 25, looks: [{ doseDone: 10, result: 'lost' }] })).toBe(true);
  expect(isOver({ dose: 25, looks: [{ doseDone: 25, result: 'no change' }] })).toBe(true);
});

describe('a care card', () => {
  const lines = (change: Partial<Parameters<typeof careLines>[0]> = {}) =>
    careLines({ stood: [], foodUse: false, family: 'stainless', ...change }).join(' ');

  it('promises nothing that was not tested', () => {
    expect(lines()).toMatch(/by hand/);
    expect(lines()).toMatch(/dishwasher was not tested/);
    expect(lines({ stood: [{ protocol: 'dishwasher', doseDone: 10, result: 'no change' }] })).toMatch(
      /stood 10 dishwasher cycles/,
    );
    const both = [
      { protocol: 'dishwasher', doseDone: 10, result: 'no change' },
      { protocol: 'dishwasher', doseDone: 25, result: 'slightly paler' },
    ] as const;
    expect(lines({ stood: both })).toMatch(/Not for the dishwasher/);
  });

  it('says what did not stand, and what glass and food ask for', () => {
    expect(lines({ stood: [{ protocol: 'acetone', doseDone: 5, result: 'lost' }] })).toMatch(
      /Acetone: it did not stand/,
    );
    expect(lines({ foodUse: true, family: 'glass' })).toMatch(/away from lip and food.*no sudden heat or cold/);
  });
});
