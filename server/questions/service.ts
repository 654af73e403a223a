import type { AskedQuestion, EndQuestion, StationQuestion, Ticket } from '@unto/contract';
import { asksOf, isAnswered, type Answers } from '@unto/domain';
import { createOnce, find, insert, list, NEWEST_FIRST, type Context } from '../db/context.js';
import { ApiError } from '../errors/api-error.js';

/** Questions that the shop asks or asked, newest first. */
export async function stationQuestions(context: Context): Promise<StationQuestion[]> {
  const rows = await list(context, 'stationQuestions', { order: NEWEST_FIRST });
  const ended = new Set((await list(context, 'stationQuestionEnds')).map(({ questionId }) => questionId));
  return rows.map(({ at, byId, ...row }) => ({ ...row, at: at.toISOString(), by: byId, ended: ended.has(row.id) }));
}

type AskedTicket = Pick<Ticket, 'id' | 'compoundId' | 'substrateId' | 'markWidthMm' | 'markHeightMm'>;

/**
 * Questions that are asked of some tickets now, oldest first, and whether each was answered.
 * @param answers ticks of a ticket, and what is fitted to its machine
 */
export async function askedOf(
  context: Context,
  tickets: readonly AskedTicket[],
  answers: (ticketId: string) => Omit<Answers, 'lastRunSequence'>,
): Promise<ReadonlyMap<string, AskedQuestion[]>> {
  const asked = (await stationQuestions(context)).filter(({ ended }) => !ended).reverse();
  const last = asked.length ? await lastRuns(context, tickets) : new Map<string, number>();
  return new Map(
    tickets.map((ticket) => {
      const own = { ...answers(ticket.id), lastRunSequence: last.get(ticket.id) ?? null };
      const of = asked.filter((question) => asksOf(question, ticket));
      return [
        ticket.id,
        of.map(({ ended: _ended, ...question }) => ({ ...question, answered: isAnswered(question, own) })),
      ];
    }),
  );
}

/** Place of the newest run of each ticket in the order of all that happened. */
async function lastRuns(context: Context, tickets: readonly AskedTicket[]): Promise<Map<string, number>> {
  if (!tickets.length) return new Map();
  const [rows] = (await context.sequelize.query(
    'SELECT ticket_id AS id, max(sequence)::float8 AS sequence FROM runs WHERE ticket_id IN (:ids) GROUP BY ticket_id',
    { replacements: { ids: tickets.map(({ id }) => id) }, transaction: context.transaction ?? null },
  )) as unknown as [{ id: string; sequence: number }[]];
  return new Map(rows.map(({ id, sequence }) => [id, sequence]));
}

export async function endQuestion(context: Context, id: string, request: EndQuestion): Promise<StationQuestion[]> {
  await createOnce(context, 'question end', request, async () => {
    await find(context, 'stationQuestions', id, { lock: true });
    const [ended] = await list(context, 'stationQuestionEnds', { where: { questionId: id }, limit: 1 });
    if (ended) throw new ApiError('wrong-stage', 'That question is asked no more already.');
    await insert(context, 'stationQuestionEnds', {
      ...{ id: request.id, questionId: id, why: request.why.trim() },
      ...{ at: context.now, byId: context.actor },
    });
  });
  return stationQuestions(context);
}
