import { contentsLeft, type ContentsLeft } from '@unto/domain';
import type { InventoryItem, InventoryUse, TicketPage } from '@unto/contract';
import { Op } from 'sequelize';
import { find, list, type Context } from '../db/context.js';
import { shopDay } from '../workshop/service.js';
import { inventoryItem, listInventory } from './service.js';

/** What rests on an item, over all its revisions, and what is left in a container. */
export async function inventoryUse(context: Context, id: string): Promise<InventoryUse> {
  const item = await find(context, 'inventoryItems', id);
  const [[counts]] = (await context.sequelize.query(COUNTS, {
    replacements: { id, kind: item.kind },
    transaction: context.transaction ?? null,
  })) as unknown as [[Omit<InventoryUse, 'left' | 'blanksLeft'>]];
  const container = item.kind === 'container' ? await inventoryItem(context, 'container', id) : null;
  const left = container && (await leftInContainers(context, [container])).get(id);
  return { ...counts, left: left ?? null, blanksLeft: (await blanksLeft(context)).get(id) ?? null };
}

/** Blanks on the shelf by item: as counted at their newest revision, less the pieces run and the coupons fired out of them since. */
export async function blanksLeft(context: Context): Promise<ReadonlyMap<string, number>> {
  const blanks = await listInventory(context, { kind: 'blank', retired: 1 });
  const [used] = (await context.sequelize.query(USED_BLANKS, {
    transaction: context.transaction ?? null,
  })) as unknown as [{ id: string; pieces: number }[]];
  const piecesOf = new Map(used.map(({ id, pieces }) => [id, pieces]));
  return new Map(blanks.map(({ id, body }) => [id, Math.max(0, body.left - (piecesOf.get(id) ?? 0))]));
}

const USED_BLANKS = `
WITH used AS (
  SELECT bench -> 'blank' ->> 'id' AS id, sequence, pieces FROM standing_runs WHERE bench -> 'blank' ->> 'id' IS NOT NULL
  UNION ALL
  SELECT firing ->> 'blankId', burnt_sequence, 1 FROM coupons WHERE firing ->> 'blankId' IS NOT NULL AND burnt_at IS NOT NULL)
SELECT used.id, sum(used.pieces)::int AS pieces FROM used
JOIN inventory_items i ON i.id::text = used.id
JOIN inventory_revisions r ON r.id = i.revision_id AND used.sequence > r.sequence
GROUP BY used.id`;

const COUNTS = `
WITH own AS (SELECT jsonb_build_object(CAST(:kind AS text), id::text) AS used FROM inventory_revisions WHERE item_id = :id)
SELECT
  (SELECT count(*) FROM tickets WHERE :id IN (substrate_id, head_id, lens_id, compound_id))::int AS tickets,
  (SELECT count(DISTINCT c.id) FROM own JOIN coupons c ON c.revisions @> own.used)::int AS coupons,
  (SELECT count(DISTINCT r.id) FROM own JOIN runs r ON r.revisions @> own.used)::int AS runs,
  (SELECT count(*) FROM weighings WHERE :id IN (container_id, compound_id))::int AS weighings`;

/** Contents of the containers of a compound, in pieces of a size: at their newest weighing, or as bought where none was weighed. */
export async function containersLeft(
  context: Context,
  compoundId: string,
  pieceMm2: number,
): Promise<TicketPage['containersLeft']> {
  const containers = await listInventory(context, { kind: 'container' });
  const own = containers.filter(({ body }) => body.compoundId === compoundId);
  const left = await leftInContainers(context, own, pieceMm2);
  return own.map(({ id, body }) => {
    const known = left.get(id);
    return {
      containerId: id,
      leftG: known?.grams.value ?? body.netG,
      weighed: known !== undefined,
      pieces: known?.pieces ?? null,
    };
  });
}

/** Grams left in containers in use and not past their date, by compound; one never weighed counts as full. */
export async function stockByCompound(context: Context): Promise<Record<string, number>> {
  const containers = await listInventory(context, { kind: 'container' });
  const left = await leftInContainers(context, containers);
  const day = await shopDay(context);
  const stock: Record<string, number> = {};
  for (const { id, body } of containers) {
    const { compoundId, expiresOn, netG } = body;
    if (expiresOn && expiresOn < day) continue;
    stock[compoundId] = (stock[compoundId] ?? 0) + (left.get(id)?.grams.value ?? netG);
  }
  return stock;
}

/** Contents of containers at their newest weighing, by id, in pieces of a size or as those coated last; those never weighed are not in it. */
export async function leftInContainers(
  context: Context,
  containers: readonly InventoryItem<'container'>[],
  pieceMm2?: number,
): Promise<ReadonlyMap<string, ContentsLeft>> {
  const ids = containers.map(({ id }) => id);
  const uses = await list(context, 'containerUses', { where: { containerId: { [Op.in]: ids } } });
  const useOf = new Map(uses.map((use) => [use.containerId, use]));
  return new Map(
    containers.flatMap(({ id, body }) => {
      const use = useOf.get(id);
      const left = contentsLeft(body, use ? { ...use, weighedAt: use.weighedAt.toISOString() } : null, pieceMm2);
      return left ? [[id, left] as const] : [];
    }),
  );
}
