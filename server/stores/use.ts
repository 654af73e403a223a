import { decisive, makeFigure, remainingGrams, remainingPieces } from '@unto/core';
import type { StoreItem, StoreUse, TicketPage } from '@unto/contract';
import { find, list, type Context } from '../db/context.js';
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

/** Contents at the newest weighing, and pieces at the rate of the last weighings out of it. */
export async function containerLeft(context: Context, container: StoreItem<'container'>): Promise<StoreUse['left']> {
  const rows = await list(context, 'weighings', { where: { containerId: container.id }, order: [['at', 'DESC']] });
  const corrected = new Set(rows.map(({ correctsId }) => correctsId));
  const weighings = rows.filter(({ id }) => !corrected.has(id));
  const newest = weighings[0];
  if (!newest) return null;
  const { tareG } = container.body;
  const weighed = decisive('newest weighing', 'measured', { value: newest.afterG, unit: 'g' });
  const tare = decisive('empty container', 'measured', { value: tareG, unit: 'g' });
  const grams = makeFigure({
    formula: 'remainingGrams',
    value: remainingGrams({ nowG: newest.afterG, tareG }),
    unit: 'g',
    inputs: [weighed, tare],
  });
  const laid = weighings.reduce((sum, { beforeG, afterG }) => sum + beforeG - afterG, 0);
  const perPiece = laid / weighings.reduce((sum, { pieces }) => sum + pieces, 0);
  const pieces =
    perPiece > 0
      ? makeFigure({
          formula: 'remainingPieces',
          value: remainingPieces({ nowG: newest.afterG, tareG }, perPiece),
          unit: 'pieces',
          inputs: [weighed, tare, decisive('laid down a piece so far', 'measured', { value: perPiece, unit: 'g' })],
        })
      : null;
  return { grams, pieces, weighedAt: newest.at.toISOString() };
}
