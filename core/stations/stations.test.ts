import { describe, expect, it } from 'vitest';
import { cautionsFor, STATIONS, type CautionContext } from '../cautions/index.js';
import { placeChecks, prepareChecks } from './checks.js';
import { nextStation, openBeforeRun, stationLine, type TicketFacts } from './station-line.js';

const fresh: TicketFacts = {
  pieces: 10,
  compoundName: null,
  choiceMade: false,
  prepareDone: 0,
  prepareNeeded: 4,
  placeDone: 0,
  placeNeeded: 3,
  airRule: null,
  openQuestions: [],
  coatedPieces: 0,
  unclockedPieces: 0,
  offBandPieces: 0,
  stored: null,
  otherHead: null,
  dryingLeftS: null,
  dryingPieces: null,
  coupon: 'none',
  recipe: null,
  recipeSuspended: false,
  recipeOffered: null,
  markedPieces: 0,
  rejectedPieces: 0,
  runs: 0,
  runsCleaned: 0,
  runsJudged: 0,
  faults: 0,
};
const done: TicketFacts = {
  ...fresh,
  compoundName: 'Corvid Film',
  choiceMade: true,
  prepareDone: 4,
  placeDone: 3,
  coatedPieces: 10,
  coupon: 'scrubbed',
  recipe: 'recipe v1',
  recipeSuspended: false,
  recipeOffered: null,
  markedPieces: 10,
  runs: 2,
  runsCleaned: 2,
  runsJudged: 2,
};
const stateOf = (facts: TicketFacts, station: string) => stationLine(facts).find((entry) => entry.station === station)!;

describe('station line', () => {
  it('begins at Choose and ends nowhere', () => {
    expect(nextStation(stationLine(fresh))).toBe('choose');
    expect(nextStation(stationLine(done))).toBeNull();
    expect(stationLine(done).every(({ state }) => state === 'done')).toBe(true);
  });

  it('follows a coat through its clock: running, look for gloss, dry', () => {
    expect(stateOf({ ...done, dryingLeftS: 40 }, 'coat')).toMatchObject({ state: 'running', word: 'drying' });
    expect(stateOf({ ...done, dryingLeftS: 0 }, 'coat')).toMatchObject({ state: 'attention', word: 'look for gloss' });
    const four = { ...done, coatedPieces: 4, markedPieces: 4 };
    expect(stateOf(four, 'coat')).toMatchObject({ state: 'open', word: '4 of 10' });
    const faulty = { ...done, rejectedPieces: 2 };
    expect(stateOf(faulty, 'coat')).toMatchObject({ state: 'open', word: '2 to coat again' });
    expect(stateOf({ ...faulty, coatedPieces: 9, markedPieces: 9 }, 'coat')).toMatchObject({
      state: 'open',
      word: '9 of 10',
    });
    expect(stateOf({ ...done, compoundName: null }, 'coat')).toMatchObject({ state: 'done', word: 'none needed' });
  });

  it('tells no coat dry that nobody clocked, that is out of its band, or that is not there', () => {
    const coat = (change: Partial<TicketFacts>) => stateOf({ ...done, markedPieces: 0, runs: 0, ...change }, 'coat');
    expect(coat({})).toMatchObject({ state: 'done', word: 'dry' });
    expect(coat({ unclockedPieces: 10 })).toMatchObject({ state: 'attention', word: '10 not clocked' });
    expect(coat({ offBandPieces: 4 })).toMatchObject({ state: 'attention', word: '4 out of band' });
    expect(coat({ coatedPieces: 4, markedPieces: 10 }).word).toBe('6 marked uncoated');
  });

  it('counts pieces that came out not good as still to be made', () => {
    const facts = { ...done, rejectedPieces: 2 };
    expect(stateOf(facts, 'mark')).toMatchObject({ state: 'running', word: '8 of 10' });
    expect(stateOf(facts, 'coat').word).toBe('2 to coat again');
    expect(stateOf({ ...done, coatedPieces: 20, markedPieces: 13 }, 'mark').state).toBe('attention');
  });

  it('sends one to a coupon that waits for its scrub before anything else', () => {
    const facts = { ...fresh, choiceMade: true, compoundName: 'Corvid Film', coupon: 'rinsed' as const };
    expect(nextStation(stationLine(facts))).toBe('prove');
    expect(stateOf(facts, 'prove').word).toContain('scrub');
  });

  it('asks for cleaning and judgement after a run, and for attention to faults', () => {
    const facts = { ...done, runsCleaned: 1, runsJudged: 0 };
    expect(stateOf(facts, 'clean')).toMatchObject({ state: 'attention', word: '1 to clean' });
    expect(stateOf(facts, 'judge').word).toBe('2 to judge');
    expect(stateOf({ ...done, faults: 1 }, 'judge').state).toBe('attention');
  });
});

describe('before a run', () => {
  const ready: TicketFacts = { ...done, markedPieces: 0, runs: 0, runsCleaned: 0, runsJudged: 0 };
  const words = (facts: TicketFacts, pieces = 10) =>
    openBeforeRun(facts, pieces).map(({ station, word, never }) => `${never ? 'never, ' : ''}${station}: ${word}`);

  it('nothing stands open when all is checked, coated, dry and proved', () => {
    expect(words(ready)).toEqual([]);
  });

  it('what nobody checked, clocked or proved passes under a reason', () => {
    const facts = { ...ready, prepareDone: 1, placeDone: 0, recipe: null, unclockedPieces: 10, offBandPieces: 10 };
    expect(words(facts)).toEqual([
      'prepare: 1 of 4 checked',
      'place: 0 of 3 checked',
      'prove: no setting taken',
      'coat: drying of 10 not clocked',
      'coat: film of 10 out of band',
    ]);
  });

  it('a wet coat, more than is coated, and more than the ticket has never pass', () => {
    expect(words({ ...ready, dryingLeftS: 0 })).toEqual(['never, coat: it still dries. Never fire a wet coat']);
    // Two trays: what is dry may be fired while the other dries.
    const tray = { ...ready, dryingLeftS: 100, dryingPieces: 6, unclockedPieces: 6 };
    expect(words(tray, 4)).toEqual([]);
    expect(words(tray, 5)).toEqual([
      'never, coat: 4 coated pieces are ready, 5 asked; 6 still dry. Never fire a wet coat',
    ]);
    expect(words({ ...ready, coatedPieces: 4 })).toEqual(['never, coat: 4 coated pieces are ready, 10 asked']);
    expect(words(ready, 11)[0]).toBe('never, mark: 10 pieces of the ticket are left, 11 asked');
    const stored = { ...ready, stored: { pieces: 6, past: false } };
    expect(words(stored, 4)).toEqual([]);
    expect(words(stored, 5)[0]).toMatch(/4 coated pieces are ready, 5 asked; 6 lie stored/);
  });

  it('a ticket without a coat asks for none', () => {
    expect(words({ ...ready, compoundName: null, coatedPieces: 0 })).toEqual([]);
  });
});

describe('checks', () => {
  it('asks only what matters for the part', () => {
    const codes = (part: Parameters<typeof prepareChecks>[0]) => prepareChecks(part).map(({ code }) => code);
    expect(codes({ family: 'stainless', layer: 'bare', coated: true })).toEqual(['bare', 'measured', 'flat', 'clean']);
    expect(codes({ family: 'glass', layer: 'bare', coated: true })).toEqual(['measured', 'clean']);
    expect(placeChecks({ coated: true })[0]!.text).toContain('twin');
  });
});

const context: CautionContext = {
  family: 'stainless',
  layer: 'bare',
  form: 'metal film-forming',
  handling: 'can be touched',
  beam: 'near-infrared',
  headName: 'Small bench infrared',
  eyewear: 'the green pair marked 1064 nm',
  solventBased: true,
  foodUse: false,
  thinner: '',
  cleaning: '',
  round: false,
};
const cautionCodes = (station: (typeof STATIONS)[number], change: Partial<CautionContext> = {}) =>
  cautionsFor(station, { ...context, ...change }).map(({ code }) => code);

// Facts of the trade: common practice, no source.
describe('cautions stand at the station where they matter', () => {
  it('a head brings its own eyewear, asked again for another wavelength', () => {
    expect(cautionCodes('mark')[0]).toBe('eyewear-near-infrared');
    expect(cautionCodes('place', { beam: 'blue' })).toContain('eyewear-blue');
    expect(cautionsFor('mark', context)[0]!.text).toContain('green pair marked 1064 nm');
  });

  it('wet coat, powder, hot glass, food, unattended laser', () => {
    expect(cautionCodes('coat')).toEqual(['wet-coat', 'lungs']);
    expect(cautionCodes('coat', { handling: 'loose powder' })).toContain('powder');
    expect(cautionCodes('mark', { handling: 'loose powder' })).toContain('powder');
    expect(cautionCodes('clean', { family: 'glass' })[0]).toBe('hot-glass');
    expect(cautionCodes('judge', { foodUse: true })).toContain('food');
    expect(cautionCodes('prove')).toContain('unattended');
  });

  it('names the fume of stainless, chrome and zinc, and lead in glaze', () => {
    expect(cautionsFor('mark', context).find(({ code }) => code === 'metal-fume')!.title).toContain('chromium');
    expect(
      cautionsFor('mark', { ...context, layer: 'chrome plate' }).find(({ code }) => code === 'metal-fume')!.title,
    ).toContain('hexavalent');
    expect(
      cautionsFor('mark', { ...context, family: 'galvanised' }).find(({ code }) => code === 'metal-fume')!.title,
    ).toContain('Zinc');
    expect(cautionCodes('choose', { family: 'glazed ceramic' })).toContain('lead');
  });

  it('each says whom to ask, and none calls a protection enough', () => {
    for (const station of STATIONS) {
      for (const family of ['stainless', 'glass', 'galvanised', 'glazed ceramic'] as const) {
        for (const caution of cautionsFor(station, { ...context, family, handling: 'loose powder', foodUse: true })) {
          expect(caution.text).toMatch(/\b[Aa]sk\b/);
          expect(`${caution.title} ${caution.text}`).not.toMatch(/sufficient|enough|safe\b|OD ?\d/i);
        }
      }
    }
  });
});
