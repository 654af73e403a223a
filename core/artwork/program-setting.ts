import type { RowMotion } from '../time/raster.js';

/** What of an artwork is marked: its fills by rows, its lines followed, or both. */
export const ARTWORK_WORKS = ['fill', 'lines', 'both'] as const;
export type ArtworkWork = (typeof ARTWORK_WORKS)[number];

/** What of a setting decides how long a path takes. */
export interface PathSetting {
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  readonly passes: number;
  readonly hatches: number;
  readonly directions: 'one-way' | 'two-way';
}

/** What of a setting a program is made by. */
export interface ProgramSetting extends PathSetting {
  readonly powerPercent: number;
  readonly angleDeg: number;
}

/** How an artwork is marked on some machine. */
export interface MarkedAs {
  readonly motion: RowMotion;
  readonly work: ArtworkWork;
  /** The outlines of what is filled are followed first. */
  readonly outlineFirst: boolean;
}
