import { identifyRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { createIdentification, listIdentifications } from './service.js';

export const identifyRouter = router(identifyRoutes, {
  listIdentifications: (context, { query }) => listIdentifications(context, query),
  createIdentification: (context, { body }) => createIdentification(context, body),
});
