import { uuid, word } from '../fields/index.js';
import { route } from '../routing/index.js';
import { takePicture } from './camera.js';
import { DEVICE_JOBS, deviceJob } from './jobs.js';
import { deviceList, weighOnScale } from './scale.js';

export const deviceRoutes = {
  devices: route({
    method: 'get',
    path: '/api/devices',
    summary: 'Devices this server is tied to',
    params: {},
    alive: true,
    answer: deviceList,
  }),
  takePicture: route({
    method: 'post',
    path: '/api/devices/camera/picture',
    summary: 'Ask for a picture of a coated part, to be kept as a file',
    params: {},
    body: takePicture,
    answer: deviceJob,
  }),
  weighOnScale: route({
    method: 'post',
    path: '/api/devices/scale/weigh',
    summary: 'Ask for a weight once the scale has settled; nothing is kept of it',
    params: {},
    body: weighOnScale,
    answer: deviceJob,
  }),
  deviceJob: route({
    method: 'get',
    path: '/api/devices/jobs/:kind/:id',
    summary: 'What became of a picture or weight that was asked for',
    params: { kind: word(DEVICE_JOBS), id: uuid() },
    answer: deviceJob,
  }),
} as const;
