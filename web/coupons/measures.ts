import { aimedContrast, contrastRanges, retention, TYPICAL_PRINT, type CellMeasure, type Stage } from '@unto/core';
import type { Aim, CouponPictureEntries } from '@unto/contract';

/** A measure of a cell that is shown: its name, unit, digits, and the number in a reading; null where there is none. */
export interface ShownMeasure {
  readonly key: 'contrast' | 'deltaE' | 'chroma' | 'coverage' | 'evenness' | 'grain' | 'edgeUm';
  readonly name: string;
  readonly unit: string;
  readonly digits: number;
  of(measure: CellMeasure, tone: Aim['tone']): number | null;
}

const percent = (value: number | null) => (value === null ? null : 100 * value);

export const SHOWN_MEASURES: readonly ShownMeasure[] = [
  {
    key: 'contrast',
    name: 'contrast',
    unit: 'ΔL*',
    digits: 1,
    of: ({ contrast }, tone) => (contrast === null ? null : aimedContrast(contrast, tone)),
  },
  { key: 'deltaE', name: 'colour', unit: 'ΔE₀₀', digits: 1, of: ({ deltaE }) => deltaE },
  { key: 'chroma', name: 'tint', unit: 'C*', digits: 0, of: ({ chroma }) => chroma },
  { key: 'coverage', name: 'coverage', unit: '%', digits: 0, of: ({ coverage }) => percent(coverage) },
  { key: 'evenness', name: 'evenness', unit: '', digits: 2, of: ({ evenness }) => evenness },
  { key: 'grain', name: 'grain', unit: 'L*', digits: 1, of: ({ grain }) => grain },
  { key: 'edgeUm', name: 'edge, 10–90 %', unit: 'µm', digits: 0, of: ({ edgeUm }) => edgeUm },
];

export type StagePictures = Readonly<Record<Stage, CouponPictureEntries | null>>;

/** The lowest and the highest contrast of a cell by the aim, L*, whichever print its card may have; null where none was read. */
export function contrastSpan(
  entries: CouponPictureEntries,
  tone: Aim['tone'],
  cell: number,
): readonly [number, number] | null {
  const { lightness = null, bareLightness = null } = entries.cells[cell] ?? {};
  if (lightness === null || bareLightness === null) return null;
  const { low, high } = contrastRanges(entries.print ?? TYPICAL_PRINT)(bareLightness, lightness);
  const ends = [aimedContrast(low, tone), aimedContrast(high, tone)] as const;
  return [Math.min(...ends), Math.max(...ends)];
}

/** Share of the contrast of a cell that the scrub left; null where that cannot be said. */
export function keptShare({ rinsed, scrubbed }: StagePictures, cell: number): number | null {
  const [before, after] = [rinsed?.cells[cell]?.contrast ?? null, scrubbed?.cells[cell]?.contrast ?? null];
  return rinsed && before !== null && after !== null ? retention(before, after, rinsed.noise) : null;
}

/** A number as it is shown; a dash where there is none. */
export function shownNumber(value: number | null, digits: number): string {
  return value === null ? '–' : value.toFixed(digits);
}
