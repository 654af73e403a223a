import type { CreateUpkeep, Upkeep } from '@unto/contract';
import { createOnce, find, insert, list, NEWEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';

/** What was done to a head or lens, and the hours of beam since. */
export async function upkeepOf(context: Context, itemId: string): Promise<Upkeep> {
  await keepable(context, itemId);
  const rows = await list(context, 'upkeeps', { where: { itemId }, order: NEWEST_FIRST });
  const cleaned = rows.find(({ what }) => what === 'cleaned');
  const renewed = rows.find(({ what }) => what === 'source renewed');
  return {
    itemId,
    done: rows.map(({ id, what, note, at, byId }) => ({ id, what, note, at: at.toISOString(), by: byId })),
    hoursSinceCleaned: cleaned ? await beamHours(context, itemId, cleaned.id) : null,
    hours: await beamHours(context, itemId, renewed?.id ?? null),
  };
}

export async function createUpkeep(context: Context, itemId: string, request: CreateUpkeep): Promise<Upkeep> {
  await createOnce(context, 'upkeep', request, async () => {
    const { kind } = await keepable(context, itemId);
    if (kind === 'lens' && request.what === 'source renewed')
      throw fault('what', 'A lens has no source: say that of its head.');
    await insert(context, 'upkeeps', { ...request, itemId, at: context.now, byId: context.actor });
  });
  return upkeepOf(context, itemId);
}

async function keepable(context: Context, itemId: string): Promise<Rows['inventoryItems']> {
  const item = await find(context, 'inventoryItems', itemId);
  if (item.kind !== 'head' && item.kind !== 'lens')
    throw fault('itemId', 'Only heads and lenses are kept up: this is neither.');
  return item;
}

/** Hours of the runs that were logged on a head or lens since some upkeep: what its beam was on as far as anybody knows. */
async function beamHours(context: Context, itemId: string, since: string | null): Promise<number> {
  const [[row]] = (await context.sequelize.query(
    `SELECT coalesce(sum(r.minutes), 0) / 60 AS hours FROM standing_runs s JOIN runs r ON r.id = s.id
     WHERE s.sequence > coalesce((SELECT u.sequence FROM upkeeps u WHERE u.id = :since), 0) AND (s.head_id = :itemId
       OR s.revisions ->> 'lens' IN (SELECT id::text FROM inventory_revisions WHERE item_id = :itemId))`,
    { replacements: { itemId, since }, transaction: context.transaction ?? null },
  )) as unknown as [[{ hours: number }]];
  return row.hours;
}
