import { list, uuid } from '../fields/index.js';
import { createFitting, fitting } from './fittings.js';
import { createPlaceReading, placeReading } from './place.js';
import { route } from '../routing/index.js';

export const placeRoutes = {
  createPlaceReading: route({
    method: 'post',
    path: '/api/tickets/:id/place-readings',
    summary: 'Keep a focus hunt, a flatness map, a centre or a round part',
    params: { id: uuid() },
    body: createPlaceReading,
    answer: list(placeReading),
  }),
  createFitting: route({
    method: 'post',
    path: '/api/fittings',
    summary: 'Say that a head and lens were fitted, every step of the change done',
    params: {},
    body: createFitting,
    answer: fitting,
  }),
} as const;
