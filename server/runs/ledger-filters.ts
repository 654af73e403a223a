import type { CreateLedgerFilter, LedgerFilter, RetireLedgerFilter } from '@unto/contract';
import { createOnce, find, insert, list, NEWEST_FIRST, type Context } from '../db/context.js';
import { fault } from '../errors/api-error.js';

/** Filters that somebody gave a name, the newest first. */
export async function ledgerFilters(context: Context): Promise<LedgerFilter[]> {
  const rows = await list(context, 'ledgerFilters', { where: { retired: false }, order: NEWEST_FIRST });
  return rows.map(({ id, name, query, byId }) => ({ id, name, query, by: byId }));
}

export async function createLedgerFilter(context: Context, request: CreateLedgerFilter): Promise<LedgerFilter[]> {
  await createOnce(context, 'ledger filter', request, async () => {
    const { id, query } = request;
    const name = request.name.trim();
    if ((await ledgerFilters(context)).some((one) => one.name.toLowerCase() === name.toLowerCase()))
      throw fault('name', `There is a filter “${name}” already: give it another name, or take that one away.`);
    await insert(context, 'ledgerFilters', { id, name, query, retired: false, at: context.now, byId: context.actor });
  });
  return ledgerFilters(context);
}

export async function retireLedgerFilter(
  context: Context,
  id: string,
  { retired }: RetireLedgerFilter,
): Promise<LedgerFilter[]> {
  await find(context, 'ledgerFilters', id);
  await context.models.ledgerFilters.update({ retired }, { where: { id }, transaction: context.transaction ?? null });
  return ledgerFilters(context);
}
