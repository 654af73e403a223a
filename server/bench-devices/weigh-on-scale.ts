import { setTimeout as wait } from 'node:timers/promises';
import type { Scale, ScaleAnswer, ScaleReading, ScaleScene, WeighOnScale } from '@unto/contract';
import { coatPlanFor, sprayedMix, learntTransfer } from '@unto/domain';
import { transferSamples } from '../coat/weighings.js';
import { find, type Context } from '../db/context.js';
import { ApiError } from '../errors/api-error.js';
import { inventoryItem } from '../inventory/service.js';
import { leftInContainers } from '../inventory/use.js';

/** Looks at the scale at most so often, and this long apart, until it has settled. */
const LOOKS = 12;
const BETWEEN_MS = 150;
/** What a piece weighs while nobody weighed one; a scene for the simulator only. */
const SOME_PIECE_G = 28;

/** A settled weight from the scale; nothing is kept. @throws ApiError when it is away, unsteady or below nought */
export async function weighOnScale(context: Context, ask: WeighOnScale): Promise<ScaleAnswer> {
  const { scale } = context.devices;
  if (!scale) throw new ApiError('device-away', 'No scale is tied to this server. Type the weight.');
  const { value, unit } = await settled(scale, await sceneOf(context, ask));
  return { value, unit, at: context.now.toISOString() };
}

/** The first reading that the scale calls stable and that the one before agrees with. */
async function settled(scale: Scale, scene: ScaleScene): Promise<ScaleReading> {
  let last: ScaleReading | null = null;
  for (let look = 0; look < LOOKS; look += 1) {
    if (look > 0) await wait(BETWEEN_MS);
    const now = await readOnce(scale, scene);
    if (now.stable && last?.stable && now.unit === last.unit && Math.abs(now.value - last.value) < 1e-9) {
      if (now.value < 0)
        throw new ApiError(
          'device-unsteady',
          `The scale shows ${now.value} ${now.unit}. Empty the pan, set it to nought, and weigh again; what you typed is kept.`,
        );
      return now;
    }
    last = now;
  }
  throw new ApiError(
    'device-unsteady',
    'The scale does not settle: air moves over it, or something touches it. Shield it and press again, or type what you read.',
  );
}

async function readOnce(scale: Scale, scene: ScaleScene): Promise<ScaleReading> {
  try {
    return await scale.read(scene);
  } catch {
    throw new ApiError('device-away', 'The scale does not answer. Look at its plug and cable, or type the weight.');
  }
}

async function sceneOf(context: Context, ask: WeighOnScale): Promise<ScaleScene> {
  const ticket = await find(context, 'tickets', ask.ticketId);
  const container = await inventoryItem(context, 'container', ask.containerId);
  const compound = await inventoryItem(context, 'compound', container.body.compoundId);
  const left = (await leftInContainers(context, [container])).get(container.id);
  const samples = await transferSamples(context, compound.id);
  const transfer = learntTransfer(samples, compound.body.application, context.actor);
  const full = container.body.tareG + (left?.grams.value ?? container.body.netG);
  const own = ask.what === 'container';
  return {
    key: own ? container.id : `parts of ${ticket.id}`,
    moment: ask.moment,
    batch: ticket.id,
    lastKnownG: own ? full : ask.pieces * SOME_PIECE_G,
    massToApplyG: coatPlanFor(compound, ticket, ask.pieces, transfer).mass.value,
    massSolids: sprayedMix(compound.body).massSolids,
  };
}
