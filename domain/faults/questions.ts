import type { Check, Fitting, StationQuestion, Ticket } from '@unto/contract';
import { holdsUnder } from '../place/fittings.js';

/** Code under which a question is ticked as a check of its station. */
export const questionCode = ({ id }: Pick<StationQuestion, 'id'>): string => `question-${id}`;

/** Whether a question is asked of a ticket. */
export function asksOf(
  { compoundId, substrateId, longerThanMm }: Pick<StationQuestion, 'compoundId' | 'substrateId' | 'longerThanMm'>,
  ticket: Pick<Ticket, 'compoundId' | 'substrateId' | 'markWidthMm' | 'markHeightMm'>,
): boolean {
  if (compoundId !== null && compoundId !== ticket.compoundId) return false;
  if (substrateId !== null && substrateId !== ticket.substrateId) return false;
  return longerThanMm === null || Math.max(ticket.markWidthMm, ticket.markHeightMm) >= longerThanMm;
}

/** What bears on whether a question was answered: ticks of the ticket, what is fitted, and the place of its newest run in the order of things. */
export interface Answers {
  readonly checks: readonly Pick<Check, 'station' | 'kind' | 'code' | 'sequence'>[];
  readonly fitting: Pick<Fitting, 'sequence'> | null;
  readonly lastRunSequence: number | null;
}

/** Whether a question of a ticket was answered: at Mark before every run anew, at Place after every change of head too. */
export function isAnswered(
  question: Pick<StationQuestion, 'id' | 'station'>,
  { checks, fitting, lastRunSequence }: Answers,
): boolean {
  const eachRun = question.station === 'mark';
  return checks.some(
    (check) =>
      check.kind === 'check' &&
      check.code === questionCode(question) &&
      holdsUnder(check, fitting) &&
      (!eachRun || lastRunSequence === null || check.sequence > lastRunSequence),
  );
}
