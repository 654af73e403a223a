import { CARD_SIZES, CoreError, requireCardPrint, type CardPrint, type CardSize } from '@unto/core';
import type { Card, CreateCard } from '@unto/contract';
import { type Context, createOnce, insert, list, NEWEST_FIRST, stableJson } from '../db/context.js';
import { fault } from '../errors/api-error.js';
import { isKept } from '../files/service.js';

/** Keeps what a card's print throws back; what was read by an earlier one stays as it was read. */
export async function createCard(context: Context, request: CreateCard): Promise<Card[]> {
  await createOnce(context, 'card', request, async () => {
    const { id, size, print, white, fileHash } = request;
    requirePrint(print);
    if (fileHash && !(await isKept(context, fileHash)))
      throw fault('fileHash', 'That picture is not kept here. Bring it again.');
    await insert(context, 'cards', { id, size, print, white, fileHash, at: context.now, byId: context.actor });
  });
  return listCards(context);
}

/** The newest print of each size. */
export async function listCards(context: Context): Promise<Card[]> {
  const rows = await list(context, 'cards', { order: NEWEST_FIRST });
  return CARD_SIZES.flatMap((size) => rows.find((row) => row.size === size) ?? []).map(({ byId, at, ...row }) => ({
    ...row,
    at: at.toISOString(),
    by: byId,
  }));
}

/** A picture is read by a print that was kept here, or by the typical one. @throws ApiError at `path` */
export async function requireKnownPrint(
  context: Context,
  path: string,
  { size, print }: { readonly size: CardSize; readonly print?: CardPrint | null | undefined },
): Promise<void> {
  if (!print || print.basis === 'typical') return;
  const rows = await list(context, 'cards', { where: { size } });
  if (!rows.some((row) => stableJson(row.print) === stableJson(print)))
    throw fault(path, `No ${size} card of that print is kept here. Open the picture again.`);
}

function requirePrint(print: CardPrint): void {
  try {
    requireCardPrint(print);
  } catch (error) {
    if (error instanceof CoreError) throw fault(`print.${error.path}`, error.message);
    throw error;
  }
}
