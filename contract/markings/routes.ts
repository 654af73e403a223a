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
} as const;
