import { deviceRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { takePicture } from './take-picture.js';
import { weighOnScale } from './weigh-on-scale.js';

export const deviceRouter = router(deviceRoutes, {
  devices: async ({ devices }) => ({
    scale: devices.scale !== null,
    camera: devices.camera !== null,
    controller: devices.controller !== null,
  }),
  takePicture: (context, { body }) => takePicture(context, body),
  weighOnScale: (context, { body }) => weighOnScale(context, body),
});
