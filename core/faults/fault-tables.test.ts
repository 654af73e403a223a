import { describe, expect, it } from 'vitest';
import { STATIONS } from '../cautions/cautions-for.js';
import { CAUSE_WORDS, CAUSES, COAT_CAUSES, type Cause } from './causes.js';
import { faultFacts, possibleCauses } from './fault-facts.js';
import type { FaultRecord, LotRecord } from './fault-record.js';
import { FAULT_TEST_KEYS, FAULT_TESTS, type FaultTest } from './fault-tests.js';
import { REMEDIES } from './remedies.js';
import { FAULTS } from './symptoms.js';
import { USUAL_LINKS, USUAL_SHARES, usualLink } from './usual-faults.js';

const LISTED = CAUSES.filter((cause) => cause !== 'something else');

describe('the tables of usual practice', () => {
  it('share out a hundred cases, each cause with some', () => {
    expect(CAUSES.reduce((sum, cause) => sum + USUAL_SHARES[cause], 0)).toBe(100);
    expect(Math.min(...Object.values(USUAL_SHARES))).toBeGreaterThan(0);
  });

  it.each(LISTED)('say what “%s” looks like, how often and why', (cause) => {
    const links = Object.values(USUAL_LINKS[cause]);
    expect(links.length).toBeGreaterThan(0);
    for (const { chance, why } of links) {
      expect(chance).toBeGreaterThan(0);
      expect(chance).toBeLessThan(1);
      expect(why.length).toBeGreaterThan(5);
    }
    expect(CAUSE_WORDS[cause].length).toBeGreaterThan(5);
  });

  it.each(FAULTS)('name more than one cause of “%s”, one of them oftener than not unlikely', (fault) => {
    const causes = CAUSES.filter((cause) => usualLink(cause, fault) > 0);
    expect(causes.length).toBeGreaterThan(1);
    expect(Math.max(...causes.map((cause) => usualLink(cause, fault)))).toBeGreaterThanOrEqual(0.3);
  });

  it.each(LISTED)('have a quick test that finds “%s”', (cause) => {
    const finding = FAULT_TEST_KEYS.filter((key) => ((FAULT_TESTS[key] as FaultTest).finds[cause] ?? 0) >= 0.55);
    expect(finding.length).toBeGreaterThan(0);
  });

  it.each(FAULT_TEST_KEYS)('say of the test “%s” what it takes, and what its results are called', (key) => {
    const { minutes, blanks, falseAlarm, found, clear, how }: FaultTest = FAULT_TESTS[key];
    expect(minutes).toBeGreaterThan(0);
    expect([0, 1]).toContain(blanks);
    expect(falseAlarm).toBeLessThan(0.35);
    expect(found).not.toBe(clear);
    expect(how.length).toBeGreaterThan(20);
    // A test that finds less than it raises false alarms tells nothing.
    for (const chance of Object.values((FAULT_TESTS[key] as FaultTest).finds))
      expect(chance).toBeGreaterThan(falseAlarm);
  });

  it.each(LISTED)('keep “%s” from coming back, a question at a station that there is', (cause) => {
    expect(REMEDIES[cause].length).toBeGreaterThan(0);
    for (const { kind, question } of REMEDIES[cause]) {
      expect(question !== undefined).toBe(kind === 'question');
      if (question) expect(STATIONS).toContain(question.station);
      if (question) expect(question.text.length).toBeLessThanOrEqual(200);
    }
  });
});

const RECORD: FaultRecord = {
  coat: {
    ...{ handling: 'can be touched', film: { value: 9.5, low: 9, high: 10 }, bandUm: { low: 7, high: 12 } },
    ...{ findings: null, driedS: 300, dryS: 300, shaken: false, pastTime: false, humidity: null, stored: false },
    lot: null,
  },
  ...{ air: null, extraction: null, lensHours: null, tubeHours: null, pieces: null, spots: [] },
  place: { heightsRead: false, offMm: null, depthMm: 1, longestMm: 50, focusFound: true, focusTicked: false },
  setting: { window: null, intervalToSpot: 0.8, speedToRecipe: 1, asProved: true, drifts: false },
  part: {
    ...{ metal: true, vitreous: false, bareTicked: true, notBare: null, groundLikeMark: false, degreased: true },
    lot: null,
  },
  wash: { afterMinutes: 40, cooled: null, residue: 'none' },
};
const coat = (change: object) => ({ coat: { ...RECORD.coat!, ...change } });
const place = (change: object) => ({ place: { ...RECORD.place, ...change } });
const setting = (change: object) => ({ setting: { ...RECORD.setting!, ...change } });
const part = (change: object) => ({ part: { ...RECORD.part, ...change } });
const lot = (good: number, made: number): LotRecord => ({ lot: 'B9', good, made, othersGood: 190, othersMade: 200 });

/** What all facts of a record together make of a cause. */
function weightOf(cause: Cause, change: object): number {
  const facts = faultFacts({ ...RECORD, ...change });
  return facts.reduce((product, { weights }) => product * (weights[cause] ?? 1), 1);
}

describe('what a fact speaks for (common practice, no source)', () => {
  const usual = (cause: Cause) => weightOf(cause, {});

  it.each<[string, Cause, object]>([
    ['air on over loose powder', 'air blew the powder', { ...coat({ handling: 'loose powder' }), air: 'on' }],
    ['nobody noted the air over powder', 'air blew the powder', coat({ handling: 'loose powder' })],
    ['a film above its band', 'coat too thick', coat({ film: { value: 16, low: 15, high: 17 } })],
    ['a film below its band', 'coat too thin', coat({ film: { value: 4, low: 3.5, high: 4.5 } })],
    ['a coat that nobody weighed', 'coat too thick', coat({ film: null })],
    ['lumps seen in the coat', 'lumps in the coat', coat({ findings: ['lumps'] })],
    ['a finger on the coat', 'touched or greasy', coat({ findings: ['touched'] })],
    ['half the drying', 'fired before it was dry', coat({ driedS: 150 })],
    ['drying that nobody clocked', 'fired before it was dry', coat({ driedS: null })],
    ['a can past its date', 'compound off', coat({ pastTime: true })],
    ['a humid room', 'fired before it was dry', coat({ humidity: 80 })],
    ['coated pieces from the shelf', 'touched or greasy', coat({ stored: true })],
    ['a poor lot of the can', 'compound off', coat({ lot: lot(4, 12) })],
    ['beyond the depth of focus there', 'warped or tilted', place({ heightsRead: true, offMm: 1.6 })],
    ['a long part without heights', 'warped or tilted', place({ longestMm: 160 })],
    ['a focus that nobody noted', 'out of focus', place({ focusFound: false })],
    [
      'a setting that mostly fails in its window',
      'too little energy',
      setting({ window: { bonds: 0.3, overdone: 0 } }),
    ],
    ['a setting that mostly overdoes', 'too much energy', setting({ window: { bonds: 1, overdone: 0.7 } })],
    ['no coupon behind the setting', 'too little energy', setting({ asProved: false })],
    ['faster than the recipe', 'too fast', setting({ speedToRecipe: 1.3 })],
    ['slower than the recipe', 'too much energy', setting({ speedToRecipe: 0.7 })],
    ['lines wider apart than the spot', 'interval too wide', setting({ intervalToSpot: 1.4 })],
    ['a recipe that drifts', 'weak beam', setting({ drifts: true })],
    ['a lens long not cleaned', 'weak beam', { lensHours: 90 }],
    ['an old tube', 'weak beam', { tubeHours: 2500 }],
    ['nobody looked whether it is bare', 'not bare metal', part({ bareTicked: false })],
    ['tested as not bare', 'not bare metal', part({ notBare: 0.9 })],
    ['not degreased', 'touched or greasy', part({ degreased: false })],
    ['a ground like the mark', 'ground too near the mark', part({ groundLikeMark: true })],
    ['a poor lot of blanks', 'unsuitable alloy', part({ lot: lot(5, 20) })],
    ['only one piece of many', 'touched or greasy', { pieces: { made: 12, alike: 1, samePlace: false } }],
    ['residue noted at Clean', 'rinsed too little', { wash: { ...RECORD.wash, residue: 'some' } }],
    [
      'glass washed at once',
      'washed while hot',
      { ...part({ vitreous: true }), wash: { ...RECORD.wash, afterMinutes: 2, cooled: false } },
    ],
  ])('%s: for %s', (_, cause, change) => {
    expect(weightOf(cause, change)).toBeGreaterThan(usual(cause));
  });

  it.each<[string, Cause, object]>([
    ['air off', 'air blew the powder', { ...coat({ handling: 'loose powder' }), air: 'off' }],
    ['extraction off', 'extraction pulled the powder', { ...coat({ handling: 'loose powder' }), extraction: 'off' }],
    ['a coat that looked even', 'uneven spray', coat({ findings: [] })],
    ['shaken by the clock', 'lumps in the coat', coat({ shaken: true })],
    ['in focus there', 'warped or tilted', place({ heightsRead: true, offMm: 0.1 })],
    ['focus looked at again', 'out of focus', place({ focusTicked: true })],
    ['a setting well inside its window', 'too little energy', setting({ window: { bonds: 0.99, overdone: 0.01 } })],
    ['close lines', 'interval too wide', setting({ intervalToSpot: 0.4 })],
    ['a lens just cleaned', 'weak beam', { lensHours: 2 }],
    ['tested as bare', 'not bare metal', part({ notBare: 0.02 })],
    ['most pieces alike', 'touched or greasy', { pieces: { made: 12, alike: 11, samePlace: true } }],
    [
      'glass cooled by its clock',
      'washed while hot',
      { ...part({ vitreous: true }), wash: { ...RECORD.wash, cooled: true } },
    ],
  ])('%s: against %s', (_, cause, change) => {
    expect(weightOf(cause, change)).toBeLessThan(weightOf(cause, { ...change, ...plain(change) }));
  });

  /** The same record without the fact: what it is held against. */
  function plain(change: object): object {
    return Object.fromEntries(
      Object.keys(change).map((key) => {
        const own = RECORD[key as keyof FaultRecord];
        return [
          key,
          key === 'coat'
            ? { ...RECORD.coat!, handling: (change as Pick<FaultRecord, 'coat'>).coat!.handling, findings: null }
            : own,
        ];
      }),
    );
  }

  it('says nothing of lots that are too few, or no worse than the others', () => {
    const facts = (of: LotRecord) => faultFacts({ ...RECORD, ...part({ lot: of }) }).map(({ code }) => code);
    expect(facts(lot(1, 2))).not.toContain('blank-lot');
    expect(facts(lot(5, 20))).toContain('blank-lot');
    expect(weightOf('unsuitable alloy', part({ lot: lot(19, 20) }))).toBeLessThanOrEqual(1.01);
  });

  it('says each fact in words with its numbers, and none twice', () => {
    const facts = faultFacts({ ...RECORD, ...coat({ driedS: 150 }), ...place({ heightsRead: true, offMm: -1.62 }) });
    const words = facts.map((fact) => fact.words);
    expect(words).toContain('dried 2:30 of 5:00');
    expect(words).toContain('there -1.62 mm off focus, depth ± 1.00 mm');
    expect(new Set(facts.map(({ code }) => code)).size).toBe(facts.length);
  });

  it('rules causes out by what cannot be, not by what somebody said', () => {
    expect(possibleCauses({ ...RECORD, coat: null }).filter((cause) => COAT_CAUSES.includes(cause))).toEqual([]);
    expect(possibleCauses({ ...RECORD, air: 'off' })).toContain('air blew the powder');
    expect(possibleCauses(RECORD)).not.toContain('washed while hot');
    expect(possibleCauses({ ...RECORD, ...part({ metal: false }) })).not.toContain('unsuitable alloy');
    expect(possibleCauses(RECORD)).toContain('something else');
  });
});
