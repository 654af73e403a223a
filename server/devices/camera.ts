import type { Camera } from '@unto/contract';
import { askDevice } from './ask.js';

const ANSWER_WITHIN_MS = 30_000;

/** A camera that answers over HTTP on this machine. */
export function httpCamera(base: string): Camera {
  return {
    takePicture: async () => {
      const response = await askDevice(base, '/camera/picture', {}, ANSWER_WITHIN_MS);
      return new Uint8Array(await response.arrayBuffer());
    },
  };
}
