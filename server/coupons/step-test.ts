import { deliveredPower } from '@unto/core';
import type { CreateTestStep, KeptTestStep } from '@unto/contract';
import { checkPulsed, powerSource } from '@unto/domain';
import { createOnce, find, insert, list, type Context } from '../db/context.js';
import { fault, ApiError } from '../errors/api-error.js';
import { requireFitted } from '../place/fittings.js';
import { refuseWetCoat } from '../timers/wet-coat.js';
import { loadEquipment } from '../inventory/service.js';

/** Keeps a tiny cell fired on the piece itself. A step test ends at the first that holds. */
export async function createTestStep(
  context: Context,
  ticketId: string,
  request: CreateTestStep,
): Promise<KeptTestStep[]> {
  await createOnce(context, 'test step', request, async () => {
    const ticket = await find(context, 'tickets', ticketId, { lock: true });
    await requireFitted(context, ticket);
    await refuseWetCoat(context, ticketId);
    const { equipment, revisions } = await loadEquipment(context, ticket);
    const earlier = await testStepsOf(context, ticketId);
    if (earlier.some(({ outcome }) => outcome === 'holds'))
      throw new ApiError('wrong-stage', 'This step test ended at the cell that held: firing on can only do harm.');
    const powerW = deliveredPower(request.powerPercent, powerSource(equipment));
    checkPulsed(request, equipment);
    if (powerW <= 0)
      throw fault('powerPercent', `${equipment.head.name} fires from ${equipment.head.firingThresholdPercent} %.`);
    await insert(context, 'testSteps', {
      ...request,
      ticketId,
      powerW,
      revisions,
      at: context.now,
      byId: context.actor,
    });
  });
  return testStepsOf(context, ticketId);
}

/** Tiny cells of a ticket's piece, oldest first. */
export async function testStepsOf(context: Context, ticketId: string): Promise<KeptTestStep[]> {
  const rows = await list(context, 'testSteps', { where: { ticketId }, order: [['at', 'ASC']] });
  return rows.map(({ ticketId: _, at, byId, ...row }) => ({ ...row, at: at.toISOString(), by: byId }));
}
