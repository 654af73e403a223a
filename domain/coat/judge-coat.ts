import {
  combineFilms,
  filmChange,
  filmFromComb,
  judgeFilm,
  judgeInspection,
  type SprayTechnique,
  type CombinedFilm,
  type FilmChange,
  type FilmJudgement,
  type Figure,
  type InspectionFinding,
  type RecordRef,
} from '@unto/core';
import type { CoatEntriesOf, CoatReading, CoatReadingKind, CompoundBody, Weighing } from '@unto/contract';
import { bandOf } from './film-band.js';

/** What is known of one coat, taken together. */
export interface CoatVerdict extends CombinedFilm {
  readonly judgement: FilmJudgement;
  readonly findings: readonly InspectionFinding[];
  /** What to do next time; null when the film lies in its band. */
  readonly change: FilmChange | null;
}

/** The film behind a reading of a coat, and what its looks say. */
export function workOutCoatReading<K extends CoatReadingKind>(
  kind: K,
  entries: CoatEntriesOf[K],
  compound: CompoundBody,
  ref?: RecordRef,
): { film: Figure; findings: readonly InspectionFinding[] } {
  if (kind === 'comb') return { film: filmFromComb(entries as CoatEntriesOf['comb'], compound, ref), findings: [] };
  return judgeInspection(entries as CoatEntriesOf['inspection'], bandOf(compound));
}

/** Weighing, comb and looks of the newest coat as one verdict against the compound's band; null when nothing was read. */
export function judgeCoat(
  compound: CompoundBody,
  weighing: Weighing | null,
  readings: readonly CoatReading[],
): CoatVerdict | null {
  const newest = newestOfEach(readings.filter(({ weighingId }) => weighingId === (weighing?.id ?? null)));
  const films = [
    ...(weighing ? [{ label: 'weighing', film: weighing.film }] : []),
    ...newest.map(({ kind, film }) => ({ label: kind, film, spot: true })),
  ];
  if (films.length === 0) return null;
  const band = bandOf(compound);
  const combined = combineFilms(films);
  const { value, interval } = combined.film;
  return {
    ...combined,
    judgement: judgeFilm({ value, ...(interval ? { low: interval.low, high: interval.high } : {}) }, band),
    findings: newest.flatMap(({ findings }) => findings),
    change: filmChange(value, band, techniqueOf(compound, weighing?.strokes ?? null)),
  };
}

/** How a compound is held, with the strokes that were counted. */
export function techniqueOf(compound: CompoundBody, strokes: number | null): SprayTechnique {
  return {
    strokes,
    distanceMm: (compound.distanceMinMm + compound.distanceMaxMm) / 2,
    distanceMinMm: compound.distanceMinMm,
    distanceMaxMm: compound.distanceMaxMm,
  };
}

/** They come in the order in which they were entered. */
function newestOfEach(readings: readonly CoatReading[]): CoatReading[] {
  return [...new Map(readings.map((reading): [CoatReadingKind, CoatReading] => [reading.kind, reading])).values()];
}
