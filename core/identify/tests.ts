/** Quick tests answered in words, and what each may show. */
export const WORD_TESTS = {
  colour: {
    name: 'Surface colour',
    how: 'Look at it by daylight, after wiping.',
    harm: 'spares the part',
    minutes: 0.2,
    answers: [
      'bright silver',
      'dull silver',
      'spangled grey',
      'yellow or gold',
      'red-brown',
      'black',
      'white',
      'clear',
      'other colour',
    ],
  },
  magnet: {
    name: 'Magnet',
    how: 'Hang a small magnet on a string beside it.',
    harm: 'spares the part',
    minutes: 0.3,
    answers: ['pulls strongly', 'pulls weakly', 'does not pull'],
  },
  conductivity: {
    name: 'Surface conductivity',
    how: 'Ohm range, both probes laid on lightly, not pressed through.',
    harm: 'spares the part',
    minutes: 0.5,
    answers: ['conducts', 'does not conduct'],
  },
  edge: {
    name: 'Edge colour',
    how: 'Look where it was cut or drilled, with a glass.',
    harm: 'spares the part',
    minutes: 0.3,
    answers: [
      'as the surface',
      'silvery under a colour',
      'yellow or red-brown',
      'dark steel or rust',
      'glassy or earthen',
    ],
  },
  rust: {
    name: 'Rust or bloom',
    how: 'Look at corners and holes.',
    harm: 'spares the part',
    minutes: 0.2,
    answers: ['none', 'red rust', 'white bloom'],
  },
  solvent: {
    name: 'Acetone wipe',
    how: 'One drop on a rag, gloves on, away from flame, on a hidden spot.',
    harm: 'may mark a hidden spot',
    minutes: 1,
    answers: ['nothing', 'softens or comes off', 'a clear skin goes tacky'],
  },
  scratch: {
    name: 'Hidden scratch',
    how: 'A steel needle, hard, where nobody looks. Not on a part that may be cadmium plated or beryllium copper.',
    harm: 'marks a hidden spot',
    minutes: 0.5,
    answers: [
      'same metal through',
      'metal of another colour',
      'flakes or chips to metal',
      'a clear skin curls off',
      'hard pale line, metal beneath',
      'soft shaving, same colour',
      'no scratch',
    ],
  },
} as const;

export type WordTest = keyof typeof WORD_TESTS;
export type TestAnswer<T extends WordTest = WordTest> = (typeof WORD_TESTS)[T]['answers'][number];

/** The numeric test: weight against volume. */
export const DENSITY_TEST = {
  name: 'Weight against volume',
  how: 'Weigh it, then measure it or sink it on a thread and weigh the water it pushes away (1 g is 1 cm³).',
  harm: 'spares the part',
  minutes: 3,
} as const;

export type TestKey = WordTest | 'density';

/** What was seen of a part. Densities in g/cm³ with the share they may be off (0.03 = ± 3 %, one standard deviation). */
export interface Observations {
  readonly words: { readonly [T in WordTest]?: TestAnswer<T> };
  readonly density?: { readonly value: number; readonly error: number } | undefined;
}
