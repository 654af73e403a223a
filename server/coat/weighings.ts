import { Op } from 'sequelize';
import {
  CoreError,
  filmFromWeighing,
  laidDown,
  learnTransfer,
  makeFigure,
  decisive,
  massToG,
  transferEfficiency,
  type Figure,
} from '@unto/core';
import { coatedAreaMm2, type CompoundBody, type CreateWeighing, type StoreItem, type Weighing } from '@unto/contract';
import { createOnce, find, insert, list, type Context } from '../db/context.js';
import type { Rows } from '../db/models.js';
import { fault } from '../http/refusal.js';
import { storeItem } from '../stores/service.js';
import { potLifeOver } from '../clocks/service.js';

/** Enters a weighing and judges the film it means, from the transfer efficiency that this compound's earlier weighings taught. */
export async function createWeighing(context: Context, ticketId: string, request: CreateWeighing): Promise<Weighing> {
  await createOnce(context, 'weighing', request, async () => {
    const ticket = await find(context, 'tickets', ticketId);
    const container = await storeItem(context, 'container', request.containerId);
    const compound = await storeItem(context, 'compound', container.body.compoundId);
    const grams = {
      beforeG: massToG(request.before.value, request.before.unit),
      afterG: massToG(request.after.value, request.after.unit),
    };
    const weighed = { ...grams, tareG: container.body.tareG };
    checkWeights(weighed);
    const areaMm2 = coatedAreaMm2(ticket) * request.pieces;
    const transfer = transferFigure(request, weighed, compound);
    const film = filmFromWeighing(weighed, {
      areaMm2,
      dryDensity: compound.body.dryDensity,
      massSolids: compound.body.massSolids,
      transfer: transfer
        ? {
            value: transfer.value,
            low: transfer.value * 0.97,
            high: transfer.value * 1.03,
            grade: 'measured',
            weighings: 1,
          }
        : await learnt(context, compound.id),
      ref: { kind: 'weighing', id: request.id },
    });
    await insert(context, 'weighings', {
      id: request.id,
      ticketId,
      containerId: container.id,
      containerRevisionId: container.revisionId,
      compoundId: compound.id,
      compoundRevisionId: compound.revisionId,
      pieces: request.pieces,
      ...grams,
      entered: {
        before: request.before,
        after: request.after,
        partsBefore: request.partsBefore,
        partsAfter: request.partsAfter,
      },
      film,
      transfer,
      transferValue: transfer?.value ?? null,
      correctsId: request.correctsId,
      strokes: request.strokes ?? null,
      afterPotLife: await potLifeOver(context, ticketId),
      at: context.now,
      byId: context.actor,
    });
  });
  return weighingView(await find(context, 'weighings', request.id));
}

/** Weighings of a ticket, oldest first; corrected ones left out. */
export async function weighingsOf(context: Context, ticketId: string): Promise<Weighing[]> {
  const rows = await list(context, 'weighings', { where: { ticketId }, order: [['at', 'ASC']] });
  const corrected = new Set(rows.map((row) => row.correctsId));
  return rows.filter((row) => !corrected.has(row.id)).map(weighingView);
}

/** Transfer efficiencies that the newest weighings of a compound (part weighed too) gave. */
export async function transferSamples(context: Context, compoundId: string): Promise<number[]> {
  const rows = await list(context, 'weighings', {
    where: { compoundId, transferValue: { [Op.ne]: null } },
    order: [['at', 'DESC']],
    limit: 24,
  });
  return rows.map((row) => row.transferValue!);
}

/** Mass laid and strokes counted in the newest weighings of a compound, corrected ones left out. */
export async function strokeSamples(
  context: Context,
  compoundId: string,
): Promise<{ grams: number; strokes: number }[]> {
  const rows = await list(context, 'weighings', {
    where: { compoundId, strokes: { [Op.ne]: null } },
    order: [['at', 'DESC']],
    limit: 24,
  });
  const corrected = new Set(rows.map((row) => row.correctsId));
  return rows
    .filter(({ id }) => !corrected.has(id))
    .map(({ beforeG, afterG, strokes }) => ({ grams: beforeG - afterG, strokes: strokes! }));
}

async function learnt(context: Context, compoundId: string) {
  return learnTransfer(await transferSamples(context, compoundId));
}

function checkWeights(weighed: { beforeG: number; afterG: number; tareG: number }): void {
  try {
    laidDown(weighed);
  } catch (error) {
    if (error instanceof CoreError) throw fault(`${error.path ?? 'after'}.value`, error.message);
    throw error;
  }
  if (weighed.beforeG === weighed.afterG)
    throw fault('after.value', 'Nothing left the container: both weights are the same.');
}

function transferFigure(
  request: CreateWeighing,
  weighed: { beforeG: number; afterG: number },
  compound: StoreItem<'compound'>,
): Figure | null {
  const { partsBefore, partsAfter } = request;
  if (!partsBefore || !partsAfter) return null;
  const dry = massToG(partsAfter.value, partsAfter.unit) - massToG(partsBefore.value, partsBefore.unit);
  if (dry <= 0) throw fault('partsAfter.value', 'The parts weigh no more after drying than before coating.');
  const laid = weighed.beforeG - weighed.afterG;
  const { massSolids } = compound.body as CompoundBody;
  if (dry > laid * massSolids) {
    throw fault(
      'partsAfter.value',
      `${dry.toFixed(2)} g dry on the parts is more than the ${(laid * massSolids).toFixed(2)} g of solids that left the container.`,
    );
  }
  return makeFigure({
    formula: 'transferEfficiency',
    value: transferEfficiency(dry, laid, massSolids),
    unit: '',
    inputs: [
      decisive('dry mass on the parts', 'measured', { value: Number(dry.toFixed(3)), unit: 'g' }),
      decisive('mass laid down', 'measured', { value: Number(laid.toFixed(3)), unit: 'g' }),
    ],
  });
}

function weighingView(row: Rows['weighings']): Weighing {
  const entered = row.entered as Pick<CreateWeighing, 'before' | 'after' | 'partsBefore' | 'partsAfter'>;
  const { id, ticketId, containerId, compoundId, pieces, beforeG, afterG, film, transfer, correctsId } = row;
  return {
    ...{ id, ticketId, containerId, compoundId, pieces, beforeG, afterG, film, transfer, correctsId },
    strokes: row.strokes,
    afterPotLife: row.afterPotLife,
    ...entered,
    at: row.at.toISOString(),
    by: row.byId,
  };
}
