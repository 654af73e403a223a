import type { CameraScene } from '@unto/contract';
import { couponOnEquipment, couponProgram } from '../coupons/setup.js';
import { atomically, find, type Context } from '../db/context.js';
import { withScene } from '../devices/simulated.js';
import type { DeviceWork } from '../devices/work.js';
import { keepFile } from '../files/service.js';
import { inventoryItem } from '../inventory/service.js';
import { trayScene } from '../trays/scene.js';
import type { DeviceCame, PictureAsk } from '../devices/ask-of-device.js';

/** Takes a picture of a coated part, a coupon or a tray of pieces and keeps it. */
export async function takePicture(work: DeviceWork, by: string, ask: PictureAsk): Promise<DeviceCame> {
  const context = work.context(by);
  const scene = async () => ({ at: 'camera' as const, ...(await cameraScene(context, ask)) });
  const { camera } = withScene(work.devices, work.tell, scene);
  const bytes = await camera?.takePicture().catch(() => null);
  if (!bytes)
    return {
      fault:
        'The camera does not answer. Look at its plug and cable, or bring the picture as a file. What was read before is kept.',
    };
  const name = await pictureName(context, ask);
  return { picture: await atomically(context, (within) => keepFile(within, name, bytes)) };
}

async function pictureName(context: Context, ask: PictureAsk): Promise<string> {
  if (ask.of === 'tray') return `run ${ask.runId.slice(0, 8)}, tray.jpg`;
  if (ask.of === 'coat') return `ticket ${(await find(context, 'tickets', ask.ticketId)).number}, coat.jpg`;
  return `${(await find(context, 'coupons', ask.couponId)).design.code}, ${ask.stage}.jpg`;
}

async function cameraScene(context: Context, ask: PictureAsk): Promise<CameraScene> {
  if (ask.of === 'coat') {
    const { id, substrateId } = await find(context, 'tickets', ask.ticketId);
    const { body } = await inventoryItem(context, 'substrate', substrateId);
    return { kind: 'coat', batch: id, widthMm: ask.widthMm, heightMm: ask.heightMm, ground: body.ground };
  }
  if (ask.of === 'tray') return trayScene(context, ask);
  const coupon = await find(context, 'coupons', ask.couponId);
  const on = await couponOnEquipment(context, coupon);
  const program = couponProgram(on, 'M3', coupon.burntCells ?? undefined);
  return { kind: 'coupon', stage: ask.stage, setup: on.setup, program };
}
