import type { StoreItem, StoreUse, TicketPage } from '@unto/contract';
import { find, type Context } from '../db/context.js';
import { listStores, storeItem } from './service.js';

/** What rests on an item, over all its revisions, and what is left in a container. */
export async function storeUse(context: Context, id: string): Promise<StoreUse> {
  const item = await find(context, 'storeItems', id);
  const [[counts]] = (await context.sequelize.query(COUNTS, {
    replacements: { id },
    transaction: context.transaction ?? null,
  })) as unknown as [[Omit<StoreUse, 'left'>]];
  return {
    ...counts,
    left: item.kind === 'container' ? await containerLeft(context, await storeItem(context, 'container', id)) : null,
  };
}

const COUNTS = `
WITH own AS (SELECT id::text FROM store_revisions WHERE item_id = :id)
SELECT
  (SELECT count(*) FROM tickets WHERE :id IN (substrate_id, head_id, lens_id, compound_id))::int AS tickets,
  (SELECT count(*) FROM coupons c WHERE EXISTS (SELECT 1 FROM jsonb_each_text(c.pins) p JOIN own ON own.id = p.value))::int AS coupons,
  (SELECT count(*) FROM runs r WHERE EXISTS (SELECT 1 FROM jsonb_each_text(r.pins) p JOIN own ON own.id = p.value))::int AS runs,
  (SELECT count(*) FROM weighings WHERE :id IN (container_id, compound_id))::int AS weighings`;

/** Contents of the containers of a compound: at their newest weighing, or as bought where none was weighed. */
export async function containersLeft(context: Context, compoundId: string): Promise<TicketPage['containersLeft']> {
  const containers = (await listStores(context, { kind: 'container' })) as StoreItem<'container'>[];
  return Promise.all(
    containers
      .filter(({ body }) => body.compoundId === compoundId)
      .map(async (container) => {
        const left = await containerLeft(context, container);
        return { containerId: container.id, leftG: left?.grams.value ?? container.body.netG, weighed: left !== null };
      }),
  );
}

/** Grams left in containers in use and not past their date, by compound; one never weighed counts as full. */
export async function stockByCompound(context: Context): Promise<Record<string, number>> {
  const containers = (await listStores(context, { kind: 'container' })) as StoreItem<'container'>[];
  const day = context.now.toISOString().slice(0, 10);
  const stock: Record<string, number> = {};
  for (const container of containers) {
    const { compoundId, expiresOn, netG } = container.body;
    if (expiresOn && expiresOn < day) continue;
    const left = await containerLeft(context, container);
    stock[compoundId] = (stock[compoundId] ?? 0) + (left?.grams.value ?? netG);
  }
  return stock;
}

/** Contents of a container at its newest weighing; null where it was never weighed. */
export async function containerLeft(context: Context, container: StoreItem<'container'>): Promise<ContentsLeft | null> {
  return contentsLeft(container.body, (await containerUses(context, [container.id])).get(container.id) ?? null);
}
