import type { Scene } from '@unto/contract';
import { askDevice } from './ask.js';
import type { Devices } from './devices.js';

/** Tells a simulator what lies at a device; null where the devices are real and look for themselves. */
export type SceneTeller = ((scene: Scene) => Promise<void>) | null;

const ANSWER_WITHIN_MS = 3000;

/** Tells the simulators at an address. */
export function sceneTellerAt(address: string): SceneTeller {
  return async (scene) => void (await askDevice(address, `/scene/${scene.at}`, scene, ANSWER_WITHIN_MS));
}

/** Devices that, simulated, are told once what lies there before they are first used; real ones as they are. */
export function withScene(
  { scale, camera, controller }: Devices,
  tell: SceneTeller,
  scene: () => Promise<Scene>,
): Devices {
  if (!tell) return { scale, camera, controller };
  let told: Promise<void> | null = null;
  const after = async <T>(use: () => Promise<T>) => {
    await (told ??= scene().then(tell));
    return use();
  };
  return {
    scale: scale && { weigh: () => after(scale.weigh) },
    camera: camera && { takePicture: () => after(camera.takePicture) },
    controller: controller && { ...controller, send: (program) => after(() => controller.send(program)) },
  };
}
