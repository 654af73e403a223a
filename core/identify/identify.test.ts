import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HANDBOOK } from '../materials/handbook.js';
import { densityFromWeighing } from './density.js';
import { identifyPart } from './identify-part.js';
import { PART_GUESSES } from './parts.js';
import { WORD_TESTS, type Observations, type WordTest } from './tests.js';

const top = (observations: Observations) => identifyPart(observations).ranked[0]!;
const chance = (observations: Observations, key: string) =>
  identifyPart(observations).ranked.find(({ guess }) => guess.key === key)!.probability;

// What tells one part from another: common practice, no source.
describe('what a part is', () => {
  it('tells plating from lacquer: plate conducts and stands acetone, lacquer does neither', () => {
    const yellow = { colour: 'yellow or gold', magnet: 'does not pull' } as const;
    expect(
      top({ words: { ...yellow, conductivity: 'does not conduct', solvent: 'a clear skin goes tacky' } }),
    ).toMatchObject({
      guess: { key: 'brass-lacquered' },
    });
    const plated = {
      colour: 'bright silver',
      magnet: 'does not pull',
      conductivity: 'conducts',
      solvent: 'nothing',
    } as const;
    const { guess, probability } = top({
      words: { ...plated, scratch: 'metal of another colour', edge: 'yellow or red-brown' },
      density: { value: 8.4, error: 0.02 },
    });
    expect([guess.layer.endsWith('plate'), guess.family]).toEqual([true, 'brass']);
    expect(probability).toBeGreaterThan(0.4);
  });

  it('tells anodised from bare aluminium by the surface that does not conduct', () => {
    const light = { value: 2.7, error: 0.03 };
    expect(
      top({
        words: { conductivity: 'does not conduct', solvent: 'nothing', scratch: 'hard pale line, metal beneath' },
        density: light,
      }).guess.key,
    ).toBe('aluminium-anodised');
    expect(
      top({ words: { conductivity: 'conducts', solvent: 'nothing', scratch: 'same metal through' }, density: light })
        .guess.key,
    ).toBe('aluminium');
  });

  it('tells 304 from 430 stainless by the magnet', () => {
    const words = {
      colour: 'bright silver',
      solvent: 'nothing',
      rust: 'none',
      scratch: 'same metal through',
      edge: 'as the surface',
    } as const;
    const density = { value: 7.95, error: 0.02 };
    expect(top({ words: { ...words, magnet: 'does not pull' }, density }).guess.key).toBe('stainless-304');
    expect(top({ words: { ...words, magnet: 'pulls strongly' }, density }).guess.key).toBe('stainless-430');
  });

  it('warns of PVC as long as it may be acrylic, and settles it by weight', () => {
    const white = {
      words: { colour: 'white', scratch: 'soft shaving, same colour', conductivity: 'does not conduct' },
    } as const;
    expect(identifyPart(white).dangers[0]!.guess.danger).toMatch(/never lasered/);
    expect(chance({ ...white, density: { value: 1.39, error: 0.02 } }, 'pvc')).toBeGreaterThan(0.95);
    expect(chance({ ...white, density: { value: 1.18, error: 0.02 } }, 'acrylic')).toBeGreaterThan(0.9);
  });

  it('warns of cadmium, chrome, zinc and beryllium copper wherever they are not ruled out', () => {
    const dangers = identifyPart({ words: {} }).dangers.map(({ guess }) => guess.key);
    for (const key of ['steel-chrome', 'brass-chrome', 'galvanised', 'pvc', 'zinc-chrome'])
      expect(dangers).toContain(key);
    const yellow = identifyPart({ words: { colour: 'yellow or gold' } }).dangers.map(({ guess }) => guess.key);
    expect(yellow).toEqual(expect.arrayContaining(['beryllium-copper', 'steel-cadmium']));
    for (const key of [
      'steel-cadmium',
      'beryllium-copper',
      'pvc',
      'galvanised',
      'zinc-chrome',
      'brass-chrome',
      'steel-chrome',
    ])
      expect(PART_GUESSES.find((guess) => guess.key === key)!.danger).toBeTruthy();
  });

  it('says that a density fits nothing, keeps the rest, and does not count it', () => {
    const words = { magnet: 'pulls strongly' } as const;
    const odd = identifyPart({ words, density: { value: 19.3, error: 0.02 } });
    expect(odd.unfit[0]).toMatch(/19\.3 g\/cm³ fits nothing/);
    expect(odd.ranked).toEqual(identifyPart({ words }).ranked);
  });

  it('names the most telling test first, and prefers one that spares the part', () => {
    const fresh = identifyPart({ words: {} });
    expect(fresh.next[0]!.harm).toBe('spares the part');
    expect(fresh.next.map(({ test }) => test)).toHaveLength(Object.keys(WORD_TESTS).length + 1);
    const [first] = identifyPart({ words: { colour: 'white', scratch: 'soft shaving, same colour' } }).next;
    expect(first!.test).toBe('density');
  });

  it('keeps probabilities that sum to 1, and expects every test to tell something or nothing, never less', () => {
    const answers = fc.record(
      Object.fromEntries(
        (Object.keys(WORD_TESTS) as WordTest[]).map((test) => [test, fc.constantFrom(...WORD_TESTS[test].answers)]),
      ),
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(answers, (words) => {
        const found = identifyPart({ words: words as Observations['words'] });
        expect(found.ranked.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9);
        for (const { bits } of found.next) expect(bits).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 60 },
    );
  });

  it('refuses an answer that is none of its test’s, and a density of nothing', () => {
    expect(() => identifyPart({ words: { magnet: 'sings' as never } })).toThrow(/no answer to Magnet/);
    expect(() => identifyPart({ words: {}, density: { value: 0, error: 0.02 } })).toThrow(/above 0/);
  });

  it('has densities that agree with the handbook table', () => {
    for (const guess of PART_GUESSES.filter(({ key }) => key !== 'enamel')) {
      const near = HANDBOOK.filter(({ family }) => family === guess.family).map(
        ({ density }) => Math.abs(density - guess.density) / density,
      );
      expect(Math.min(...near), guess.key).toBeLessThan(0.03);
    }
  });
});

describe('density from a weighing', () => {
  it('works out a sheet and a sunk part with how far they may be off', () => {
    // 50 × 40 × 1.2 mm = 2.4 cm³; 19.2 g ÷ 2.4 = 8.0
    const sheet = densityFromWeighing(19.2, { by: 'sheet', lengthMm: 50, widthMm: 40, thicknessMm: 1.2 });
    expect(sheet.value).toBeCloseTo(8, 9);
    expect(sheet.error).toBeGreaterThan(0.02);
    expect(sheet.error).toBeLessThan(0.04);
    expect(densityFromWeighing(84.5, { by: 'water', displacedMl: 10 }).value).toBeCloseTo(8.45, 9);
  });

  it('refuses nothing weighed and a volume too coarse to tell', () => {
    expect(() => densityFromWeighing(0, { by: 'water', displacedMl: 10 })).toThrow(/above 0/);
    expect(() => densityFromWeighing(5, { by: 'water', displacedMl: 0.6 })).toThrow(/between 0 and 0.5/);
  });
});
