import { CoreError, densityFromWeighing, massToG, type Observations, type TestAnswer, type WordTest } from '@unto/core';
import type { WeighedPart } from '@unto/contract';

/** What is being entered of a part; NaN for a measure not typed yet. */
export interface Sighting {
  readonly label: string;
  readonly words: { readonly [T in WordTest]?: TestAnswer<T> };
  readonly weigh: boolean;
  readonly mass: { readonly value: number; readonly unit: 'g' | 'oz' };
  readonly by: 'sheet' | 'water';
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly thicknessMm: number;
  readonly displacedMl: number;
}

export function emptySighting(label: string): Sighting {
  const untyped = Number.NaN;
  return {
    label,
    words: {},
    weigh: false,
    mass: { value: untyped, unit: 'g' },
    by: 'sheet',
    lengthMm: untyped,
    widthMm: untyped,
    thicknessMm: untyped,
    displacedMl: untyped,
  };
}

/** The density as far as it is typed, or the words of what is wrong with it; null while nothing is. */
export function densityOf(
  sighting: Sighting,
): { density: NonNullable<Observations['density']> } | { fault: string } | null {
  const { mass, by, lengthMm, widthMm, thicknessMm, displacedMl } = sighting;
  const measures = by === 'sheet' ? [lengthMm, widthMm, thicknessMm] : [displacedMl];
  if (!sighting.weigh || [mass.value, ...measures].some(Number.isNaN)) return null;
  try {
    const volume = by === 'sheet' ? { by, lengthMm, widthMm, thicknessMm } : { by, displacedMl };
    return { density: densityFromWeighing(massToG(mass.value, mass.unit), volume) };
  } catch (error) {
    if (error instanceof CoreError) return { fault: error.message };
    throw error;
  }
}

/** A sighting as the core takes it. */
export function observationsOf(sighting: Sighting): Observations {
  const found = densityOf(sighting);
  return { words: sighting.words, ...(found && 'density' in found ? { density: found.density } : {}) };
}

/** The weighing as it is sent: the measures that belong to how the volume was found, null for the others. */
export function weighedOf(sighting: Sighting): WeighedPart | null {
  const found = densityOf(sighting);
  if (!found || 'fault' in found) return null;
  const { mass, by, lengthMm, widthMm, thicknessMm, displacedMl } = sighting;
  return by === 'sheet'
    ? { mass, by, lengthMm, widthMm, thicknessMm, displacedMl: null }
    : { mass, by, lengthMm: null, widthMm: null, thicknessMm: null, displacedMl };
}

/** How much a test would tell, in a word. @param bits expected fall of the uncertainty */
export function tellingWord(bits: number): string {
  if (bits >= 1) return 'tells a lot';
  if (bits >= 0.4) return 'tells something';
  return bits >= 0.1 ? 'tells a little' : 'tells nothing new';
}

/** A probability as people say it. */
export function chanceText(probability: number): string {
  if (probability >= 0.995) return '>99 %';
  return probability < 0.005 ? '<1 %' : `${Math.round(100 * probability)} %`;
}

const HARM_SHORT: Record<string, string> = {
  'spares the part': 'spares it',
  'may mark a hidden spot': 'may mark it',
  'marks a hidden spot': 'marks it',
};

/** What a test does to the part, short enough to stand beside its name. */
export function harmWord(harm: string): string {
  return HARM_SHORT[harm] ?? harm;
}
