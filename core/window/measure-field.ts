import { fitSurface } from '../statistics/gaussian-process.js';
import { TERM_SHAPES, variedTerms, type WindowPoint } from './window-terms.js';

/** What pictures tell of a mark besides whether it holds. */
export const MEASURES = ['contrast', 'chroma', 'grain', 'edgeUm'] as const;
export type Measure = (typeof MEASURES)[number];
/** Contrast in L* (signed: a dark mark on a light ground is positive), chroma in CIELAB, grain in L*, edge in µm; null where it could not be read. */
export type CellMeasures = Readonly<Record<Measure, number | null>>;

/** A cell with what its picture tells. */
export interface MeasuredCell extends WindowPoint {
  readonly measures?: CellMeasures | null | undefined;
}

/** What one measure is expected to be at a point. */
export interface Expected {
  readonly mean: number;
  /** Between these nine of ten marks made there are expected to read. */
  readonly low: number;
  readonly high: number;
}

/** A measure over the window, by the cells whose pictures tell it. */
export interface MeasureField {
  /** Cells it rests on. */
  readonly cells: number;
  mean(point: WindowPoint): number;
  at(point: WindowPoint): Expected;
}

/** Standard deviations either side that hold nine of ten. */
const NINE_OF_TEN = 1.645;
/** Fewer cells than this make no surface over power and speed. */
const LEAST_CELLS = 8;

const readBy = (cells: readonly MeasuredCell[], measure: Measure) =>
  cells.filter((cell) => typeof cell.measures?.[measure] === 'number');

/** Whether enough cells were read for a surface of a measure. */
export const isMeasured = (cells: readonly MeasuredCell[], measure: Measure): boolean =>
  readBy(cells, measure).length >= LEAST_CELLS;

/**
 * A smooth surface of one measure over power, speed, interval, passes and what cells varied besides; null where fewer than eight cells were
 * read. Marks that did not bond are in it: where they begin, contrast falls.
 * @throws value.not-positive, value.not-finite
 */
export function measureField(cells: readonly MeasuredCell[], measure: Measure): MeasureField | null {
  if (!isMeasured(cells, measure)) return null;
  const read = readBy(cells, measure);
  const terms = variedTerms(read);
  const place = (point: WindowPoint) => [
    Math.log(point.powerW),
    Math.log(point.speedMmPerS),
    Math.log(point.intervalMm),
    Math.log(point.passes * (point.hatches ?? 1)),
    ...terms.map((term) => TERM_SHAPES[term].read(point[term] ?? Number.NaN)),
  ];
  const surface = fitSurface(
    read.map(place),
    read.map((cell) => cell.measures![measure]!),
  );
  return {
    cells: read.length,
    mean: (point) => surface.mean(place(point)),
    at: (point) => {
      const { mean, sdOfReading } = surface.at(place(point));
      return { mean, low: mean - NINE_OF_TEN * sdOfReading, high: mean + NINE_OF_TEN * sdOfReading };
    },
  };
}
