import { requirePositive } from '../support/require.js';
import { nextValue } from '../statistics/index.js';

/** Mass that one stroke lays, g, with the range that holds nine times in ten. */
export interface StrokeKnowledge {
  readonly gramsPerStroke: number;
  readonly low: number;
  readonly high: number;
  readonly weighings: number;
}

/** Usual for a hand-held aerosol: about a gram a second, a stroke of a second along a tray (common practice, no source). */
export const USUAL_STROKE: StrokeKnowledge = { gramsPerStroke: 0.9, low: 0.5, high: 1.5, weighings: 0 };

/**
 * Grams a stroke learnt from weighings with counted strokes, as a prediction interval; fewer than two leave the usual one.
 * @throws value.not-positive for no strokes
 */
export function learnStroke(samples: readonly { readonly grams: number; readonly strokes: number }[]): StrokeKnowledge {
  const rates = samples.map(({ grams, strokes }) => grams / requirePositive('strokes', strokes));
  if (rates.length < 2) return USUAL_STROKE;
  const { mean, reach } = nextValue(rates);
  return { gramsPerStroke: mean, low: Math.max(mean / 10, mean - reach), high: mean + reach, weighings: rates.length };
}

/** Strokes for a batch. */
export interface StrokePlan {
  /** Whole strokes in each coat, crossed from the second coat on. */
  readonly perCoat: number;
  readonly total: number;
  readonly low: number;
  readonly high: number;
}

/** Whole strokes that lay a mass in so many coats, at least one a coat. @param massG g @throws value.not-positive */
export function strokesFor(massG: number, coats: number, stroke: StrokeKnowledge): StrokePlan {
  requirePositive('mass', massG);
  requirePositive('coats', coats);
  const whole = (grams: number) => coats * Math.max(1, Math.round(massG / requirePositive('stroke', grams) / coats));
  const total = whole(stroke.gramsPerStroke);
  return { perCoat: total / coats, total, low: whole(stroke.high), high: whole(stroke.low) };
}
