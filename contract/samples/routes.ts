import { uuid } from '../fields/index.js';
import { route } from '../routing/index.js';
import { createPieceCheck, createPieceFault, createSampleDraw, runSample } from './samples.js';

const params = { id: uuid() };

export const sampleRoutes = {
  runSample: route({
    method: 'get',
    path: '/api/runs/:id/sample',
    summary: 'Pieces of a run that are drawn for the scrub, and what each stood',
    params,
    answer: runSample,
  }),
  createSampleDraw: route({
    method: 'post',
    path: '/api/runs/:id/draws',
    summary: 'Draw pieces of a run to be scrubbed',
    params,
    body: createSampleDraw,
    answer: runSample,
  }),
  createPieceCheck: route({
    method: 'post',
    path: '/api/runs/:id/piece-checks',
    summary: 'What a piece of a run stood',
    params,
    body: createPieceCheck,
    answer: runSample,
  }),
  createPieceFault: route({
    method: 'post',
    path: '/api/runs/:id/piece-faults',
    summary: 'What is wrong with a piece of a run, and where on it',
    params,
    body: createPieceFault,
    answer: runSample,
  }),
} as const;
