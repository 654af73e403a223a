import { deviceJob } from '../devices/index.js';
import { list, uuid } from '../fields/index.js';
import { route } from '../routing/index.js';
import { createTrayReading, takeTrayPicture, trayReading } from './trays.js';

const params = { id: uuid() };

export const trayRoutes = {
  trayReadings: route({
    method: 'get',
    path: '/api/runs/:id/trays',
    summary: 'What pictures of trays told of a run’s pieces, newest first',
    params,
    answer: list(trayReading),
  }),
  createTrayReading: route({
    method: 'post',
    path: '/api/runs/:id/trays',
    summary: 'Read the pieces of a run from one picture with the card',
    params,
    body: createTrayReading,
    answer: list(trayReading),
    patient: true,
    heavy: true,
  }),
  takeTrayPicture: route({
    method: 'post',
    path: '/api/runs/:id/camera',
    summary: 'Ask for a picture of washed pieces beside the card, to be kept as a file',
    params,
    body: takeTrayPicture,
    answer: deviceJob,
  }),
} as const;
