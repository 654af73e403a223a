import { weakestGrade } from '@unto/core';
import type { CreateVerdict, Verdict } from '@unto/contract';
import { isBelowProved } from '@unto/domain';
import { createOnce, find, insert, list, NEWEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError, fault } from '../errors/api-error.js';

/**
 * Decides on a ticket's pieces. Handed over, the ticket is done; below Proved somebody must stand for it.
 * @throws wrong-stage while a run is not judged, or nothing was marked
 */
export async function createVerdict(context: Context, ticketId: string, request: CreateVerdict): Promise<Verdict[]> {
  await createOnce(context, 'verdict', request, async () => {
    const ticket = await find(context, 'tickets', ticketId, { lock: true });
    const runs = await list(context, 'standingRuns', { where: { ticketId } });
    if (!runs.length) throw new ApiError('wrong-stage', 'Nothing is marked on this ticket yet.');
    const open = runs.filter(({ judged }) => !judged).length;
    if (open) throw new ApiError('wrong-stage', `${open === 1 ? 'A run is' : `${open} runs are`} not judged yet.`);
    const grade = weakestGrade(runs.map((run) => run.grade));
    const belowProved = isBelowProved(grade);
    const good = runs.reduce((sum, run) => sum + Math.min(run.pieces, run.piecesGood ?? 0), 0);
    requireWords(request, { good, wanted: ticket.pieces });
    if (request.verdict !== 'rework' && belowProved && !request.standsForIt)
      throw fault('standsForIt', 'Not all of it is proved: whoever hands it over stands for it by name.');
    await insert(context, 'verdicts', {
      ...{ id: request.id, ticketId, verdict: request.verdict, exceptions: request.exceptions.trim(), grade, good },
      ...{ pieces: ticket.pieces, belowProved, at: context.now, byId: context.actor },
    });
    await setState(context, ticket, request.verdict === 'rework' ? 'open' : 'done');
  });
  return verdictsOf(context, ticketId);
}

function requireWords(
  { verdict, exceptions }: CreateVerdict,
  { good, wanted }: { good: number; wanted: number },
): void {
  if (verdict === 'hand over with exceptions' && !exceptions.trim())
    throw fault('exceptions', 'Name the exceptions: which pieces, and what of them.');
  if (verdict === 'hand over' && good < wanted)
    throw fault(
      'verdict',
      `${good} of ${wanted} pieces are good: hand over with exceptions, or make the others again.`,
    );
}

async function setState(context: Context, ticket: Rows['tickets'], state: 'open' | 'done'): Promise<void> {
  if (ticket.state === state) return;
  await context.models.tickets.update(
    { state, version: ticket.version + 1, changedAt: context.now },
    { where: { id: ticket.id }, transaction: context.transaction ?? null },
  );
}

/** Verdicts on a ticket, newest first. */
export async function verdictsOf(context: Context, ticketId: string): Promise<Verdict[]> {
  const rows = await list(context, 'verdicts', { where: { ticketId }, order: NEWEST_FIRST });
  return rows.map(({ at, byId, ...row }) => ({ ...row, at: at.toISOString(), by: byId }));
}
