import type { Camera, Controller, Scale } from '@unto/contract';
import { httpCamera } from './camera.js';
import { httpController } from './controller.js';
import { httpScale } from './scale.js';

/** What this server is tied to; null where nothing is. */
export interface Devices {
  readonly scale: Scale | null;
  readonly camera: Camera | null;
  readonly controller: Controller | null;
}

export const NO_DEVICES: Devices = { scale: null, camera: null, controller: null };

/** Devices that all answer at one address, or none. */
export function devicesAt(address: string | undefined): Devices {
  return address
    ? { scale: httpScale(address), camera: httpCamera(address), controller: httpController(address) }
    : NO_DEVICES;
}

/** Which devices there are, for whoever may not use them. */
export function tiedDevices({ scale, camera, controller }: Devices) {
  return { scale: scale !== null, camera: camera !== null, controller: controller !== null };
}
