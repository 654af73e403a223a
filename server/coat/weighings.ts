import { Op } from 'sequelize';
import { CoreError, type Application } from '@unto/core';
import type { CreateWeighing, Weighing } from '@unto/contract';
import { learntTransfer, workOutWeighing, type TransferSample } from '@unto/domain';
import { type Context, createOnce, find, insert, list, NEWEST_FIRST, OLDEST_FIRST } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { inventoryItem } from '../inventory/service.js';
import { potLifeOver } from '../timers/service.js';

/** Enters a weighing and judges the film it means, from the transfer efficiency that this compound's earlier weighings taught. */
export async function createWeighing(context: Context, ticketId: string, request: CreateWeighing): Promise<Weighing> {
  await createOnce(context, 'weighing', request, async () => {
    const ticket = await find(context, 'tickets', ticketId);
    const container = await inventoryItem(context, 'container', request.containerId);
    const compound = await inventoryItem(context, 'compound', container.body.compoundId);
    const application = request.application ?? compound.body.application;
    const learnt = learntTransfer(await transferSamples(context, compound.id), application, context.actor);
    const worked = atWeights(() =>
      workOutWeighing(request, {
        compound: compound.body,
        tareG: container.body.tareG,
        ticket,
        learnt,
        ref: { kind: 'weighing', id: request.id },
      }),
    );
    await insert(context, 'weighings', {
      id: request.id,
      ticketId,
      containerId: container.id,
      containerRevisionId: container.revisionId,
      compoundId: compound.id,
      compoundRevisionId: compound.revisionId,
      pieces: request.pieces,
      ...worked,
      entered: {
        before: request.before,
        after: request.after,
        partsBefore: request.partsBefore,
        partsAfter: request.partsAfter,
        application,
        tray: request.tray ?? 1,
        roomC: request.roomC ?? null,
        roomHumidity: request.roomHumidity ?? null,
      },
      transferValue: worked.transfer?.value ?? null,
      correctsId: request.correctsId,
      strokes: request.strokes ?? null,
      afterPotLife: await potLifeOver(context, ticketId),
      at: context.now,
      byId: context.actor,
    });
  });
  return weighingView({ ...(await find(context, 'weighings', request.id)), rinsedOff: false });
}

/** Weighings of a ticket, oldest first; corrected ones left out. */
export async function weighingsOf(context: Context, ticketId: string): Promise<Weighing[]> {
  return (await list(context, 'standingWeighings', { where: { ticketId }, order: OLDEST_FIRST })).map(weighingView);
}

/** Transfer efficiencies that the newest weighings of a compound (part weighed too) gave. */
export async function transferSamples(context: Context, compoundId: string): Promise<TransferSample[]> {
  const rows = await list(context, 'standingWeighings', {
    where: { compoundId, transferValue: { [Op.ne]: null } },
    order: NEWEST_FIRST,
    limit: 24,
  });
  return rows.map(({ transferValue, entered, byId }) => ({
    value: transferValue!,
    application: applicationOf(entered),
    by: byId,
  }));
}

/** Mass laid and strokes counted in the newest weighings of a compound, corrected ones left out. */
export async function strokeSamples(
  context: Context,
  compoundId: string,
): Promise<{ grams: number; strokes: number }[]> {
  const rows = await list(context, 'standingWeighings', {
    where: { compoundId, strokes: { [Op.ne]: null } },
    order: NEWEST_FIRST,
    limit: 24,
  });
  return rows.map(({ beforeG, afterG, strokes }) => ({ grams: beforeG - afterG, strokes: strokes! }));
}

/** How a coat was laid on; before that was asked everything was sprayed from the can. */
function applicationOf(entered: object): Application {
  return (entered as { application?: Application }).application ?? 'aerosol';
}

/** What was noted of the room; null where nobody looked, and before it was asked. */
export function roomOf(entered: object): Pick<Weighing, 'roomC' | 'roomHumidity'> {
  const { roomC = null, roomHumidity = null } = entered as Partial<Pick<Weighing, 'roomC' | 'roomHumidity'>>;
  return { roomC, roomHumidity };
}

/** A weight that cannot be is refused at its field. */
function atWeights<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof CoreError) throw fault(`${error.path ?? 'after'}.value`, error.message);
    throw error;
  }
}

function weighingView(row: Rows['standingWeighings']): Weighing {
  const entered = row.entered as Pick<CreateWeighing, 'before' | 'after' | 'partsBefore' | 'partsAfter'>;
  const { id, ticketId, containerId, compoundId, pieces, beforeG, afterG, film, transfer, correctsId } = row;
  return {
    ...{ id, ticketId, containerId, compoundId, pieces, beforeG, afterG, film, transfer, correctsId },
    strokes: row.strokes,
    afterPotLife: row.afterPotLife,
    rinsedOff: row.rinsedOff,
    ...{
      before: entered.before,
      after: entered.after,
      partsBefore: entered.partsBefore,
      partsAfter: entered.partsAfter,
    },
    ...roomOf(row.entered),
    tray: (row.entered as { tray?: number }).tray ?? 1,
    application: applicationOf(row.entered),
    at: row.at.toISOString(),
    by: row.byId,
  };
}
