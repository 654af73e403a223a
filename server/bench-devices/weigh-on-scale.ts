import { setTimeout as wait } from 'node:timers/promises';
import type { Scale, ScaleReading, ScaleScene, WeighOnScale } from '@unto/contract';
import { coatPlanFor, sprayedMix, learntTransfer } from '@unto/domain';
import { transferSamples } from '../coat/weighings.js';
import { find, type Context } from '../db/context.js';
import { withScene } from '../devices/simulated.js';
import type { DeviceWork } from '../devices/work.js';
import { inventoryItem } from '../inventory/service.js';
import { leftInContainers } from '../inventory/use.js';
import type { DeviceCame } from '../devices/ask-of-device.js';

/** Looks at the scale at most so often, and this long apart, until it has settled. */
const LOOKS = 12;
const BETWEEN_MS = 150;
/** What a piece weighs while nobody weighed one; a scene for the simulator only. */
const SOME_PIECE_G = 28;

/** A settled weight from the scale; nothing is kept. */
export async function weighOnScale(work: DeviceWork, by: string, ask: WeighOnScale): Promise<DeviceCame> {
  const context = work.context(by);
  const scene = async () => ({ at: 'scale' as const, ...(await sceneOf(context, ask)) });
  const { scale } = withScene(work.devices, work.tell, scene);
  try {
    const shown = scale && (await settled(scale));
    if (!shown) return { fault: UNSETTLED };
    const { value, unit } = shown;
    return value < 0
      ? { fault: belowNought(shown) }
      : { weight: { value, unit, at: work.context(by).now.toISOString() } };
  } catch {
    return { fault: 'The scale does not answer. Look at its plug and cable, or type the weight.' };
  }
}

const UNSETTLED =
  'The scale does not settle: air moves over it, or something touches it. Shield it and press again, or type what you read.';
const belowNought = ({ value, unit }: ScaleReading) =>
  `The scale shows ${value} ${unit}. Empty the pan, set it to nought, and weigh again; what you typed is kept.`;

/** The first reading that the scale calls stable and that the one before agrees with; null when it does not come to rest. */
async function settled(scale: Scale): Promise<ScaleReading | null> {
  let last: ScaleReading | null = null;
  for (let look = 0; look < LOOKS; look += 1) {
    if (look > 0) await wait(BETWEEN_MS);
    const now = await scale.weigh();
    if (now.stable && last?.stable && now.unit === last.unit && Math.abs(now.value - last.value) < 1e-9) return now;
    last = now;
  }
  return null;
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
