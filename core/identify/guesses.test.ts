import { describe, expect, it } from 'vitest';
import { identifyPart } from './identify-part.js';
import { PART_GUESSES, type PartGuess } from './parts.js';
import { WORD_TESTS, type Observations, type WordTest } from './tests.js';

/** The answers a part of this kind most often gives, to the tests that say something of it. */
function typicalAnswers(guess: PartGuess): Observations['words'] {
  return Object.fromEntries(
    (Object.keys(WORD_TESTS) as WordTest[]).flatMap((test) => {
      const shown = guess.shows[test] as Record<string, number> | undefined;
      const best = shown && Object.entries(shown).sort((a, b) => b[1] - a[1])[0];
      return best ? [[test, best[0]]] : [];
    }),
  ) as Observations['words'];
}

describe('every guess', () => {
  // Cadmium among nickel and zinc, beryllium copper among brass: no quick test tells those, so they are held to being named below.
  it.each(PART_GUESSES.filter(({ key }) => !['steel-cadmium', 'beryllium-copper'].includes(key)))(
    '$name is found again from its own typical answers and weight',
    (guess) => {
      const { ranked } = identifyPart({ words: typicalAnswers(guess), density: { value: guess.density, error: 0.02 } });
      const own = ranked.find((entry) => entry.guess.key === guess.key)!;
      // A few kinds are twins to the eye: then the right one is among the first two.
      expect(
        ranked.indexOf(own),
        ranked
          .slice(0, 3)
          .map((entry) => `${entry.guess.key} ${entry.probability}`)
          .join(),
      ).toBeLessThan(2);
      expect(own.probability).toBeGreaterThan(0.2);
    },
  );

  it.each(PART_GUESSES.filter(({ danger }) => danger))(
    '$name is named as a danger when it is what was seen',
    (guess) => {
      const { dangers } = identifyPart({
        words: typicalAnswers(guess),
        density: { value: guess.density, error: 0.02 },
      });
      expect(dangers.map((entry) => entry.guess.key)).toContain(guess.key);
    },
  );

  it.each(PART_GUESSES)('$name speaks only of answers its tests have, with chances between 0 and 1', (guess) => {
    for (const [test, shown] of Object.entries(guess.shows))
      for (const [answer, chance] of Object.entries(shown as Record<string, number>)) {
        expect((WORD_TESTS[test as WordTest].answers as readonly string[]).includes(answer), `${test}: ${answer}`).toBe(
          true,
        );
        expect(chance).toBeGreaterThan(0);
        expect(chance).toBeLessThanOrEqual(1);
      }
    expect(guess.prior).toBeGreaterThan(0);
  });

  it('have keys and names of their own', () => {
    expect(new Set(PART_GUESSES.map(({ key }) => key)).size).toBe(PART_GUESSES.length);
    expect(new Set(PART_GUESSES.map(({ name }) => name)).size).toBe(PART_GUESSES.length);
  });

  it('follow the advice: a part is settled in at most five tests when each next one is made', () => {
    const unsettled: string[] = [];
    for (const guess of PART_GUESSES) {
      const typical = typicalAnswers(guess) as Record<string, string>;
      let observations: Observations = { words: {} };
      for (let made = 0; made < 5; made += 1) {
        const { next } = identifyPart(observations);
        const test = next.find((entry) => entry.test === 'density' || typical[entry.test])!.test;
        observations =
          test === 'density'
            ? { ...observations, density: { value: guess.density, error: 0.02 } }
            : { ...observations, words: { ...observations.words, [test]: typical[test] } };
      }
      const { ranked } = identifyPart(observations);
      if (!ranked.slice(0, 2).some((entry) => entry.guess.key === guess.key)) unsettled.push(guess.key);
    }
    expect(unsettled).toEqual([]);
  });
});
