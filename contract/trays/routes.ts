import { deviceJob } from '../devices/index.js';
import { list, orNull, record, uuid } from '../fields/index.js';
import { route } from '../routing/index.js';
import { artworkDrawing } from '../artworks/artworks.js';
import { createTrayReading, pieceDrawingQuery, takeTrayPicture, trayReading } from './trays.js';

const params = { id: uuid() };

export const trayRoutes = {
  trayReadings: route({
    method: 'get',
    path: '/api/runs/:id/trays',
    summary: 'What pictures of trays told of a run’s pieces, newest first',
    params,
    answer: list(trayReading),
  }),
  pieceDrawing: route({
    method: 'get',
    path: '/api/runs/:id/drawing',
    summary: 'What was to be marked on a piece of a run, as paths of our own geometry; null where nothing was laid out',
    params,
    query: pieceDrawingQuery,
    answer: record({ drawing: orNull(artworkDrawing) }),
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
