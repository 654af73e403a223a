import { sampleRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import * as service from './service.js';

export const sampleRouter = router(sampleRoutes, {
  runSample: (context, { params }) => service.runSample(context, params.id),
  createSampleDraw: (context, { params, body }) => service.createSampleDraw(context, params.id, body),
  createPieceCheck: (context, { params, body }) => service.createPieceCheck(context, params.id, body),
  createPieceFault: (context, { params, body }) => service.createPieceFault(context, params.id, body),
});
