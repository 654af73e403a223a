import type { PastRun } from '@unto/contract';
import { PAST_OUTCOME_WORDS } from '@unto/domain';
import { formatDay, withUnit } from '../ui/format';

/** A run of before the record began, as far as it was written down. */
export function pastWords(past: PastRun | null | undefined): string {
  if (!past) return '';
  const { on, pieces, minutes, outcome } = past;
  return [
    on && formatDay(on),
    pieces && `${pieces} piece${pieces === 1 ? '' : 's'}`,
    minutes && withUnit(minutes, 'min'),
    outcome && PAST_OUTCOME_WORDS[outcome],
  ]
    .filter(Boolean)
    .join(' · ');
}
