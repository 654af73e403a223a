import { CRITERION_INFO, type CoatHandling, type Criterion, type CriterionEstimate } from '@unto/core';
import { formatFigure, withUnit } from '../ui/format';

const TOUCH: Record<CoatHandling, string> = {
  'can be touched': 'touch',
  'rubs off': 'rubs off',
  'loose powder': 'powder',
};

/** What a coat allows before firing, in a few words: touch and days. */
export function handlingText(coat: { handling: CoatHandling; shelfLifeDays: number | null } | null): string {
  if (!coat) return 'no coat';
  return `${TOUCH[coat.handling]} ${coat.shelfLifeDays === null ? 'keeps' : withUnit(coat.shelfLifeDays, 'd')}`;
}

/** A criterion's number as it stands under its bar; the missing one says what would fill it. */
export function cellText(estimate: CriterionEstimate, currency: string): string {
  const { figure, criterion, wanted } = estimate;
  return figure ? valueText(criterion, figure.value, currency) : (wanted ?? 'not known');
}

/** A number of a criterion with its unit, short enough for a column. */
export function valueText(criterion: Criterion, value: number, currency: string): string {
  switch (criterion) {
    case 'durability':
      return `${Math.round(100 * value)} %`;
    case 'cost':
      return withUnit(Number(value.toFixed(2)), currency);
    case 'cleaning':
      return withUnit(Number(formatFigure(value, 2)), 'min');
    case 'rate':
      // An ordinary space: in a narrow column the unit goes to the next line.
      return `${Number(formatFigure(value, 2))} cm²/min`;
    default:
      return `${value < 0 ? '−' : ''}${Math.abs(value).toFixed(1)} ${CRITERION_INFO[criterion].unit}`;
  }
}
