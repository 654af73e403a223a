import { COAT_MINUTES, type PieceWork } from '@unto/core';
import { list, NEWEST_FIRST, type Context } from '../db/context.js';
import { inventoryItem, listInventory } from '../inventory/service.js';
import { workshop } from '../workshop/service.js';
import { weighingOf } from './coat-record.js';
import type { Subject } from './subject.js';

/** Hands-on minutes of a piece to lay it in and align it to its old mark, and to sand a bonded mark off. Common practice, no source. */
const PLACE_MINUTES = 3;
const STRIP_MINUTES = 12;
/** Cleaning of a piece that nobody timed, minutes. Common practice, no source. */
const CLEAN_MINUTES = 1.5;

/** What making a piece anew takes, by what was timed and weighed on it; null where no run tells of one. */
export async function pieceWork(context: Context, subject: Subject): Promise<PieceWork | null> {
  const { run, headId, compoundId } = subject;
  if (!run) return null;
  const shop = await workshop(context);
  const head = await inventoryItem(context, 'head', headId);
  const machine = await inventoryItem(context, 'machine', head.body.machineId);
  const compound = compoundId ? (await inventoryItem(context, 'compound', compoundId)).body : null;
  const [washed] = await list(context, 'cleanings', { where: { runId: run.id }, order: NEWEST_FIRST, limit: 1 });
  const weighing = compoundId ? await weighingOf(context, subject) : null;
  const can = weighing ? (await inventoryItem(context, 'container', weighing.containerId)).body : null;
  const compoundG = weighing ? (weighing.beforeG - weighing.afterG) / weighing.pieces : 0;
  return {
    coatMinutes: compound ? compound.coats * COAT_MINUTES.value : 0,
    dryMinutes: compound ? compound.dryS / 60 : 0,
    markMinutes: run.minutes / run.pieces,
    cleanMinutes: washed ? washed.minutes / run.pieces : CLEAN_MINUTES,
    stripMinutes: STRIP_MINUTES,
    placeMinutes: PLACE_MINUTES,
    compoundG,
    compoundMinor: can ? (compoundG * can.priceMinor) / can.netG : 0,
    blankMinor: await blankPrice(context, run),
    labourMinorPerMinute: shop.labourMinorPerMinute,
    laserMinorPerMinute: machine.body.laserMinorPerMinute,
    regionShare: 1,
  };
}

/** Price of the blank that a run was on; else of the cheapest of its substrate on the shelf, 0 where none lies there. */
async function blankPrice(context: Context, run: NonNullable<Subject['run']>): Promise<number> {
  const id = run.bench?.blank?.id;
  if (id) return (await inventoryItem(context, 'blank', id)).body.priceMinor;
  const shelf = await listInventory(context, { kind: 'blank' });
  const own = shelf.filter(({ body }) => body.substrateId === run.substrateId).map(({ body }) => body.priceMinor);
  return own.length ? Math.min(...own) : 0;
}
