import { markingRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import * as burns from './burns.js';
import * as service from './service.js';

export const markingRouter = router(markingRoutes, {
  createMarking: (context, { params, body }) => service.createMarking(context, params.id, body),
  createPieceEvent: (context, { params, body }) => service.createPieceEvent(context, params.id, body),
  createFirstPiece: (context, { params, body }) => service.createFirstPiece(context, params.id, body),
  endMarking: (context, { params, body }) => service.endMarking(context, params.id, body),
  startRunBurn: (context, { params, body }) => burns.startRunBurn(context, params.id, body),
  actOnRunBurn: (context, { params, body }) => burns.actOnRunBurn(context, params.id, body.action),
  settleRunBurn: (context, { params, body }) => burns.settleRunBurn(context, params.id, body),
});
