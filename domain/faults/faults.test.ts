import { describe, expect, it } from 'vitest';
import type { FaultRecord } from '@unto/core';
import {
  asksOf,
  faultEvidence,
  isAnswered,
  putRight,
  questionCode,
  recordAsSeen,
  regionShareOf,
  remediesOf,
  remedyApplies,
  sameRemedy,
  toldTests,
  type Changeable,
  type FaultOn,
} from './index.js';

const RECORD: FaultRecord = {
  coat: null,
  ...{ air: null, extraction: null, lensHours: null, tubeHours: null, pieces: null, spots: [] },
  place: { heightsRead: true, offMm: null, depthMm: 1, longestMm: 60, focusFound: true, focusTicked: true },
  setting: { window: null, intervalToSpot: 0.8, speedToRecipe: null, asProved: false, drifts: false },
  part: {
    ...{ metal: true, vitreous: false, bareTicked: true, notBare: null, groundLikeMark: false, degreased: true },
    lot: null,
  },
  wash: { afterMinutes: null, cooled: null, residue: null },
};
/** A part of 100 × 20 mm that rises to 2 mm at its upper right corner. */
const BENT = {
  readings: [
    { xMm: 0, yMm: 0, heightMm: 0 },
    { xMm: 100, yMm: 0, heightMm: 0 },
    { xMm: 0, yMm: 20, heightMm: 0 },
    { xMm: 100, yMm: 20, heightMm: 2 },
  ],
  focusMm: 0,
};
const on = (change: Partial<FaultOn> = {}): FaultOn => ({
  ...{ markWidthMm: 100, markHeightMm: 20, surface: BENT, made: 1, others: [] },
  ...change,
});
const seen = (change: object = {}) => ({ faults: ['grainy' as const], spots: [], pieces: 1, ...change });

describe('a record with where the fault lies', () => {
  it('reads the height there; at the worst place where nobody pressed any; none where none was read', () => {
    const off = (spots: { x: number; y: number }[], of = on()) => recordAsSeen(RECORD, of, seen({ spots })).place.offMm;
    expect(off([{ x: 1, y: 0 }])).toBeCloseTo(2, 6);
    expect(off([{ x: 0, y: 1 }])).toBeCloseTo(0, 6);
    expect(Math.abs(off([])!)).toBeCloseTo(2, 1);
    expect(off([], on({ surface: null }))).toBeNull();
  });

  it('holds it against the focus that was set, up or down', () => {
    const low = on({ surface: { ...BENT, focusMm: 1.5 } });
    expect(recordAsSeen(RECORD, low, seen({ spots: [{ x: 0, y: 1 }] })).place.offMm).toBeCloseTo(-1.5, 6);
  });

  it('counts the pieces that look so, those of other runs of the ticket among them', () => {
    const of = (change: Partial<FaultOn>, look: object = {}) => recordAsSeen(RECORD, on(change), seen(look)).pieces;
    expect(of({ made: 6 }, { pieces: 2 })).toEqual({ made: 6, alike: 2, samePlace: false });
    // One piece of a run of one is the piece itself; nothing is said of others where there are none.
    expect(of({ made: 1 })).toBeNull();
    expect(of({ made: 6 }, { pieces: 0 })).toBeNull();
    const others = [
      { pieces: 4, bad: 3, faults: ['grainy' as const] },
      { pieces: 5, bad: 5, faults: ['patchy' as const] },
    ];
    expect(of({ made: 1, others })).toEqual({ made: 10, alike: 4, samePlace: false });
  });

  it('calls spots the same place only where they lie near one another', () => {
    const place = (spots: object[]) =>
      recordAsSeen(RECORD, on({ made: 4 }), seen({ spots, pieces: 3 })).pieces!.samePlace;
    expect(
      place([
        { x: 0.1, y: 0.1 },
        { x: 0.2, y: 0.15 },
      ]),
    ).toBe(true);
    expect(
      place([
        { x: 0.1, y: 0.1 },
        { x: 0.9, y: 0.1 },
      ]),
    ).toBe(false);
  });
});

describe('what is known of a fault', () => {
  const test = (name: 'heights' | 'meter', result: 'found' | 'clear' | 'cannot tell' | 'skipped') => ({
    test: name,
    result,
  });

  it('takes the newest of each test; what nobody could tell, and what was skipped, says nothing', () => {
    const told = toldTests([test('heights', 'found'), test('meter', 'cannot tell'), test('heights', 'clear')]);
    expect(told).toEqual([test('heights', 'clear')]);
    expect(toldTests([test('heights', 'found'), test('heights', 'skipped')])).toEqual([]);
    const { tests } = faultEvidence(RECORD, ['grainy'], [test('heights', 'found')]);
    expect(tests).toEqual([expect.objectContaining({ found: true, falseAlarm: expect.any(Number) })]);
  });

  it('leaves out causes of a coat where there is none', () => {
    expect(faultEvidence(RECORD, ['grainy'], []).possible).not.toContain('coat too thick');
    expect(faultEvidence({ ...RECORD, setting: null }, ['patchy'], []).possible).not.toContain('too little energy');
  });

  it('takes an edge for a quarter of the mark, a corner for less', () => {
    expect(regionShareOf(['pale along one edge'])).toBe(0.25);
    expect(regionShareOf(['faint in one corner'])).toBeLessThan(0.25);
  });
});

describe('what is changed so that it does not come back', () => {
  const all: Changeable = {
    recipe: { air: 'on', suspended: false },
    compound: { airAssist: null },
    container: { retired: false },
  };
  const none: Changeable = { recipe: null, compound: null, container: null };

  it('is offered only where there is something to change', () => {
    expect(remediesOf(['air blew the powder'], all).map(({ kind }) => kind)).toEqual([
      'recipe air off',
      'compound air off',
      'question',
    ]);
    expect(remediesOf(['air blew the powder'], none).map(({ kind }) => kind)).toEqual(['question']);
    expect(remedyApplies('recipe air off', { ...all, recipe: { air: 'off', suspended: false } })).toBe(false);
    expect(remedyApplies('suspend recipe', { ...all, recipe: { air: 'on', suspended: true } })).toBe(false);
    expect(remedyApplies('retire container', { ...all, container: { retired: true } })).toBe(false);
  });

  it('is offered once where two causes ask for the same', () => {
    expect(remediesOf(['too little energy', 'too fast'], all)).toEqual([{ kind: 'suspend recipe' }]);
    expect(remediesOf(['something else'], all)).toEqual([]);
  });

  it('puts right every cause that it is a remedy of, and no other', () => {
    expect(putRight([{ kind: 'suspend recipe' }])).toEqual(
      expect.arrayContaining(['too little energy', 'too much energy', 'too fast', 'interval too wide']),
    );
    expect(putRight([{ kind: 'compound air off' }])).toEqual(['air blew the powder']);
    expect(putRight([])).toEqual([]);
  });

  it('tells questions apart by their words', () => {
    const ask = (text: string) => ({
      kind: 'question' as const,
      question: { station: 'mark' as const, text, of: 'compound' as const },
    });
    expect(sameRemedy(ask('a'), ask('a'))).toBe(true);
    expect(sameRemedy(ask('a'), ask('b'))).toBe(false);
  });
});

describe('a question at a station', () => {
  const ticket = { compoundId: 'c', substrateId: 's', markWidthMm: 160, markHeightMm: 14 };
  const asked = (change: object) => ({ compoundId: null, substrateId: null, longerThanMm: null, ...change });

  it('is asked of the tickets it is meant for', () => {
    expect(asksOf(asked({}), ticket)).toBe(true);
    expect(asksOf(asked({ compoundId: 'c' }), ticket)).toBe(true);
    expect(asksOf(asked({ compoundId: 'd' }), ticket)).toBe(false);
    expect(asksOf(asked({ substrateId: 'd' }), ticket)).toBe(false);
    expect(asksOf(asked({ longerThanMm: 100 }), ticket)).toBe(true);
    expect(asksOf(asked({ longerThanMm: 100 }), { ...ticket, markWidthMm: 80 })).toBe(false);
    expect(asksOf(asked({ compoundId: 'c' }), { ...ticket, compoundId: null })).toBe(false);
  });

  const question = { id: 'q', station: 'mark' as const };
  const tick = (sequence: number, station = 'mark') => ({
    ...{ station: station as never, kind: 'check' as const, code: questionCode(question), sequence },
  });

  it('holds at Mark until the next run only; at other stations for the ticket; at Place until the head is changed', () => {
    const at = (sequence: number, lastRunSequence: number | null) =>
      isAnswered(question, { checks: [tick(sequence)], fitting: null, lastRunSequence });
    expect(at(5, null)).toBe(true);
    expect(at(5, 4)).toBe(true);
    expect(at(5, 6)).toBe(false);
    const coat = { id: 'q', station: 'coat' as const };
    expect(isAnswered(coat, { checks: [tick(5, 'coat')], fitting: null, lastRunSequence: 9 })).toBe(true);
    const place = { id: 'q', station: 'place' as const };
    const placed = { checks: [tick(5, 'place')], lastRunSequence: null };
    expect(isAnswered(place, { ...placed, fitting: { sequence: 4 } })).toBe(true);
    expect(isAnswered(place, { ...placed, fitting: { sequence: 6 } })).toBe(false);
  });

  it('is not answered by a caution, nor by the tick of another', () => {
    const checks = [
      { ...tick(5), kind: 'caution' as const },
      { ...tick(6), code: 'question-other' },
    ];
    expect(isAnswered(question, { checks, fitting: null, lastRunSequence: null })).toBe(false);
  });
});
