import type { KeptFile, TakePicture } from '@unto/contract';
import { find, type Context } from '../db/context.js';
import { keepFile } from '../files/service.js';
import { ApiError } from '../errors/api-error.js';
import { inventoryItem } from '../inventory/service.js';

/** Takes a picture of a coated part and keeps it. @throws ApiError when there is no camera, or it does not answer */
export async function takePicture(context: Context, ask: TakePicture): Promise<KeptFile> {
  const { camera } = context.devices;
  if (!camera) throw new ApiError('device-away', 'No camera is tied to this server. Bring the picture as a file.');
  const ticket = await find(context, 'tickets', ask.ticketId);
  const { body } = await inventoryItem(context, 'substrate', ticket.substrateId);
  const { widthMm, heightMm } = ask;
  let bytes: Uint8Array;
  try {
    bytes = await camera.take({ kind: 'coat', batch: ticket.id, widthMm, heightMm, ground: body.ground });
  } catch {
    throw new ApiError(
      'device-away',
      'The camera does not answer. Look at its plug and cable, or bring the picture as a file.',
    );
  }
  return keepFile(context, `ticket ${ticket.number}, coat.jpg`, bytes);
}
