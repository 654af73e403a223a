import { Op } from 'sequelize';
import type { CreateFirstPiece, CreateMarking, CreatePieceEvent, CreateRun, EndMarking, Marking } from '@unto/contract';
import { countedMinutes, madePieces, markedNumbers, pieceNumbers, settingOnEquipment } from '@unto/domain';
import { newestBurn, requireNoBurn } from '../burns/burns.js';
import { createOnce, find, insert, list, NEWEST_FIRST, OLDEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError, fault } from '../errors/api-error.js';
import { loadEquipment } from '../inventory/service.js';
import { requireFitted } from '../place/fittings.js';
import { requireOf } from '../recipes/use.js';
import { logRun, requireReady, requireReworkOf } from '../runs/service.js';
import { countedOf } from '../samples/counted.js';

/**
 * Begins a run whose pieces are counted one by one. What is set and what stands on the bench is frozen here: this is when the beam fires.
 * @throws wrong-stage while another run of the ticket is counted
 */
export async function createMarking(context: Context, ticketId: string, request: CreateMarking): Promise<Marking> {
  await createOnce(context, 'marking', request, async () => {
    const ticket = await find(context, 'tickets', ticketId, { lock: true });
    await requireFitted(context, ticket);
    const [running] = await list(context, 'markings', { where: { ticketId, endedAt: null } });
    if (running)
      throw new ApiError(
        'wrong-stage',
        `A run of ${running.pieces} pieces is being counted on this ticket: count into it, or end it.`,
      );
    const { equipment, revisions } = await loadEquipment(context, ticket);
    settingOnEquipment(request, equipment);
    if (request.recipeId) requireOf(ticket, await find(context, 'recipes', request.recipeId));
    requireNumbers(request, ticket.pieces);
    await requireReworkOf(context, request.reworkId, ticketId);
    const open = await requireReady(context, { ...request, ticketId }, null);
    await insert(context, 'markings', {
      ...{ id: request.id, ticketId, recipeId: request.recipeId, pieces: request.pieces },
      ...{ entered: request, revisions, open, note: request.note },
      ...{ endedAt: null, runId: null, layoutId: ticket.layoutId, at: pressedAt(context), byId: context.actor },
    });
  });
  return getMarking(context, request.id);
}

/** @throws invalid-input at numbers that are not as many as there are pieces, or not of this ticket */
function requireNumbers({ numbers, pieces }: CreateMarking, most: number): void {
  if (!numbers) return;
  const said = pieceNumbers(numbers);
  if (!said) throw fault('numbers', 'Numbers and ranges with commas: 25-48, or 7, 31.');
  if (said.length !== pieces) throw fault('numbers', `Those are ${said.length} pieces; the run is of ${pieces}.`);
  const strange = said.find((number) => number > most);
  if (strange) throw fault('numbers', `This ticket has pieces 1 to ${most}; there is no ${strange}.`);
}

/** When it was pressed: earlier than now where it waited for a connection. */
const pressedAt = ({ now, agoMs = 0 }: Context) => new Date(now.getTime() - agoMs);

/** What was said of a piece. Two people may say the same of one; it is counted once. @throws wrong-stage once the run was ended */
export async function createPieceEvent(
  context: Context,
  markingId: string,
  request: CreatePieceEvent,
): Promise<Marking> {
  const marking = await find(context, 'markings', markingId, { lock: true });
  await createOnce(context, 'piece', request, async () => {
    const { id, piece, what, why, spot = null } = request;
    requireCounting(marking);
    if (piece > marking.pieces) throw fault('piece', `This run is of ${marking.pieces} pieces; there is no ${piece}.`);
    if ((what === 'set aside') !== (why !== null))
      throw fault('why', what === 'set aside' ? 'Say what went wrong with it.' : 'Only a piece set aside has a fault.');
    const at = pressedAt(context);
    await insert(context, 'pieceEvents', {
      ...{ id, markingId, piece, what, why, spot },
      ...{ at: at < marking.at ? marking.at : at, byId: context.actor },
    });
  });
  return markingView(context, marking);
}

export async function createFirstPiece(
  context: Context,
  markingId: string,
  request: CreateFirstPiece,
): Promise<Marking> {
  const marking = await find(context, 'markings', markingId);
  await createOnce(context, 'first piece', request, async () => {
    if (!madePieces(await countedOf(context, markingId)).length)
      throw new ApiError('wrong-stage', 'No piece of this run is done yet.');
    await insert(context, 'firstPieces', { ...request, markingId, at: pressedAt(context), byId: context.actor });
  });
  return markingView(context, marking);
}

/** Ends a run that was counted: its pieces, those set aside among them, become a run with the minutes that it took. */
export async function endMarking(context: Context, markingId: string, { runId }: EndMarking): Promise<Marking> {
  const marking = await find(context, 'markings', markingId, { lock: true });
  if (!marking.endedAt) {
    await requireNoBurn(context, { markingId });
    const view = await markingView(context, marking);
    const pieces = madePieces(view.counted).length;
    if (pieces > 0) {
      const { recipeId, blankId, note, reason, checked: _checked, numbers: _numbers, ...setting } = marking.entered;
      const run: CreateRun = {
        ...setting,
        ...{ id: runId, ticketId: marking.ticketId, recipeId, correctsId: null, pieces },
        ...(blankId ? { blankId } : {}),
        ...{ minutes: countedMinutes(view), note, reason },
      };
      await createOnce(context, 'run', run, () =>
        logRun(context, run, { revisions: marking.revisions, open: marking.open, minutesFrom: 'counted' }),
      );
    }
    await context.models.markings.update(
      { endedAt: context.now, runId: pieces > 0 ? runId : null },
      { where: { id: markingId }, transaction: context.transaction ?? null },
    );
  }
  return getMarking(context, markingId);
}

/** @throws wrong-stage once a run was ended */
export function requireCounting({ endedAt, runId }: Rows['markings']): void {
  if (!endedAt) return;
  throw new ApiError(
    'wrong-stage',
    runId
      ? 'This run was ended already, without this piece. If it was marked, correct the run’s pieces in the ledger.'
      : 'This run was ended before anything was counted. Begin another.',
  );
}

/** The run that is being counted on a ticket; null while none is. */
export async function markingOf(context: Context, ticketId: string): Promise<Marking | null> {
  const [open] = await list(context, 'markings', { where: { ticketId, endedAt: { [Op.is]: null } } });
  return open ? markingView(context, open) : null;
}

/** Runs that are being counted, on whatever ticket. */
export async function openMarkings(context: Context): Promise<Marking[]> {
  const rows = await list(context, 'markings', { where: { endedAt: { [Op.is]: null } }, order: OLDEST_FIRST });
  return Promise.all(rows.map((row) => markingView(context, row)));
}

export async function getMarking(context: Context, id: string): Promise<Marking> {
  return markingView(context, await find(context, 'markings', id));
}

async function markingView(context: Context, row: Rows['markings']): Promise<Marking> {
  const [first] = await list(context, 'firstPieces', {
    where: { markingId: row.id },
    order: NEWEST_FIRST,
    limit: 1,
  });
  const { id, ticketId, recipeId, pieces, at, byId, runId, endedAt, note, layoutId } = row;
  return {
    ...{ id, ticketId, recipeId, pieces, startedAt: at.toISOString(), startedBy: byId, runId, layoutId },
    ...{ ended: endedAt !== null, firstPiece: first?.result ?? null, note },
    checked: row.entered.checked,
    numbers: markedNumbers(row.entered),
    burn: await newestBurn(context, { markingId: row.id }),
    counted: await countedOf(context, row.id),
  };
}
