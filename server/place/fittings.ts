import type { CreateFitting, Fitting } from '@unto/contract';
import { type Context, createOnce, find, insert, list, NEWEST_FIRST, OLDEST_FIRST } from '../db/context.js';
import { fault, ApiError } from '../errors/api-error.js';
import { requireInUse, inventoryItem } from '../inventory/service.js';

/** Says that a head and lens were fitted to their machine. */
export async function createFitting(context: Context, request: CreateFitting): Promise<Fitting> {
  await createOnce(context, 'fitting', request, async () => {
    await requireInUse(context, [
      { path: 'headId', id: request.headId },
      { path: 'lensId', id: request.lensId },
    ]);
    const head = await inventoryItem(context, 'head', request.headId);
    const lens = await inventoryItem(context, 'lens', request.lensId);
    if (lens.body.headId !== head.id) throw fault('lensId', `${lens.body.name} does not belong to ${head.body.name}.`);
    if (request.ticketId) await find(context, 'tickets', request.ticketId);
    await insert(context, 'fittings', {
      ...request,
      machineId: head.body.machineId,
      at: context.now,
      byId: context.actor,
    });
  });
  return fittingView(await find(context, 'fittings', request.id));
}

/** What was fitted last to the machine of a head; null where nobody ever changed anything. */
export async function newestFitting(context: Context, headId: string): Promise<Fitting | null> {
  const head = await inventoryItem(context, 'head', headId);
  const [row] = await list(context, 'fittings', {
    where: { machineId: head.body.machineId },
    order: NEWEST_FIRST,
    limit: 1,
  });
  return row ? fittingView(row) : null;
}

/** Newest fitting of every machine, by machine. */
export async function newestFittings(context: Context): Promise<ReadonlyMap<string, Fitting>> {
  const rows = await list(context, 'fittings', { order: OLDEST_FIRST });
  return new Map(rows.map((row) => [row.machineId, fittingView(row)]));
}

/** Refuses to fire with another head or lens than the ticket is planned on. */
export async function requireFitted(
  context: Context,
  planned: { readonly headId: string; readonly lensId: string },
): Promise<void> {
  const fitting = await newestFitting(context, planned.headId);
  if (!fitting || (fitting.headId === planned.headId && fitting.lensId === planned.lensId)) return;
  const named = async (of: { headId: string; lensId: string }) =>
    `${(await inventoryItem(context, 'head', of.headId)).body.name} with ${(await inventoryItem(context, 'lens', of.lensId)).body.name}`;
  throw new ApiError(
    'wrong-stage',
    `${await named(fitting)} is fitted; this is planned on ${await named(planned)}. Change it at Place first: its focus and eyewear are others.`,
  );
}

function fittingView({ at, byId, ...row }: Awaited<ReturnType<typeof find<'fittings'>>>): Fitting {
  return { ...row, at: at.toISOString(), by: byId };
}
