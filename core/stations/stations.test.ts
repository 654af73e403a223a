import { describe, expect, it } from 'vitest';
import { cautionsFor, STATIONS, type CautionContext } from '../cautions/index.js';
import { placeChecks, prepareChecks } from './checks.js';
import { nextStation, stationLine, type TicketFacts } from './station-line.js';

const fresh: TicketFacts = {
  pieces: 10,
  compoundName: null,
  choiceMade: false,
  prepareDone: 0,
  prepareNeeded: 4,
  placeDone: 0,
  placeNeeded: 3,
  coatedPieces: 0,
  stored: null,
  otherHead: null,
  dryingLeftS: null,
  coupon: 'none',
  recipe: null,
  markedPieces: 0,
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
    expect(stateOf({ ...done, coatedPieces: 4 }, 'coat')).toMatchObject({ state: 'open', word: '4 of 10' });
    expect(stateOf({ ...done, compoundName: null }, 'coat')).toMatchObject({ state: 'done', word: 'none needed' });
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
    expect(cautionCodes('coat')).toEqual(['wet-coat']);
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
