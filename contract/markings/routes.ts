import { actOnBurn, settleBurn, startRunBurn } from '../devices/index.js';
import { uuid } from '../fields/index.js';
import { route } from '../routing/index.js';
import { createFirstPiece, createMarking, createPieceEvent, endMarking, marking } from './markings.js';

const params = { id: uuid() };

export const markingRoutes = {
  createMarking: route({
    method: 'post',
    path: '/api/tickets/:id/markings',
    summary: 'Begin a run whose pieces are counted one by one',
    params,
    body: createMarking,
    answer: marking,
  }),
  createPieceEvent: route({
    method: 'post',
    path: '/api/markings/:id/pieces',
    summary: 'Count a piece, set it aside, or take that back',
    params,
    body: createPieceEvent,
    answer: marking,
  }),
  createFirstPiece: route({
    method: 'post',
    path: '/api/markings/:id/first-piece',
    summary: 'How the first piece stood rinse and scrub',
    params,
    body: createFirstPiece,
    answer: marking,
  }),
  endMarking: route({
    method: 'put',
    path: '/api/markings/:id/end',
    summary: 'End it: what was counted becomes a run',
    params,
    body: endMarking,
    answer: marking,
  }),
  startRunBurn: route({
    method: 'post',
    path: '/api/markings/:id/burns',
    summary: 'Have the pieces that are to go sent to the controller, which counts them',
    params,
    body: startRunBurn,
    answer: marking,
  }),
  actOnRunBurn: route({
    method: 'put',
    path: '/api/run-burns/:id/act',
    summary: 'Ask for a counted run’s program to pause, go on or stop',
    params,
    body: actOnBurn,
    answer: marking,
  }),
  settleRunBurn: route({
    method: 'put',
    path: '/api/run-burns/:id/settle',
    summary: 'Say what was found of a program that broke off, or have its other pieces burnt',
    params,
    body: settleBurn,
    answer: marking,
  }),
} as const;
