import { list, page, uuid } from '../fields/index.js';
import { coatPicture, createCoatPicture } from './pictures.js';
import { coatReading, coatTrendQuery, createCoatReading } from './readings.js';
import { endStoredCoat, storeCoat, storedCoat } from './stored.js';
import { createTimer, endTimer, timer } from './timers.js';
import { coatSample, createWeighing, weighing } from './weighings.js';
import { route } from '../routing/index.js';

export const coatRoutes = {
  createTimer: route({
    method: 'post',
    path: '/api/tickets/:id/timers',
    summary: 'Start a timer',
    params: { id: uuid() },
    body: createTimer,
    answer: timer,
  }),
  endTimer: route({
    method: 'put',
    path: '/api/timers/:id/end',
    summary: 'End a timer',
    params: { id: uuid() },
    body: endTimer,
    answer: timer,
  }),
  listTimers: route({
    method: 'get',
    path: '/api/timers',
    summary: 'Timers that run',
    params: {},
    answer: list(timer),
  }),
  createWeighing: route({
    method: 'post',
    path: '/api/tickets/:id/weighings',
    summary: 'Enter a weighing',
    params: { id: uuid() },
    body: createWeighing,
    answer: weighing,
  }),
  createCoatReading: route({
    method: 'post',
    path: '/api/tickets/:id/coat-readings',
    summary: 'Keep a comb reading or a visual inspection of a coat',
    params: { id: uuid() },
    body: createCoatReading,
    answer: list(coatReading),
  }),
  createCoatPicture: route({
    method: 'post',
    path: '/api/tickets/:id/coat-pictures',
    summary: 'Keep a picture of a dry coat with its film cell by cell and what was done',
    params: { id: uuid() },
    body: createCoatPicture,
    answer: list(coatPicture),
  }),
  coatTrend: route({
    method: 'get',
    path: '/api/coat-trend',
    summary: 'Coats as weighed, newest first, of one compound or all, by cursor',
    params: {},
    query: coatTrendQuery,
    answer: page(coatSample),
  }),
  storeCoat: route({
    method: 'post',
    path: '/api/tickets/:id/stored-coats',
    summary: 'Lay coated, dry pieces on the shelf',
    params: { id: uuid() },
    body: storeCoat,
    answer: storedCoat,
  }),
  endStoredCoat: route({
    method: 'put',
    path: '/api/stored-coats/:id/end',
    summary: 'Take stored pieces up, or rinse them off',
    params: { id: uuid() },
    body: endStoredCoat,
    answer: storedCoat,
  }),
} as const;
