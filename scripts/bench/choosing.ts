import {
  CRITERIA,
  drawValueScores,
  estimateFromFigure,
  makeFigure,
  rankOptions,
  seededRandom,
  switchingPoints,
  type ChoiceOption,
  type Weights,
} from '@unto/core';
import { median, type Line } from './line.js';

/** Forty options by ten criteria under a moved weight: what the page does between two steps of a slider. */
export function ranking(): Line {
  const random = seededRandom(11);
  const options: ChoiceOption[] = Array.from({ length: 40 }, (_, o) => ({
    id: `option-${o}`,
    name: `option ${o}`,
    estimates: Object.fromEntries(
      CRITERIA.map((criterion) => {
        const value = 1 + 4 * random();
        const figure = makeFigure({
          formula: 'estimateFromSamples',
          value,
          unit: '',
          interval: { low: 0.9 * value, high: 1.1 * value, level: 0.9 },
          inputs: [],
        });
        return [criterion, estimateFromFigure(criterion, figure)];
      }),
    ) as ChoiceOption['estimates'],
  }));
  const drawn = drawValueScores(options, 1);
  const weights = Object.fromEntries(CRITERIA.map((criterion) => [criterion, 5])) as unknown as Weights;
  const time = median(41, () => switchingPoints(rankOptions(drawn, weights), weights));
  // The least that any ranking over the same draws must do: one weighted sum an option and draw.
  const bound = median(41, () => {
    const sums = new Float64Array(options.length * drawn.draws);
    for (let o = 0; o < options.length; o += 1)
      for (let c = 0; c < CRITERIA.length; c += 1)
        for (let d = 0; d < drawn.draws; d += 1)
          sums[o * drawn.draws + d]! += 10 * drawn.valueScores[(o * CRITERIA.length + c) * drawn.draws + d]!;
    return sums;
  });
  return {
    what: 'ranking, 40 options × 10 criteria × 400 draws',
    figure: `${time.toFixed(1)} ms with intervals, shares of wins and switching points`,
    against: `the weighted sums alone ${bound.toFixed(2)} ms`,
    ratio: `${(time / bound).toFixed(0)} × as long`,
    goal: '≤ 50 ms',
    met: time <= 50,
  };
}
