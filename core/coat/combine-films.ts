import { decisive, makeFigure, supporting, type Figure } from '../evidence/figure.js';
import { CoreError } from '../support/core-error.js';

/** A film seen by several methods, and whether they can all be true of one even coat. */
export interface CombinedFilm {
  readonly film: Figure;
  /** Pairs of methods further apart than their intervals allow; labels as given. */
  readonly contradictions: readonly (readonly [string, string])[];
}

/** One reading of a film. A spot reading (comb, eye) sees one place, a weighing the mean of the batch. */
export interface FilmReading {
  readonly label: string;
  readonly film: Figure;
  readonly spot?: boolean | undefined;
}

/** Half width of a normal 90 % interval in standard deviations (standard tables). */
const Z90 = 1.645;
/** No reading is taken for surer than this, as a share: what spraying does from piece to piece. Common practice, no source. */
const LEAST_SPREAD = 0.03;
/** How much a film differs from place to place under one hand, as a share. Common practice, no source. */
const SPRAY_SPREAD = 0.12;
/** From this share of the weight on a reading decides the grade. */
const DECISIVE_WEIGHT = 0.3;

/**
 * Combines readings of one dry film, each with its interval, by weights inverse to their variances in ln film (films spread by
 * shares, not by µm). Readings further apart than two standard deviations of their difference are named as contradicting.
 * @throws value.not-positive without a reading
 * @example 9 µm (8-10) and 11 µm (10-12.1): 9.9 µm, no contradiction
 */
export function combineFilms(readings: readonly FilmReading[]): CombinedFilm {
  if (readings.length === 0) throw new CoreError('value.not-positive', 'No reading of the film was given.');
  const known = readings.map((reading) => ({ label: reading.label, film: reading.film, ...logNormal(reading) }));
  const total = known.reduce((sum, { variance }) => sum + 1 / variance, 0);
  const mean = known.reduce((sum, { mean: m, variance }) => sum + m / variance, 0) / total;
  const reach = Z90 / Math.sqrt(total);
  const film = makeFigure({
    formula: 'combineFilms',
    value: Math.exp(mean),
    unit: 'µm',
    interval: { low: Math.exp(mean - reach), high: Math.exp(mean + reach), level: 0.9 },
    inputs: known.map(({ label, film: one, variance }) =>
      (1 / variance / total >= DECISIVE_WEIGHT ? decisive : supporting)(label, one.grade, {
        value: Number(one.value.toPrecision(3)),
        unit: 'µm',
      }),
    ),
  });
  const contradictions = known.flatMap((a, i) =>
    known
      .slice(i + 1)
      .filter((b) => Math.abs(a.mean - b.mean) > 2 * Math.sqrt(a.variance + b.variance))
      .map((b) => [a.label, b.label] as const),
  );
  return { film: known.length === 1 ? known[0]!.film : film, contradictions };
}

function logNormal({ film: { value, interval }, spot }: FilmReading): { mean: number; variance: number } {
  const spread = interval ? Math.log(interval.high / Math.max(interval.low, value * 1e-3)) / (2 * Z90) : LEAST_SPREAD;
  const centre = interval ? Math.sqrt(Math.max(interval.low, value * 1e-3) * interval.high) : value;
  // A lopsided interval (a comb between its teeth) has its middle where the interval is, not where the value was set.
  const own = Math.max(spread, LEAST_SPREAD) ** 2;
  return { mean: Math.log(centre), variance: own + (spot ? SPRAY_SPREAD ** 2 : 0) };
}
