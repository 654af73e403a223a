import { CRITERION_INFO, decisive, makeFigure, supporting, type Figure, type RankedOption } from '@unto/core';

/** A score term by term, for the evidence sheet; its grade is the weakest among what counts, a missing number being a guess. */
export function scoreFigure({ option, score, low, high, terms }: RankedOption): Figure {
  return makeFigure({
    formula: 'rankOptions',
    value: score,
    unit: 'of 100',
    interval: { low, high, level: 0.9 },
    inputs: terms.map(({ criterion, weight, valueScore, points }) => {
      const { figure } = option.estimates[criterion];
      const label = `${CRITERION_INFO[criterion].label}: ${Math.round(100 * weight)} % × value ${valueScore.toFixed(2)}`;
      const term = weight > 0 ? decisive : supporting;
      return term(label, figure?.grade ?? 'guess', { value: Number(points.toFixed(1)), unit: 'points' });
    }),
  });
}
