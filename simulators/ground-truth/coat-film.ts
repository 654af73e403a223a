import type { Random } from '@unto/core';

/** What can be wrong with the coat that the simulated camera sees. */
export const COAT_FAULTS = ['even', 'thin corner', 'run', 'touched', 'brush marks'] as const;
export type CoatFault = (typeof COAT_FAULTS)[number];

/** Film at a place of a coat (shares of its width and height, from its lower left corner) as a multiple of a good one. Invented. */
export type FilmTruth = (u: number, v: number) => number;

/** A coat by a hidden hand: gentle waves of the spray, and what went wrong. */
export function coatFilm(scene: CoatFault, size: { widthMm: number; heightMm: number }, random: Random): FilmTruth {
  const waves = Array.from({ length: 5 }, () => ({
    fx: 1 + 3 * random(),
    fy: 1 + 3 * random(),
    phase: 2 * Math.PI * random(),
    height: 0.012 + 0.012 * random(),
  }));
  const spray: FilmTruth = (u, v) =>
    1 +
    waves.reduce(
      (sum, { fx, fy, phase, height }) => sum + height * Math.sin(2 * Math.PI * (fx * u + fy * v) + phase),
      0,
    );
  const fault = FAULTS[scene](size);
  return (u, v) => Math.max(0, fault(u, v, spray(u, v)));
}

/** What went wrong with a coat, by itself: 1 where nothing did. */
export function coatSpoilt(scene: CoatFault, size: { widthMm: number; heightMm: number }): FilmTruth {
  const fault = FAULTS[scene](size);
  return (u, v) => Math.max(0, fault(u, v, 1));
}

type Spoil = (u: number, v: number, film: number) => number;

const FAULTS: Record<CoatFault, (size: { widthMm: number; heightMm: number }) => Spoil> = {
  even: () => (_u, _v, film) => film,
  'thin corner': () => (u, v, film) => film * (1 - 0.62 * Math.exp(-(((1 - u) / 0.22) ** 2) - ((1 - v) / 0.3) ** 2)),
  run:
    ({ widthMm, heightMm }) =>
    (u, v, film) => {
      const [x, y] = [(u - 0.35) * widthMm, v * heightMm];
      return film + (y > 0.25 * heightMm && y < 0.8 * heightMm ? 0.9 * Math.exp(-((x / 1.3) ** 2)) : 0);
    },
  touched:
    ({ widthMm, heightMm }) =>
    (u, v, film) => {
      const [x, y] = [(u - 0.55) * widthMm, (v - 0.5) * heightMm];
      return film * (1 - 0.9 * Math.exp(-(((x / 4.6) ** 2 + (y / 5.4) ** 2) ** 2)));
    },
  'brush marks':
    ({ heightMm }) =>
    (_u, v, film) =>
      film * (1 + 0.17 * Math.sin((2 * Math.PI * v * heightMm) / 4.2)),
};
