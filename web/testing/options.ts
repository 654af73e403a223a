import {
  CRITERIA,
  CRITERION_INFO,
  decisive,
  estimateFromFigure,
  makeFigure,
  missingEstimate,
  type ChoiceOption,
  type Criterion,
} from '@unto/core';

const MIDDLING: Record<Criterion, number> = {
  contrast: 3,
  rate: 20,
  evenness: 3,
  cleaning: 1,
  handling: 5,
  durability: 0.6,
  cost: 2,
  availability: 5,
  help: 5,
  trackRecord: 5,
};

/** An option that is middling in everything but what a test changes; null stands for what nobody knows. */
export function middlingOption(name: string, change: Partial<Record<Criterion, number | null>> = {}): ChoiceOption {
  const estimates = Object.fromEntries(
    CRITERIA.map((criterion) => {
      const value = criterion in change ? change[criterion]! : MIDDLING[criterion];
      if (value === null) return [criterion, missingEstimate(criterion, 'coupon needed', [1, 4])];
      const { unit } = CRITERION_INFO[criterion];
      const inputs = [decisive('run', 'proved')];
      return [
        criterion,
        estimateFromFigure(criterion, makeFigure({ formula: 'estimateFromSamples', value, unit, inputs })),
      ];
    }),
  ) as ChoiceOption['estimates'];
  return { id: name, name, estimates };
}
