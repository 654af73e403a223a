import { deliveredPower } from '@unto/core';
import type { CreateClimbStep, KeptClimbStep } from '@unto/contract';
import { powerSource } from '@unto/domain';
import { createOnce, find, insert, list, type Context } from '../db/context.js';
import { fault, Refusal } from '../http/refusal.js';
import { requireFitted } from '../place/fittings.js';
import { refuseWetCoat } from '../runs/wet-coat.js';
import { loadBench } from '../stores/service.js';

/** Keeps a tiny cell fired on the piece itself. A climb ends at the first that holds. */
export async function createClimbStep(
  context: Context,
  ticketId: string,
  request: CreateClimbStep,
): Promise<KeptClimbStep[]> {
  await createOnce(context, 'climb step', request, async () => {
    const ticket = await find(context, 'tickets', ticketId, { lock: true });
    await requireFitted(context, ticket);
    await refuseWetCoat(context, ticketId);
    const { bench, pins } = await loadBench(context, ticket);
    const earlier = await climbOf(context, ticketId);
    if (earlier.some(({ outcome }) => outcome === 'holds'))
      throw new Refusal('wrong-stage', 'This climb ended at the cell that held: firing on can only do harm.');
    const powerW = deliveredPower(request.powerPercent, powerSource(bench));
    if (powerW <= 0)
      throw fault('powerPercent', `${bench.head.name} fires from ${bench.head.firingThresholdPercent} %.`);
    await insert(context, 'climbSteps', { ...request, ticketId, powerW, pins, at: context.now, byId: context.actor });
  });
  return climbOf(context, ticketId);
}

/** Tiny cells of a ticket's piece, oldest first. */
export async function climbOf(context: Context, ticketId: string): Promise<KeptClimbStep[]> {
  const rows = await list(context, 'climbSteps', { where: { ticketId }, order: [['at', 'ASC']] });
  return rows.map(({ ticketId: _, at, byId, ...row }) => ({ ...row, at: at.toISOString(), by: byId }));
}
