import { durabilityRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import * as service from './service.js';

export const durabilityRouter = router(durabilityRoutes, {
  createDurabilityTest: (context, { params, body }) => service.createDurabilityTest(context, params.id, body),
  createDurabilityLook: (context, { params, body }) => service.createDurabilityLook(context, params.id, body),
  lasting: (context, { query }) => service.lastingRows(context, query),
});
