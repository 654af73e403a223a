import { keptFile } from '../files/index.js';
import { takePicture } from './camera.js';
import { deviceList, scaleAnswer, weighOnScale } from './scale.js';
import { route } from '../routing/index.js';

export const deviceRoutes = {
  devices: route({
    method: 'get',
    path: '/api/devices',
    summary: 'Devices this server is tied to',
    params: {},
    answer: deviceList,
  }),
  takePicture: route({
    method: 'post',
    path: '/api/devices/camera/picture',
    summary: 'Take a picture of a coated part and keep it as a file',
    params: {},
    body: takePicture,
    answer: keptFile,
  }),
  weighOnScale: route({
    method: 'post',
    path: '/api/devices/scale/weigh',
    summary: 'Read the scale once it has settled; nothing is kept',
    params: {},
    body: weighOnScale,
    answer: scaleAnswer,
  }),
} as const;
